import { describe, expect, it } from 'vitest'
import { backgroundOf } from '../backgrounds/set-background.ts'
import { isDeck, newDeck, type DeckPage } from '../inputs/deck.ts'
import { inputIdOf, pageIdOf } from '../layers/index.ts'
import { layersOf } from '../layers/tree.ts'
import { showSchema } from '../show/schema.ts'
import { testShow } from '../../tests/support/shows.ts'
import { seededRandom } from '../random/seeded.ts'
import { addDeckScenes, deckStyles, presenterOf } from './deck-scenes.ts'
import { replacePages, setPage, skipPage } from './deck-edits.ts'
import { matchPages, type NewPage } from './match-pages.ts'
import { pagesIn, rangeWords } from './page-range.ts'

const asset = (name: string) =>
  [...name]
    .map((letter) => letter.charCodeAt(0).toString(16))
    .join('')
    .padStart(64, '0')
/** Pages named "title/picture". */
const pagesOf = (...names: string[]): NewPage[] =>
  names.map((name, index) => {
    const [title, picture = title] = name.split('/')
    return { asset: asset(picture!), widthPx: 1920, heightPx: 1080, number: index + 1, title: title!, notes: '' }
  })
const kept = (...names: string[]): DeckPage[] => pagesOf(...names).map((page, index) => ({ ...page, id: `old${index + 1}`, skipped: false, strokes: [] }))
let made = 0
const makeId = () => `new${(made += 1)}`
const idsOf = (before: DeckPage[], now: NewPage[]) =>
  matchPages(before, now, makeId).pages.map(({ id }) => id.replace(/\d+$/, (number) => (id.startsWith('new') ? '' : number)))

describe('matchPages', () => {
  it('keeps every page of the same file', () => {
    const before = kept('a', 'b', 'c')
    expect(matchPages(before, pagesOf('a', 'b', 'c'), makeId)).toEqual({ pages: before, changed: [], added: [], removed: [] })
  })

  it('knows pages that moved, were put in and were taken out', () => {
    const { changed, added, removed } = matchPages(kept('a', 'b', 'c', 'd'), pagesOf('d', 'a', 'x', 'c'), makeId)
    expect({ changed, added, removed }).toEqual({ changed: [], added: [3], removed: [2] })
    expect(idsOf(kept('a', 'b', 'c', 'd'), pagesOf('d', 'a', 'x', 'c'))).toEqual(['old4', 'old1', 'new', 'old3'])
  })

  it('knows a page whose picture changed by its title, and without one by its neighbours', () => {
    expect(idsOf(kept('a', 'b', 'c'), pagesOf('a', 'b/b2', 'c'))).toEqual(['old1', 'old2', 'old3'])
    expect(idsOf(kept('/1', '/2', '/3'), pagesOf('/1', '/two', '/3'))).toEqual(['old1', 'old2', 'old3'])
    // Two stand where one stood: neither is taken for it.
    expect(idsOf(kept('/1', '/2', '/3'), pagesOf('/1', '/x', '/y', '/3'))).toEqual(['old1', 'new', 'new', 'old3'])
  })

  it('pairs pages that look the same with the nearest ones', () => {
    expect(idsOf(kept('s', 'a', 's'), pagesOf('a', 's'))).toEqual(['old2', 'old1'])
    expect(idsOf(kept('s', 'a', 's'), pagesOf('s', 'a', 's', 's'))).toEqual(['old1', 'old2', 'old3', 'new'])
  })

  it('keeps what is skipped and drawn, and takes the notes of the new file', () => {
    const strokes = [{ id: 's', tool: 'line' as const, colour: '#102030', width: 0.01, points: [0, 0, 0.5, 1, 1, 0.5] }]
    const drawn = kept('a', 'b').map((page, index) => ({ ...page, strokes: index === 1 ? strokes : [] }))
    expect(matchPages(drawn, pagesOf('new', 'a', 'b'), makeId).pages.map((page) => page.strokes.length)).toEqual([0, 0, 1])
    const before = kept('a', 'b').map((page) => ({ ...page, skipped: true, notes: 'old' }))
    const now = pagesOf('a', 'b').map((page) => ({ ...page, notes: 'new' }))
    expect(matchPages(before, now, makeId).pages.every(({ skipped, notes }) => skipped && notes === 'new')).toBe(true)
  })

  it.each([1, 2, 3, 4, 5, 6, 7, 8])('never gives one id twice, and accounts for every page (seed %i)', (seed) => {
    const random = seededRandom(seed)
    const names = () => Array.from({ length: 1 + Math.floor(random() * 12) }, () => `${'abc'[Math.floor(random() * 3)] ?? ''}/${Math.floor(random() * 6)}`)
    for (let round = 0; round < 60; round += 1) {
      const [before, now] = [kept(...names()), pagesOf(...names())]
      const { pages, changed, added, removed } = matchPages(before, now, makeId)
      expect(new Set(pages.map(({ id }) => id)).size).toBe(now.length)
      const stayed = pages.filter(({ id }) => id.startsWith('old'))
      expect(stayed.length + removed.length).toBe(before.length)
      expect(stayed.length + added.length).toBe(now.length)
      const same = stayed.filter((page) => before.find(({ id }) => id === page.id)!.asset === page.asset)
      expect(same.length + changed.length).toBe(stayed.length)
      // No page of the old file that is still there as it was is taken for gone.
      const count = (list: readonly { readonly asset: string }[], one: string) => list.filter((page) => page.asset === one).length
      for (const one of new Set(before.map((page) => page.asset))) expect(count(same, one)).toBe(Math.min(count(before, one), count(now, one)))
    }
  })
})

