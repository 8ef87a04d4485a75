// Which pictures of texts are kept, and for how long; and what is shown while they are being drawn.
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { TextJob } from '../../core/plan/frame-plan.ts'
import { USUAL_LETTERS } from '../../core/text/text-content.ts'
import type { SourceFrame } from '../executor.ts'
import { RASTER_BYTES, RasterBook } from './raster-book.ts'
import { URGENCY } from './raster.ts'

const SIZE = { widthPx: 1280, heightPx: 720 }
const picture = (value: number, { widthPx, heightPx } = SIZE): RgbaPicture => ({
  format: 'rgba',
  widthPx,
  heightPx,
  data: new Uint8Array(widthPx * heightPx * 4).fill(value, 0, 4),
})

/** A text of 1280 × 720: 3.5 MiB. */
const job = (number: number, contentId = `${number}`, size = SIZE): TextJob => ({
  sourceId: `text:${number}`,
  contentId,
  content: { ...USUAL_LETTERS, family: 'Instrument Sans', align: 'start', plate: null, blocks: [] },
  ...size,
  lettersShown: null,
})
const planOf = (...jobs: TextJob[]) => ({ texts: jobs, outlines: [] })

let drawn: string[]
let frames: Map<string, SourceFrame>
beforeEach(() => {
  vi.useFakeTimers({ toFake: ['performance'] })
  drawn = []
  frames = new Map()
})
afterEach(() => vi.useRealTimers())
const keptBytes = () => [...frames.values()].reduce((sum, frame) => sum + frame.picture.data.length, 0)

describe('rasters that are drawn at once', () => {
  let book: RasterBook
  const ask = (...numbers: number[]) => book.ask(planOf(...numbers.map((number) => job(number))), URGENCY.stage)
  beforeEach(() => {
    book = new RasterBook({ make: (raster) => (drawn.push((raster.job as TextJob).sourceId), picture(drawn.length)) }, frames)
  })

  it('stay within their bytes, however many different ones come, and those that are asked for stay', () => {
    for (let second = 0; second < 100; second += 1) {
      // A title that is always there, and a clock that says something else each second.
      ask(0, 1000 + second)
      expect([frames.has('text:0'), frames.has(`text:${1000 + second}`)]).toEqual([true, true])
      vi.advanceTimersByTime(1000)
    }
    expect(drawn.filter((id) => id === 'text:0')).toHaveLength(1)
    expect(keptBytes()).toBeLessThanOrEqual(RASTER_BYTES)
    expect(keptBytes()).toBeGreaterThan(RASTER_BYTES / 2)
  })

  it('that a plan shows are in use: looking keeps them, however many others come', () => {
    ask(0)
    for (let number = 1; number < 80; number += 1) {
      expect(book.hasAll(planOf(job(0)))).toBe(true)
      ask(number)
      vi.advanceTimersByTime(500)
    }
    expect(drawn.filter((id) => id === 'text:0')).toHaveLength(1)
  })

  it('that were let go are missed, and drawn again when they are asked for', () => {
    ask(0)
    vi.advanceTimersByTime(10_000)
    for (let number = 1; frames.has('text:0') && number < 200; number += 1) ask(number)
    expect(book.hasAll(planOf(job(0)))).toBe(false)
    ask(0)
    expect(drawn.filter((id) => id === 'text:0')).toHaveLength(2)
    expect(book.isSet('text:0')).toBe(true)
  })

  it('of one plan are all there, even where they are more than the bytes', () => {
    const numbers = Array.from({ length: 40 }, (_, i) => i)
    for (let round = 0; round < 2; round += 1) {
      ask(...numbers)
      expect(numbers.every((number) => frames.has(`text:${number}`))).toBe(true)
      vi.advanceTimersByTime(10_000)
    }
    expect(drawn).toHaveLength(40)
  })
})

describe('rasters that are drawn elsewhere', () => {
  const settle = () => new Promise((resolve) => setImmediate(resolve))
  function later() {
    const asked: { readonly id: string; readonly resolve: (made: RgbaPicture) => void; readonly reject: (error: Error) => void }[] = []
    const events = { onMade: vi.fn(), onFailed: vi.fn() }
    const make = (raster: { readonly job: object }) =>
      new Promise<RgbaPicture>((resolve, reject) => asked.push({ id: (raster.job as TextJob).sourceId, resolve, reject }))
    return { asked, events, book: new RasterBook({ make }, frames, events) }
  }

  it('are asked for once, and not there until they come', async () => {
    const { book, asked, events } = later()
    const plan = planOf(job(1))
    for (let i = 0; i < 3; i += 1) book.ask(plan, URGENCY.air)
    expect(asked).toHaveLength(1)
    expect(book.hasAll(plan)).toBe(false)
    expect(frames.size).toBe(0)
    asked[0]!.resolve(picture(7))
    await settle()
    expect(book.hasAll(plan)).toBe(true)
    expect(frames.get('text:1')!.picture.data[0]).toBe(7)
    expect(events.onMade).toHaveBeenCalledTimes(1)
  })

  it('have the last picture of the same text in their place, where it has the size, and nothing where it has not', async () => {
    const { book, asked } = later()
    book.ask(planOf(job(1, 'title')), URGENCY.air)
    asked[0]!.resolve(picture(7))
    await settle()
    const small = { widthPx: 4, heightPx: 2 }
    const plan = planOf(job(2, 'title'), job(3, 'title', small))
    book.ask(plan, URGENCY.air)
    book.standIn(plan)
    expect([frames.get('text:2')!.picture.data[0], frames.get('text:3')!.picture.data[0]]).toEqual([7, 0])
    expect(frames.get('text:3')!.picture.data).toHaveLength(32)
    expect([book.hasAll(plan), book.isSet('text:2')]).toEqual([false, false])
    const before = frames.get('text:2')!.version
    asked[1]!.resolve(picture(8))
    asked[2]!.resolve(picture(9, small))
    await settle()
    expect(book.hasAll(plan)).toBe(true)
    expect(frames.get('text:2')!.version).toBeGreaterThan(before)
  })

  it('that cannot be drawn are not waited for, told of, and tried again after a while', async () => {
    const { book, asked, events } = later()
    const plan = planOf(job(1))
    book.ask(plan, URGENCY.air)
    asked[0]!.reject(new Error('out of memory'))
    await settle()
    expect(events.onFailed).toHaveBeenCalledWith('out of memory')
    expect([book.hasAll(plan), book.isSet('text:1')]).toEqual([true, false])
    book.ask(plan, URGENCY.air)
    expect(asked).toHaveLength(1)
    vi.advanceTimersByTime(5000)
    book.ask(plan, URGENCY.air)
    expect(asked).toHaveLength(2)
    asked[1]!.resolve(picture(3))
    await settle()
    expect(book.isSet('text:1')).toBe(true)
  })
})
