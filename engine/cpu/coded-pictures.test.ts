// Coded pictures whose colours nobody changes, and pictures that are scaled: held to the core's own reader, to plain sums and to the reference.
import { inputSourceId } from '../../core/inputs/source-ids.ts'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { i420ByteLength, type I420Picture, type Picture } from '../../core/picture/picture.ts'
import { i420Reader } from '../../core/picture/i420.ts'
import { planInput } from '../../core/stage/plan-frame.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { renderReference } from '../../core/render/render-reference.ts'
import { stepOf, type AnyStep, type StepCall } from '../../core/steps/index.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import { ALLOWED_SHARE, smoothPicture } from '../../tests/support/parity-cases.ts'
import { rgbaToI420 } from '../../tests/support/i420.ts'
import { differenceOf } from '../../tests/support/pictures.ts'
import { randomCall } from '../../tests/support/random-steps.ts'
import { CpuExecutor } from './cpu-executor.ts'
import type { Heap } from './heap.ts'
import { RowTreater } from './row-treater.ts'
import { Treatments } from './treatments.ts'

let heap: Heap
beforeAll(async () => {
  heap = await nodeHeap()
})

const CODINGS = (['bt601', 'bt709'] as const).flatMap((matrix) => (['limited', 'full'] as const).map((range) => ({ matrix, range })))
const SIZES = [
  [1, 1],
  [2, 1],
  [3, 5],
  [16, 2],
  [31, 3],
  [333, 4],
] as const

/** Every code, as no camera sends them. */
function noise(seed: number, widthPx: number, heightPx: number, coding: Pick<I420Picture, 'matrix' | 'range'>): I420Picture {
  const random = seededRandom(seed)
  return {
    format: 'i420',
    widthPx,
    heightPx,
    ...coding,
    data: Uint8Array.from({ length: i420ByteLength(widthPx, heightPx) }, () => Math.floor(random() * 256)),
  }
}

describe('rows without a table', () => {
  const LITTER = 0x12345678
  // One for all codings, as an engine has it.
  let treater: RowTreater
  beforeAll(() => {
    treater = new RowTreater(heap)
  })
  afterAll(() => treater.dispose())

  /** The colours of a row as the kernel makes them, of the columns that were asked for; what must not be written is looked at, too. */
  function rowOf(picture: I420Picture, pictureAt: number, y: number, first: number, end: number): number[] {
    const line = heap.allocate((picture.widthPx + 32) * 4)
    heap.words.fill(LITTER, line.at >> 2, (line.at >> 2) + picture.widthPx + 32)
    const keep = { left: 0, top: 0, right: picture.widthPx, bottom: picture.heightPx }
    treater.treat(picture, pictureAt, null, keep, y, line.at, 'premultiplied', first, end)
    // Up to fifteen pixels past the last one, says the kernel.
    expect(heap.words[(line.at >> 2) + end + 15], 'past the row').toBe(LITTER)
    const row = [...heap.bytes.subarray(line.at + first * 4, line.at + end * 4)]
    heap.free(line)
    return row
  }

  it.each(CODINGS)('$matrix $range: every colour is the core’s, clipped and rounded, but where a half may go either way', (coding) => {
    let compared = 0
    let apart = 0
    for (const [widthPx, heightPx] of SIZES) {
      const picture = noise(widthPx, widthPx, heightPx, coding)
      const read = i420Reader(picture)
      const block = heap.allocate(picture.data.length)
      heap.bytes.set(picture.data, block.at)
      const rgb = new Float64Array(3)
      for (let y = 0; y < heightPx; y += 1) {
        for (const [first, end] of [
          [0, widthPx],
          [Math.floor(widthPx / 3), widthPx - Math.floor(widthPx / 4)],
        ] as const) {
          const row = rowOf(picture, block.at, y, first, end)
          for (let x = first; x < end; x += 1) {
            read(x, y, rgb)
            const at = (x - first) * 4
            expect(row[at + 3]).toBe(255)
            rgb.forEach((value, channel) => {
              const exact = Math.min(255, Math.max(0, value * 255))
              compared += 1
              // Shares have thirteen bits: a tenth of a code at most.
              if (Math.abs(exact - row[at + channel]!) > 0.5) apart += 1
              if (Math.abs(exact - row[at + channel]!) > 0.6) expect(row[at + channel], `${widthPx}×${heightPx} at ${x},${y}, channel ${channel}`).toBe(exact)
            })
          }
        }
      }
      heap.free(block)
    }
    expect(compared).toBeGreaterThan(5000)
    expect(apart / compared).toBeLessThan(0.05)
  })

  it('takes rows wider than any before, and gives its memory back', () => {
    const before = heap.usedBytes
    treater.dispose()
    const without = heap.usedBytes
    expect(without).toBeLessThan(before)
    treater = new RowTreater(heap)
    const picture = noise(1, 5000, 2, CODINGS[0]!)
    const block = heap.allocate(picture.data.length)
    heap.bytes.set(picture.data, block.at)
    rowOf(picture, block.at, 1, 0, 5000)
    treater.dispose()
    heap.free(block)
    expect(heap.usedBytes).toBe(without)
    treater = new RowTreater(heap)
  })
})

