// Which pictures of texts are kept, and for how long.
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { TextJob } from '../../core/plan/frame-plan.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { USUAL_LETTERS } from '../../core/text/text-content.ts'
import { testShow } from '../../tests/support/shows.ts'
import { RASTER_BYTES, SourceBook } from './source-book.ts'

const drawn: string[] = []
vi.mock('../text/text-picture.ts', () => ({
  textPicture: ({ sourceId, widthPx, heightPx }: TextJob): RgbaPicture => {
    drawn.push(sourceId)
    return { format: 'rgba', widthPx, heightPx, data: new Uint8Array(widthPx * heightPx * 4) }
  },
}))
vi.mock('./still-sources.ts', () => ({
  stillFrame: (picture: RgbaPicture, version: number) => ({ picture, version, isLive: false }),
  clearPicture: (widthPx: number, heightPx: number): RgbaPicture => ({ format: 'rgba', widthPx, heightPx, data: new Uint8Array(widthPx * heightPx * 4) }),
  openTextCanvas: () => null,
  colourPicture: (): RgbaPicture => ({ format: 'rgba', widthPx: 1, heightPx: 1, data: new Uint8Array(4) }),
}))

/** A text of 1280 × 720: 3.5 MiB. */
const job = (number: number): TextJob => ({
  sourceId: `text:${number}`,
  contentId: `${number}`,
  content: { ...USUAL_LETTERS, family: 'Instrument Sans', align: 'start', plate: null, blocks: [] },
  widthPx: 1280,
  heightPx: 720,
  lettersShown: null,
})
const onChange = vi.fn()
let book: SourceBook
const layOut = (...numbers: number[]) => book.layOut({ texts: numbers.map(job), outlines: [] })
const keptBytes = () => [...book.frames.values()].reduce((sum, { picture }) => sum + picture.data.length, 0)

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['performance'] })
  drawn.length = 0
  onChange.mockReset()
  const fonts = { isReady: () => true, load: () => Promise.resolve(), stackFor: (family: string) => family }
  book = new SourceBook(() => Promise.reject(new Error('no pictures here')), fonts, { onChange, onAssetFailed: () => undefined })
})
afterEach(() => vi.useRealTimers())

describe('pictures of texts', () => {
  it('stay within their bytes, however many different ones come, and those that are asked for stay', () => {
    for (let second = 0; second < 100; second += 1) {
      // A title that is always there, and a clock that says something else each second.
      layOut(0, 1000 + second)
      expect(book.frames.has('text:0')).toBe(true)
      expect(book.frames.has(`text:${1000 + second}`)).toBe(true)
      vi.advanceTimersByTime(1000)
    }
    expect(drawn.filter((id) => id === 'text:0')).toHaveLength(1)
    expect(keptBytes()).toBeLessThanOrEqual(RASTER_BYTES)
    expect(keptBytes()).toBeGreaterThan(RASTER_BYTES / 2)
  })

  it('that are let go are told of, so that whoever shows them still asks again', () => {
    layOut(0)
    vi.advanceTimersByTime(10_000)
    for (let number = 1; onChange.mock.calls.length === 0 && number < 200; number += 1) layOut(number)
    expect(book.frames.has('text:0')).toBe(false)
    layOut(0)
    expect(drawn.filter((id) => id === 'text:0')).toHaveLength(2)
    expect(book.isSet('text:0')).toBe(true)
  })

  it('of one plan are all there, even where they are more than the bytes', () => {
    const numbers = Array.from({ length: 40 }, (_, i) => i)
    for (let round = 0; round < 2; round += 1) {
      layOut(...numbers)
      expect(numbers.every((number) => book.frames.has(`text:${number}`))).toBe(true)
      vi.advanceTimersByTime(10_000)
    }
    expect(onChange).not.toHaveBeenCalled()
    expect(drawn).toHaveLength(40)
  })
})

it('keeps one picture of a colour that is dragged, not one of each colour that it had', () => {
  for (let i = 0; i < 300; i += 1) {
    const colour = `#${i.toString(16).padStart(6, '0')}`
    book.follow({ ...testShow(), inputs: [{ id: 'wall', kind: 'colour', name: 'Wall', colour, treatment: [] }] })
  }
  expect([...book.frames.keys()]).toEqual(['colour:#00012b'])
  expect([...book.infos.keys()]).toEqual(['colour:#00012b'])
})
