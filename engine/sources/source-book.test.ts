import { describe, expect, it, vi } from 'vitest'
import { newDeck, turned, type DeckInput, type DeckPage } from '../../core/inputs/deck.ts'
import { newInputLayer } from '../../core/layers/input.ts'
import type { Show } from '../../core/show/show.ts'
import { testShow } from '../../tests/support/shows.ts'
import type { LoadedStill } from '../still/still-protocol.ts'
import { SourceBook } from './source-book.ts'

const never = () => Promise.reject(new Error('nothing is loaded or drawn here'))

it('keeps one picture of a colour that is dragged, not one of each colour that it had', () => {
  const book = new SourceBook(never, { make: never }, { onChange: vi.fn(), onAssetFailed: () => undefined })
  for (let i = 0; i < 300; i += 1) {
    const colour = `#${i.toString(16).padStart(6, '0')}`
    book.follow({ ...testShow(), inputs: [{ id: 'wall', kind: 'colour', name: 'Wall', colour, treatment: [] }] })
  }
  expect([...book.frames.keys()]).toEqual(['colour:#00012b'])
  expect([...book.infos.keys()]).toEqual(['colour:#00012b'])
})

describe('the pages of a deck', () => {
  const page = (number: number): DeckPage => ({
    id: `p${number}`,
    asset: number.toString(16).padStart(64, '0'),
    widthPx: 4,
    heightPx: 2,
    number,
    title: '',
    notes: '',
    skipped: false,
    strokes: [],
  })
  const deck = newDeck(
    'Slides',
    's.pdf',
    Array.from({ length: 9 }, (_, index) => page(index + 1)),
    () => 'deck',
  )
  const SOURCE = 'input:deck'

  /** A book whose files come when the test says so; a picture holds the number of its page. The last page is of another size. */
  function bookOf() {
    const waiting = new Map<string, { readonly resolve: (still: LoadedStill) => void; readonly reject: (error: Error) => void }>()
    const loads: number[] = []
    const events = { onChange: vi.fn(), onAssetFailed: vi.fn(), onRaster: vi.fn() }
    const load = (asset: string) => {
      loads.push(parseInt(asset, 16))
      return new Promise<LoadedStill>((resolve, reject) => waiting.set(asset, { resolve, reject }))
    }
    const book = new SourceBook(load, { make: never }, events)
    const settle = () => new Promise((resolve) => setImmediate(resolve))
    return {
      events,
      loads,
      at: (shown: DeckInput, layers: Show['scenes'][number]['layers'] = []) =>
        book.follow({ ...testShow(), inputs: [shown], scenes: [{ ...testShow().scenes[0]!, layers }] }),
      arrive: async (...numbers: number[]) => {
        for (const number of numbers) {
          const [widthPx, heightPx] = number === 9 ? [3, 3] : [4, 2]
          const picture = {
            format: 'rgba' as const,
            widthPx,
            heightPx,
            data: new Uint8ClampedArray(widthPx * heightPx * 4).fill(number) as unknown as Uint8Array,
          }
          waiting.get(page(number).asset)!.resolve({ picture, isOpaque: true })
        }
        await settle()
      },
      fail: async (number: number) => {
        waiting.get(page(number).asset)!.reject(new Error('gone'))
        await settle()
      },
      shown: (source = SOURCE) => (book.frames.get(source)?.picture as { data: Uint8Array } | undefined)?.data[0] ?? null,
      sources: () => [...book.frames.keys()],
    }
  }

  it('are decoded ahead: two that follow and the one before, so that a turn waits for nothing', async () => {
    const { at, arrive, loads, shown } = bookOf()
    at(deck)
    expect(loads).toEqual([1, 2, 3])
    await arrive(1, 2, 3)
    expect(shown()).toBe(1)
    at(turned(deck, 1))
    // No new file had to come.
    await Promise.resolve()
    await Promise.resolve()
    expect(shown()).toBe(2)
    expect(loads).toEqual([1, 2, 3, 4])
  })

  it('stay until the next one is there: nothing is ever missing', async () => {
    const { at, arrive, shown } = bookOf()
    at(deck)
    await arrive(1)
    at(turned(deck, 4))
    expect(shown()).toBe(1)
    await arrive(5)
    expect(shown()).toBe(5)
  })

  it('that come late never take the place of the one that is wanted', async () => {
    const { at, arrive, shown } = bookOf()
    at(deck)
    await arrive(1)
    at(turned(deck, 3))
    at(turned(deck, 5))
    await arrive(6)
    await arrive(4)
    expect(shown()).toBe(6)
  })

  it('are let go when they are far away, and come again', async () => {
    const { at, arrive, loads } = bookOf()
    at(deck)
    await arrive(1, 2, 3)
    at(turned(deck, 7))
    at(deck)
    expect(loads.filter((number) => number === 2)).toHaveLength(2)
  })

  it('leave plans alone where they are alike, and make them anew where one has another size', async () => {
    const { at, arrive, events } = bookOf()
    at(deck)
    await arrive(1, 2, 3)
    const before = events.onChange.mock.calls.length
    at(turned(deck, 1))
    await arrive(4)
    expect([events.onChange.mock.calls.length, events.onRaster.mock.calls.length]).toEqual([before, 1])
    at(turned(deck, 8))
    await arrive(9)
    expect(events.onChange.mock.calls.length).toBe(before + 1)
  })

  it('that cannot be read are told of when they are wanted, not when they might be; the one before stays', async () => {
    const { at, arrive, fail, shown, events } = bookOf()
    at(deck)
    await arrive(1, 3)
    await fail(2)
    expect(events.onAssetFailed).not.toHaveBeenCalled()
    at(turned(deck, 1))
    await fail(2)
    expect(events.onAssetFailed).toHaveBeenCalledWith(page(2).asset, 'gone')
    expect(shown()).toBe(1)
  })

  it('that a layer stays at have a source of their own, for as long as one does', async () => {
    const { at, arrive, shown, sources } = bookOf()
    const layer = { ...newInputLayer(deck, { widthPx: 1280, heightPx: 720 }, () => 'layer'), pageId: 'p7' }
    at(deck, [layer])
    await arrive(1, 2, 3, 7)
    expect([shown(), shown('page:deck:p7')]).toEqual([1, 7])
    at(turned(deck, 1), [layer])
    await arrive(4)
    expect([shown(), shown('page:deck:p7')]).toEqual([2, 7])
    at(turned(deck, 1), [{ ...layer, pageId: null }])
    expect(sources()).toEqual([SOURCE])
  })

  it('that come after nobody stays at them any more are not kept', async () => {
    const { at, arrive, sources } = bookOf()
    const layer = { ...newInputLayer(deck, { widthPx: 1280, heightPx: 720 }, () => 'layer'), pageId: 'p7' }
    at(deck, [layer])
    at(deck, [])
    await arrive(1, 7)
    expect(sources()).toEqual([SOURCE])
  })
})