it.each([
  [1, 1],
  [1, 9],
  [9, 1],
  [2, 2],
  [7, 6],
  [8, 8],
  [23, 5],
  [64, 10],
])('half of %i×%i is the rounded mean of each four pixels', (widthPx, heightPx) => {
  const random = seededRandom(widthPx * 100 + heightPx)
  const data = Uint8Array.from({ length: widthPx * heightPx * 4 }, () => Math.floor(random() * 256))
  const [width, height] = [Math.max(1, widthPx >> 1), Math.max(1, heightPx >> 1)]
  const source = heap.allocate(data.length)
  const out = heap.allocate(width * height * 4 + 4)
  heap.bytes.set(data, source.at)
  heap.bytes.fill(99, out.at, out.at + width * height * 4 + 4)
  heap.kernels.halve(source.at, widthPx, heightPx, out.at, width, height)
  const at = (x: number, y: number, channel: number) => data[(Math.min(y, heightPx - 1) * widthPx + Math.min(x, widthPx - 1)) * 4 + channel]!
  const wanted = Array.from({ length: width * height * 4 }, (_, i) => {
    const [x, y, channel] = [((i >> 2) % width) * 2, Math.floor((i >> 2) / width) * 2, i % 4]
    return Math.floor((at(x, y, channel) + at(x + 1, y, channel) + at(x, y + 1, channel) + at(x + 1, y + 1, channel) + 2) / 4)
  })
  expect([...heap.bytes.subarray(out.at, out.at + wanted.length)]).toEqual(wanted)
  expect(heap.bytes[out.at + wanted.length], 'past the last').toBe(99)
  heap.free(source)
  heap.free(out)
})

describe('pictures drawn at another size', () => {
  const crop = randomCall(stepOf('crop') as AnyStep, seededRandom(4))
  const tone = randomCall(stepOf('tone') as AnyStep, seededRandom(4))
  const frameOf = (seed: number, widthPx: number, heightPx: number): Picture => rgbaToI420(smoothPicture(seed, widthPx, heightPx, true))

  it.each([
    ['as it is', []],
    ['cropped', [crop]],
    ['with other colours', [tone]],
  ] satisfies [string, StepCall[]][])('a clip %s agrees with the reference, picture after picture, smaller and larger', (_name, steps) => {
    const used = heap.usedBytes
    for (const [width, height, outWidth, outHeight] of [
      [192, 108, 128, 72],
      [333, 187, 200, 150],
      [96, 64, 190, 150],
      [37, 23, 36, 22],
      [3, 2, 64, 64],
      [1, 1, 20, 30],
      [200, 100, 3, 1],
    ] as const) {
      const treatments = new Treatments(heap)
      const executor = new CpuExecutor(treatments)
      const plan = planInput('clip', { widthPx: width, heightPx: height, isOpaque: true }, steps, outWidth, outHeight)
      for (const version of [1, 2]) {
        const picture = frameOf(version, width, height)
        const live = executor.render(plan, new Map([[inputSourceId('clip'), { picture, version, isLive: true }]])).data
        const exact = renderReference(plan, new Map([[inputSourceId('clip'), picture]])).data.map((value) => value * 255)
        const { max, shareAbove } = differenceOf(live, exact, 2)
        expect(shareAbove, `${width}×${height} on ${outWidth}×${outHeight}, picture ${version}, largest ${max}`).toBeLessThanOrEqual(ALLOWED_SHARE)
      }
      executor.dispose()
      treatments.dispose()
    }
    expect(heap.usedBytes).toBe(used)
  })
})
