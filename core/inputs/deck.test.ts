import { describe, expect, it } from 'vitest'
import { inputSchema } from './index.ts'
import { deck, newDeck, pageAt, shownPages, turned, type DeckInput, type DeckPage } from './deck.ts'

const page = (number: number, part: Partial<DeckPage> = {}): DeckPage => ({
  id: `p${number}`,
  asset: number.toString(16).padStart(64, '0'),
  widthPx: 1920,
  heightPx: 1080,
  number,
  title: `Page ${number}`,
  notes: '',
  skipped: false,
  strokes: [],
  ...part,
})
let ids = 0
const deckOf = (...pages: DeckPage[]): DeckInput => newDeck('Brood frames', 'brood.pdf', pages, () => `deck-${ids++}`)
const numberOf = (one: DeckInput) => pageAt(one).number
const five = deckOf(page(1), page(2), page(3, { skipped: true }), page(4), page(5))

describe('turned', () => {
  it('goes page by page, passes over those that are skipped, and stops at either end', () => {
    expect([1, 2, 3, 4, 100].map((by) => numberOf(turned(five, by)))).toEqual([2, 4, 5, 5, 5])
    const last = turned(five, 100)
    expect([-1, -2, -3, -100].map((by) => numberOf(turned(last, by)))).toEqual([4, 2, 1, 1])
  })

  it('is the same object where nothing is turned', () => {
    expect(turned(five, -1)).toBe(five)
    expect(turned(five, 0)).toBe(five)
    const last = turned(five, 3)
    expect(turned(last, 1)).toBe(last)
    const one = deckOf(page(1))
    expect(turned(one, 1)).toBe(one)
    expect(turned(one, -1)).toBe(one)
  })

  it('leaves a page that is skipped, which was gone to by hand, for the next one', () => {
    expect(numberOf(turned({ ...five, pageId: 'p3' }, 1))).toBe(4)
    expect(numberOf(turned({ ...five, pageId: 'p3' }, -1))).toBe(2)
  })
})

describe('a deck', () => {
  it('opens at the first page that is not skipped', () => {
    expect(numberOf(deckOf(page(1, { skipped: true }), page(2)))).toBe(2)
    expect(numberOf(deckOf(page(1, { skipped: true })))).toBe(1)
    expect(() => deckOf()).toThrow('at least one page')
  })

  it('shows the page that it is at; a layer that stays at another page has a source of its own', () => {
    expect(deck.sourceId(five)).toBe(`input:${five.id}`)
    expect(deck.sourceId(five, 'p4')).toBe(`page:${five.id}:p4`)
    expect(deck.still(five)).toEqual({ type: 'asset', asset: page(1).asset })
    expect(deck.still(five, 'p4')).toEqual({ type: 'asset', asset: page(4).asset })
    // The page is gone: the layer follows the deck.
    expect(deck.sourceId(five, 'gone')).toBe(deck.sourceId(five))
    expect(deck.still(five, 'gone')).toEqual(deck.still(five))
  })

  it('needs the files of all pages, and decodes the two that follow and the one before ahead', () => {
    expect(deck.files(five)).toHaveLength(5)
    expect(deck.ahead({ ...five, pageId: 'p2' })).toEqual([page(4).asset, page(5).asset, page(1).asset])
  })

  it('shows all pages where every one is skipped', () => {
    expect(shownPages(five).map(({ number }) => number)).toEqual([1, 2, 4, 5])
    const none = deckOf(page(1, { skipped: true }), page(2, { skipped: true }))
    expect(shownPages(none)).toHaveLength(2)
  })
})

describe('its stored form', () => {
  const faultOf = (part: object) => {
    const { error } = inputSchema.safeParse({ ...five, ...part })
    return error === undefined ? null : `${error.issues[0]!.path.join('.')} ${error.issues[0]!.message}`
  }

  it.each([
    ['no page', { pages: [] }, 'pages must hold at least one page'],
    ['two pages of one id', { pages: [page(1), page(2, { id: 'p1' })] }, 'pages must not hold two pages of one id'],
    ['a page that is not there', { pageId: 'p9' }, 'pageId must be the id of one of its pages'],
    ['a picture that is no file', { pages: [page(1, { asset: '../../etc/passwd' })] }, 'pages.0.asset must be the SHA-256 of an uploaded file'],
  ])('refuses %s, and names it', (_what, part, fault) => expect(faultOf(part)).toBe(fault))

  it('is what it was', () => {
    expect(inputSchema.parse(structuredClone(five))).toEqual(five)
    expect(faultOf({ pages: Array.from({ length: 301 }, (_, i) => page(i + 1)) })).toMatch(/^pages /)
  })
})
