// Live spatial work beyond the parity tests: odd sizes, fast paths and memory. The exact reference is the oracle throughout.
import { beforeAll, describe, expect, it } from 'vitest'
import { placesBetween, placesInCells } from '../../../core/filter/bilinear.ts'
import type { Plane } from '../../../core/picture/float-picture.ts'
import type { RgbaPicture } from '../../../core/picture/picture.ts'
import { treatReference } from '../../../core/render/treat-reference.ts'
import type { StepCall, StepKind } from '../../../core/steps/index.ts'
import type { ParamValue } from '../../../core/steps/step.ts'
import { nodeHeap } from '../../../server/cli/node-engine.ts'
import { premultiplied, roundMask, smoothPicture } from '../../../tests/support/parity-cases.ts'
import { differenceOf } from '../../../tests/support/pictures.ts'
import { stepWith } from '../../../tests/support/steps.ts'
import type { Heap } from '../heap.ts'
import { stillTreater, treatStill } from '../treat-still.ts'
import { heapPlaces } from './places.ts'

let heap: Heap
beforeAll(async () => {
  heap = await nodeHeap()
})

const call = (kind: StepKind, params: Readonly<Record<string, ParamValue>> = {}): StepCall => stepWith(kind, params)

function differenceFor(picture: RgbaPicture, calls: readonly StepCall[], limit: number, person: Plane | null = null) {
  const exact = treatReference(picture, calls, { person }).data
  const treater = stillTreater(heap, calls, { person })
  const live = treater.frame(picture).data
  const result = differenceOf(premultiplied(exact, 255), premultiplied(live, 1), limit)
  treater.dispose()
  return result
}

/** Sizes that no group of four, eight or sixteen divides, and very small ones. */
const sizes = [
  [97, 61],
  [33, 19],
  [18, 11],
  [5, 3],
] as const

describe.each(sizes)('at %d × %d', (widthPx, heightPx) => {
  const picture = () => smoothPicture(widthPx, widthPx, heightPx)
  const surface = [0.17, 0.7, 0.32].flatMap((value) => [value, value * 0.2, 0, 0, 0, 0])

  it.each([
    [
      'a key on uneven cloth without spill',
      call('chromaKey', { colour: '#2bb552', spill: 0, backdrop: 'fitted', surface: [...surface, 0.05, 0.2, 0.1, 0.3, 0.95, 0.5] }),
      4,
    ],
    [
      'a key on uneven cloth with spill',
      call('chromaKey', { colour: '#2bb552', backdrop: 'fitted', surface: [...surface, 0.05, 0.2, 0.1, 0.3, 0.95, 0.5] }),
      4,
    ],
    ['a feathered, grown matte', call('matteEdge', { choke: 1.5, feather: 1.2 }), 3],
    ['a choked matte', call('matteEdge', { choke: -2, black: 0.1, white: 0.9 }), 3],
    ['sharpening', call('sharpen', { amount: 1.1, radius: 2 }), 3],
    ['a softened room', call('room', { effect: 'softened', softness: 2 }), 4],
    ['a hidden room', call('room', { effect: 'hidden' }), 4],
    ['grain calmed', call('denoise', { time: 0.5, space: 0.7, noise: 8 }), 6],
    ['a turned frame', call('framing', { zoom: 1.4, angle: 6, mirror: 'on' }), 2],
    ['a feathered crop', call('crop', { left: 10, right: 20, top: 5, feather: 4 }), 2],
  ] as const)('%s is what the reference makes of it', (_name, step, limit) => {
    const { shareAbove, max } = differenceFor(picture(), [step], limit, roundMask())
    // One pixel in a small picture is more than a thousandth.
    expect(shareAbove * widthPx * heightPx, `largest ${max}`).toBeLessThanOrEqual(Math.max(1, widthPx * heightPx * 0.002))
  })
})

describe('a key that takes no spill', () => {
  it('leaves every colour as it was and keys the last pixels of a row once', () => {
    const widthPx = 7
    const green = [40, 180, 80, 255]
    const data = new Uint8Array(widthPx * 3 * 4)
    for (let i = 0; i < widthPx * 3; i += 1) data.set(i % widthPx === 6 ? [60, 140, 80, 255] : i % 2 === 0 ? green : [200, 150, 120, 255], i * 4)
    const surface = [0.17, 0.7, 0.32].flatMap((value) => [value, 0, 0, 0, 0, 0])
    const treated = treatStill(heap, { format: 'rgba', widthPx, heightPx: 3, data }, [
      call('chromaKey', { colour: '#2bb552', spill: 0, backdrop: 'fitted', surface: [...surface, 0, 0, 0, 1, 1, 1] }),
    ])
    for (let y = 0; y < 3; y += 1) {
      const at = (y * widthPx + 6) * 4
      // Were it keyed twice, opacity would be squared in the rows above the last.
      expect(treated.data[at + 3]).toBe(treated.data[6 * 4 + 3])
      expect([...treated.data.subarray(at, at + 3)]).toEqual([60, 140, 80])
    }
    expect(treated.data[3]).toBe(0)
    expect(treated.data[7]).toBe(255)
  })
})

