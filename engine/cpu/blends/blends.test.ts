// Pixel loops of the blend modes against the exact formulas of core/blend.
import { beforeAll, describe, expect, it } from 'vitest'
import { compose } from '../../../core/blend/compose.ts'
import { blendModes, type BlendName } from '../../../core/blend/index.ts'
import { seededRandom } from '../../../core/random/seeded.ts'
import { nodeHeap } from '../../../server/cli/node-engine.ts'
import type { Heap } from '../heap.ts'
import { blendRows } from './index.ts'

let heap: Heap
beforeAll(async () => void (heap = await nodeHeap()))

const EXTREMES = [0, 1, 127, 128, 254, 255]

/** `count` premultiplied pixels; some opaque, some clear, some at the ends of what a code can be. */
function pixels(count: number, random: () => number): Uint8Array {
  const code = (most: number) => Math.min(most, random() < 0.25 ? EXTREMES[Math.floor(random() * EXTREMES.length)]! : Math.floor(random() * (most + 1)))
  const data = new Uint8Array(count * 4)
  for (let at = 0; at < data.length; at += 4) {
    const alpha = random() < 0.3 ? 255 : code(255)
    data.set([code(alpha), code(alpha), code(alpha), alpha], at)
  }
  return data
}

/** What the loop makes of two rows, and what the formula says, in codes. */
function both(name: BlendName, line: Uint8Array, base: Uint8Array): { readonly made: Uint8Array; readonly exact: Float64Array } {
  const [lineBlock, baseBlock] = [heap.allocate(line.length), heap.allocate(base.length)]
  heap.bytes.set(line, lineBlock.at)
  heap.bytes.set(base, baseBlock.at)
  blendRows(heap.kernels)[name](lineBlock.at, baseBlock.at, baseBlock.at, line.length / 4)
  const made = heap.bytes.slice(baseBlock.at, baseBlock.at + base.length)
  heap.free(lineBlock)
  heap.free(baseBlock)
  const exact = Float64Array.from(base, (code) => code / 255)
  const source = Float64Array.from(line, (code) => code / 255)
  for (let at = 0; at < exact.length; at += 4) compose(name, exact, at, source, at, 1)
  return { made, exact: exact.map((value) => value * 255) }
}

describe.each(blendModes.map(({ name }) => name))('blending by "%s"', (name) => {
  it('is within half a code of the formula, alpha too', () => {
    const random = seededRandom(3)
    const { made, exact } = both(name, pixels(20_000, random), pixels(20_000, random))
    const largest = made.reduce((most, code, i) => Math.max(most, Math.abs(code - exact[i]!)), 0)
    expect(largest).toBeLessThanOrEqual(0.502)
  })

  it('leaves what is under a clear pixel, is itself over nothing, and never makes a colour brighter than its alpha', () => {
    const random = seededRandom(9)
    const some = pixels(500, random)
    const nothing = new Uint8Array(some.length)
    expect(both(name, nothing, some).made).toEqual(some)
    expect(both(name, some, nothing).made).toEqual(some)
    const { made } = both(name, some, pixels(500, random))
    expect(made.filter((code, i) => code > made[i - (i % 4) + 3]! + 1)).toHaveLength(0)
  })

  it.each([1, 2, 3, 5, 7])('works on %i pixels without touching the next', (count) => {
    const random = seededRandom(count)
    const line = pixels(count, random)
    const block = heap.allocate((count + 1) * 4)
    const lineBlock = heap.allocate(line.length)
    heap.bytes.fill(77, block.at, block.at + (count + 1) * 4)
    heap.bytes.set(line, lineBlock.at)
    blendRows(heap.kernels)[name](lineBlock.at, block.at, block.at, count)
    expect([...heap.bytes.slice(block.at + count * 4, block.at + count * 4 + 4)]).toEqual([77, 77, 77, 77])
    heap.free(block)
    heap.free(lineBlock)
  })
})

describe('thinning by a mask', () => {
  it('multiplies every channel by the mask, rounded to nearest', () => {
    const random = seededRandom(2)
    const line = pixels(5000, random)
    const mask = Uint8Array.from({ length: 5000 }, () => Math.floor(random() * 256))
    const [lineBlock, maskBlock] = [heap.allocate(line.length), heap.allocate(mask.length)]
    heap.bytes.set(line, lineBlock.at)
    heap.bytes.set(mask, maskBlock.at)
    heap.kernels.thinRow(lineBlock.at, maskBlock.at, lineBlock.at, mask.length)
    const made = heap.bytes.slice(lineBlock.at, lineBlock.at + line.length)
    heap.free(lineBlock)
    heap.free(maskBlock)
    expect(made).toEqual(line.map((code, i) => Math.round((code * mask[i >> 2]!) / 255)))
  })
})
