// The wide blur against the plain convolution (gaussian.ts), and against a shadow's closed form.
import { describe, expect, it } from 'vitest'
import { seededRandom } from '../random/seeded.ts'
import { fastGaussian, type FastPlane } from './fast-gaussian.ts'
import { convolvePlane, gaussianTaps } from './gaussian.ts'

/** Bars and dots in the middle, as letters have them; nothing within three sigma of the edges. */
function letters(sigma: number, widthPx = 60, heightPx = 34): FastPlane {
  const room = Math.ceil(3 * sigma)
  const plane = { widthPx: widthPx + 2 * room, heightPx: heightPx + 2 * room, data: new Float32Array((widthPx + 2 * room) * (heightPx + 2 * room)) }
  const random = seededRandom(Math.round(sigma * 10))
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const isBar = x % 13 < 3 || y % 17 < 4
      plane.data[(y + room) * plane.widthPx + x + room] = isBar ? 1 : random() < 0.02 ? random() : 0
    }
  }
  return plane
}

describe('fastGaussian', () => {
  it.each([0.5, 2, 3.9, 4, 4.1, 6, 7.9, 8, 12, 15.9, 16, 30, 64])('is the plain convolution within a code at sigma %d', (sigma) => {
    const plane = letters(sigma)
    const exact = convolvePlane({ ...plane, data: Float64Array.from(plane.data) }, gaussianTaps(sigma)).data
    const fast = fastGaussian(plane, sigma).data
    expect(exact.some((value) => value > 0.02)).toBe(true)
    expect(fast.reduce((most, value, i) => Math.max(most, Math.abs(value - exact[i]!)), 0) * 255).toBeLessThan(1)
  })

  it.each([
    [1, 1],
    [1, 40],
    [41, 1],
    [7, 5],
  ])('keeps a size of %d × %d, and what it holds within it', (widthPx, heightPx) => {
    const plane = { widthPx, heightPx, data: new Float32Array(widthPx * heightPx).fill(1) }
    for (const sigma of [0, 1, 5, 20, 200]) {
      const { data, ...size } = fastGaussian(plane, sigma)
      expect(size).toEqual({ widthPx, heightPx })
      expect(data.every((value) => value >= 0 && value <= 1 + 1e-6)).toBe(true)
    }
  })

  it('of a wide edge is the integral of the normal distribution (NIST Handbook of Mathematical Functions 7.2: erf)', () => {
    const sigma = 20
    const plane = { widthPx: 600, heightPx: 200, data: new Float32Array(600 * 200) }
    for (let y = 0; y < 200; y += 1) plane.data.fill(1, y * 600 + 300, y * 600 + 600)
    const { data } = fastGaussian(plane, sigma)
    // Φ(1) = 0.8413447, Φ(0.5) = 0.6914625 (Abramowitz & Stegun, table 26.1), half a pixel off the edge.
    expect(data[100 * 600 + 300 + 20]! / 2 + data[100 * 600 + 300 + 19]! / 2).toBeCloseTo(0.8413447, 2)
    expect(data[100 * 600 + 300 + 10]! / 2 + data[100 * 600 + 300 + 9]! / 2).toBeCloseTo(0.6914625, 2)
  })
})