describe('a room', () => {
  const person = (value: number): Plane => ({ widthPx: 16, heightPx: 9, data: new Float32Array(144).fill(value) })
  const picture = smoothPicture(9, 128, 72, true)

  it('is the picture itself where all of it is the person', () => {
    const treated = treatStill(heap, picture, [call('room', { effect: 'softened', softness: 5 })], { person: person(1) })
    expect(differenceOf(picture.data, treated.data, 0).max).toBe(0)
  })

  it('is blurred everywhere, and as bright as before, where nobody is', () => {
    const treated = treatStill(heap, picture, [call('room', { effect: 'softened', softness: 6 })], { person: person(0) })
    const mean = (data: ArrayLike<number>) => Array.from(data).reduce((sum, value) => sum + value, 0) / data.length
    const roughness = (data: ArrayLike<number>) =>
      Array.from({ length: 127 }, (_, x) => Math.abs(data[(36 * 128 + x) * 4]! - data[(36 * 128 + x + 1) * 4]!)).reduce((sum, value) => sum + value, 0)
    expect(Math.abs(mean(treated.data) - mean(picture.data))).toBeLessThan(2)
    expect(roughness(treated.data)).toBeLessThan(roughness(picture.data) / 2)
  })

  it('is never shown while nobody has looked', () => {
    const treated = treatStill(heap, picture, [call('room', { effect: 'hidden' })])
    const alphas = treated.data.filter((_, i) => i % 4 === 3)
    expect(alphas).toHaveLength(picture.widthPx * picture.heightPx)
    expect(alphas.every((alpha) => alpha === 0)).toBe(true)
  })

  it('takes a new mask of another size', () => {
    const treater = stillTreater(heap, [call('room', { effect: 'hidden' })], { person: person(1) })
    expect(treater.frame(picture).data[3]).toBe(255)
    treater.dispose()
    const other = stillTreater(heap, [call('room', { effect: 'hidden' })], { person: { widthPx: 31, heightPx: 17, data: new Float32Array(31 * 17) } })
    expect(other.frame(picture).data[3]).toBe(0)
    other.dispose()
  })
})

describe('places between cells', () => {
  it.each([
    [97, 12],
    [5, 16],
    [64, 64],
    [1, 1],
  ])('of %d pixels over %d cells start where the first pixel above a cell lies', (count, cells) => {
    const places = placesBetween(count, cells)
    const made = heapPlaces(heap, (byteLength) => heap.allocate(byteLength), places, cells)
    const starts = heap.words.subarray(made.starts >> 2, (made.starts >> 2) + cells + 1)
    expect(starts[0]).toBe(0)
    expect(starts[cells]).toBe(count)
    for (let cell = 0; cell < cells; cell += 1) {
      expect(starts[cell + 1]!).toBeGreaterThanOrEqual(starts[cell]!)
      for (let pixel = starts[cell]!; pixel < starts[cell + 1]!; pixel += 1) expect(places.below[pixel]).toBe(cell)
    }
    for (const block of made.blocks) heap.free(block)
  })

  it('repeat at the borders and count up in between', () => {
    const { below, above, share } = placesInCells(20, 8)
    expect([below[0], above[0], share[0]]).toEqual([0, 1, 0])
    expect([below[19], above[19]]).toEqual([1, 2])
    expect(share[11]! + below[11]!).toBeCloseTo(11.5 / 8 - 0.5, 6)
  })
})

it('gives back all memory of every kind of work', () => {
  const picture = smoothPicture(4, 96, 64)
  treatStill(heap, picture, [])
  const before = heap.usedBytes
  const work: readonly (readonly [StepKind, Readonly<Record<string, ParamValue>>])[] = [
    ['framing', { zoom: 2 }],
    ['crop', { left: 10, feather: 3 }],
    ['denoise', {}],
    ['matteEdge', { choke: 1.5, feather: 2, specks: 20, detail: 0.5 }],
    ['spill', { replace: 'edge' }],
    ['room', {}],
    ['sharpen', {}],
  ]
  for (const [kind, params] of work) {
    treatStill(heap, picture, [call(kind, params)], { person: roundMask() })
    expect(heap.usedBytes, kind).toBe(before)
  }
})
