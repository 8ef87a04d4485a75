// What goes to the person model and what is made of its answers; the model itself is tried in the browser (tests/e2e/room.spec.ts).
import { describe, expect, it } from 'vitest'
import { rgbaToI420 } from '../../tests/support/i420.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { shrinkPicture } from './shrink-picture.ts'
import { steadyMask } from './steady-mask.ts'

describe('steadyMask', () => {
  const after = (steady: number, ...newest: number[]) => {
    const mask = Float32Array.of(steady)
    for (const value of newest) steadyMask(mask, Float32Array.of(value))
    return mask[0]!
  }

  it('follows flicker slowly and movement at once', () => {
    expect(after(0.5, 0.6)).toBeCloseTo(0.525, 5)
    expect(after(0, 1)).toBe(1)
    expect(after(1, 0.5)).toBe(0.5)
  })

  it('stays where it is on a still mask, and between old and new always', () => {
    const random = seededRandom(3)
    for (let i = 0; i < 200; i += 1) {
      const [old, next] = [random(), random()]
      const mixed = after(old, next)
      expect(mixed).toBeGreaterThanOrEqual(Math.min(old, next) - 1e-6)
      expect(mixed).toBeLessThanOrEqual(Math.max(old, next) + 1e-6)
      expect(after(old, old)).toBeCloseTo(old, 6)
    }
  })

  it('halves flicker about a middle', () => {
    const random = seededRandom(8)
    const mask = Float32Array.of(0.5)
    let raw = 0
    let steady = 0
    let last = 0.5
    for (let i = 0; i < 300; i += 1) {
      const value = 0.5 + (random() - 0.5) * 0.16
      const before = mask[0]!
      steadyMask(mask, Float32Array.of(value))
      raw += Math.abs(value - last)
      steady += Math.abs(mask[0]! - before)
      last = value
    }
    expect(steady).toBeLessThan(raw / 2)
  })

  it('gets there in the end', () => {
    expect(after(0.5, ...new Array<number>(30).fill(0.6))).toBeCloseTo(0.6, 3)
  })
})

describe('shrinkPicture', () => {
  function checked(widthPx: number, heightPx: number): RgbaPicture {
    const data = new Uint8Array(widthPx * heightPx * 4)
    for (let i = 0; i < widthPx * heightPx; i += 1) {
      const isLeft = (i % widthPx) * 2 < widthPx
      data.set(isLeft ? [200, 120, 90, 255] : [40, 170, 80, 255], i * 4)
    }
    return { format: 'rgba', widthPx, heightPx, data }
  }

  it.each([
    [1280, 720],
    [640, 480],
    [257, 145],
    [100, 60],
  ])('keeps colours in their places from %d × %d', (widthPx, heightPx) => {
    const small = shrinkPicture(checked(widthPx, heightPx), 256, 144)
    expect(small.length).toBe(256 * 144 * 4)
    for (const y of [0, 72, 143]) {
      expect([...small.subarray((y * 256 + 20) * 4, (y * 256 + 20) * 4 + 4)]).toEqual([200, 120, 90, 255])
      expect([...small.subarray((y * 256 + 240) * 4, (y * 256 + 240) * 4 + 4)]).toEqual([40, 170, 80, 255])
    }
  })

  it('reads camera pictures to within two codes', () => {
    const picture = checked(1280, 720)
    const fromRgba = shrinkPicture(picture, 256, 144)
    const fromCodes = shrinkPicture(rgbaToI420(picture), 256, 144)
    // The seam itself mixes chroma of both sides.
    const differences = Array.from(fromCodes, (value, i) => (Math.abs(((i >> 2) % 256) - 128) > 2 ? Math.abs(value - fromRgba[i]!) : 0))
    expect(fromCodes).toHaveLength(256 * 144 * 4)
    expect(differences.reduce((most, value) => Math.max(most, value), 0)).toBeLessThanOrEqual(2)
  })

  it('averages four samples, so that a fine checker becomes its mean', () => {
    const data = Uint8Array.from({ length: 512 * 288 * 4 }, (_, i) => {
      const pixel = i >> 2
      return i % 4 === 3 ? 255 : ((pixel % 512) + Math.floor(pixel / 512)) % 2 === 0 ? 200 : 100
    })
    const small = shrinkPicture({ format: 'rgba', widthPx: 512, heightPx: 288, data }, 256, 144)
    expect(small.every((value, i) => value === (i % 4 === 3 ? 255 : 150))).toBe(true)
    expect(small).toHaveLength(256 * 144 * 4)
  })
})