describe('pages by number', () => {
  it.each([
    ['1-3, 7', 9, [1, 2, 3, 7]],
    [' 4 ', 9, [4]],
    ['3–5;1', 9, [1, 3, 4, 5]],
    ['2,2,2', 9, [2]],
  ])('reads "%s"', (words, count, pages) => expect(pagesIn(words, count)).toEqual(pages))

  it.each(['', '0', '5-3', '10', '1-10', 'a', '1..3', '-2', '1,,3', '1e1'])('does not read "%s" of 9 pages', (words) => expect(pagesIn(words, 9)).toBeNull())

  it('writes what it reads', () => {
    expect(rangeWords([1, 2, 3, 7, 9, 10])).toBe('1–3, 7, 9–10')
    expect(pagesIn(rangeWords([2, 4, 5, 6, 30]), 30)).toEqual([2, 4, 5, 6, 30])
    expect(rangeWords([])).toBe('')
  })
})

describe('scenes for a deck', () => {
  const show = testShow()
  const deck = newDeck('Slides', 'slides.pdf', kept('a', 'b'), makeId)
  const words = { scene: (style: string) => `Slides ${style}`, divider: 'Divider', ink: 'Ink' }
  const facts = { infos: new Map(), heads: new Map() }
  const after = addDeckScenes(show, deck, deckStyles, 0, facts, words, makeId)

  it('come after the scene that is open, each with the deck, and whole shows', () => {
    expect(showSchema.safeParse(after).error).toBeUndefined()
    expect(after.scenes.slice(1, 1 + deckStyles.length).map(({ name }) => name)).toEqual(deckStyles.map((style) => `Slides ${style}`))
    for (const scene of after.scenes.slice(1, 1 + deckStyles.length)) expect(layersOf(scene).some((layer) => inputIdOf(layer) === deck.id)).toBe(true)
    expect(after.inputs.filter(isDeck)).toEqual([deck])
  })

  it('have the presenter, but for the whole page', () => {
    const presenter = presenterOf(show)!
    const withPresenter = after.scenes
      .slice(1, 1 + deckStyles.length)
      .map((scene) => layersOf(scene).some((layer) => inputIdOf(layer) === presenter.id && layer.visible))
    expect(withPresenter).toEqual(deckStyles.map((style) => style !== 'whole'))
  })

  it('stand in front of what the scene that is open stands in front of, where that is seen', () => {
    const back = backgroundOf(show, show.scenes[0]!)!
    expect(inputIdOf(back)).not.toBeNull()
    const hasBack = after.scenes.slice(1, 1 + deckStyles.length).map((scene) => inputIdOf(scene.layers[0]!) === inputIdOf(back))
    expect(hasBack).toEqual(deckStyles.map((style) => style === 'shoulder' || style === 'third'))
    expect(new Set(after.scenes.flatMap(layersOf).map(({ id }) => id)).size).toBe(after.scenes.flatMap(layersOf).length)
  })

  it('give the presenter a third and the page two thirds (common practice, no source)', () => {
    const scene = after.scenes[1 + deckStyles.indexOf('third')]!
    const [page, camera] = [deck.id, presenterOf(show)!.id].map((id) => layersOf(scene).find((layer) => inputIdOf(layer) === id)!.placement)
    expect(camera!.width / show.canvas.widthPx).toBeCloseTo(1 / 3, 1)
    expect(page!.x + page!.width).toBeLessThanOrEqual(camera!.x + 1)
  })

  it('show the page alone without a camera', () => {
    const bare = { ...show, inputs: show.inputs.filter((input) => input !== presenterOf(show)), scenes: [{ ...show.scenes[0]!, layers: [] }] }
    const made = addDeckScenes({ ...bare, inputs: bare.inputs.filter((input) => input.id !== presenterOf(bare)?.id) }, deck, ['third'], 0, facts, words, makeId)
    expect(layersOf(made.scenes[1]!)).toHaveLength(presenterOf(made) === null ? 1 : 2)
  })

  it('go on with other pages; a page that it opened at may be gone', () => {
    const pages = kept('c').map((page) => ({ ...page, id: 'other' }))
    const replaced = replacePages(after, deck.id, { pages, fileName: 'new.pdf' })
    expect(replaced.inputs.find(isDeck)).toMatchObject({ pages, fileName: 'new.pdf', pageId: 'other', name: 'Slides' })
    expect(showSchema.safeParse(replaced).error).toBeUndefined()
    expect(replacePages(after, 'nobody', { pages, fileName: 'new.pdf' })).toBe(after)
  })

  it('has a layer stay at a page, and pages skipped', () => {
    const scene = after.scenes[1]!
    const layer = layersOf(scene).find((one) => inputIdOf(one) === deck.id)!
    const stays = setPage(after, scene.id, layer.id, 'old2')
    expect(pageIdOf(layersOf(stays.scenes[1]!).find(({ id }) => id === layer.id)!)).toBe('old2')
    expect(setPage(stays, scene.id, layer.id, null)).toEqual(after)
    const skips = skipPage(after, deck.id, 'old2', true)
    expect(skips.inputs.find(isDeck)!.pages.map(({ skipped }) => skipped)).toEqual([false, true])
    expect(skipPage(skips, deck.id, 'old2', false)).toEqual(after)
  })
})
