import { describe, expect, it } from 'vitest'
import { rotation, scaling } from '../composite/affine.ts'
import { sampleBilinear } from './bilinear-sample.ts'
import { boxShares, footprintOf, sampleBox } from './box-sample.ts'
import type { FloatPicture } from './float-picture.ts'

function random(seed: number): () => number {
  let state = seed
  return () => (state = (state * 16807) % 2147483647) / 2147483647
}

function noise(widthPx: number, heightPx: number): FloatPicture {
  const next = random(widthPx * 31 + heightPx)
  return { widthPx, heightPx, data: Float64Array.from({ length: widthPx * heightPx * 4 }, next) }
}

describe('the mean of what falls on a pixel', () => {
  it('is all of a row, shared out: shares are 1 together, also beyond its ends', () => {
    const next = random(5)
    for (let i = 0; i < 2000; i += 1) {
      const size = 1 + Math.floor(next() * 12)
      const width = 1 + next() * 9
      const centre = next() * (size + 20) - 10
      const { first, shares } = boxShares(centre, width, size)
      expect(shares.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 12)
      expect(Math.min(...shares)).toBeGreaterThanOrEqual(0)
      expect(first).toBeGreaterThanOrEqual(0)
      expect(first + shares.length).toBeLessThanOrEqual(size)
    }
  })

  it('of one pixel is linear interpolation, everywhere', () => {
    const picture = noise(5, 4)
    const next = random(9)
    const box = new Float64Array(4)
    const between = new Float64Array(4)
    for (let i = 0; i < 500; i += 1) {
      const [x, y] = [next() * 9 - 2, next() * 8 - 2]
      sampleBox(picture, x, y, { across: 1 + 1e-12, down: 1 }, box)
      sampleBilinear(picture, x, y, between)
      for (let channel = 0; channel < 4; channel += 1) expect(box[channel]).toBeCloseTo(between[channel]!, 10)
    }
  })

  it('grows and glides without a jump: half a thousandth of a pixel changes next to nothing', () => {
    const picture = noise(40, 30)
    const before = new Float64Array(4)
    const after = new Float64Array(4)
    for (let width = 0.8; width < 12; width += 0.0005) {
      const wide = (px: number) => footprintOf(scaling(px, px))
      sampleBox(picture, 20.3, 14.9, wide(width), before)
      sampleBox(picture, 20.3005, 14.9, wide(width + 0.0005), after)
      for (let channel = 0; channel < 4; channel += 1) expect(Math.abs(after[channel]! - before[channel]!)).toBeLessThan(0.004)
    }
  })

  it('is as large for a turned picture, and one pixel for one that is only turned', () => {
    expect(footprintOf(rotation(0.7))).toEqual({ across: 1, down: 1 })
    const [cos, sin] = [Math.cos(0.7), Math.sin(0.7)]
    const turned = footprintOf({ ...rotation(0.7), a: 3 * cos, b: 2 * sin, c: -3 * sin, d: 2 * cos })
    expect([turned.across, turned.down]).toEqual([expect.closeTo(3, 12), expect.closeTo(2, 12)])
    expect(footprintOf(scaling(3, 1.5))).toEqual({ across: 3, down: 1.5 })
    expect(footprintOf(scaling(0.4, 0.2))).toEqual({ across: 1, down: 1 })
  })
})
