import { describe, expect, it } from 'vitest'
import { erf, shadowCoverage, sigmaOfBlur } from './shadow.ts'
import { shapeCoverage, type Shape } from './shape.ts'

/** Finer than a pixel, so that the grid itself softens nothing; odd, so that pixels' centres lie on it. */
const FINE = 3

/** A shape so many times as large. */
function enlarged(shape: Shape, by: number): Shape {
  const size = { width: shape.width * by, height: shape.height * by }
  return shape.kind === 'roundedRect' ? { ...shape, ...size, cornerRadius: shape.cornerRadius * by } : { ...shape, ...size }
}

/** A true gaussian over the shape's exact coverage, on a grid of doubles. */
function trueShadow(shape: Shape, margin: number, sigma: number): { readonly at: (x: number, y: number) => number } {
  const width = Math.ceil(shape.width) + 2 * margin
  const height = Math.ceil(shape.height) + 2 * margin
  const mask = Float64Array.from({ length: width * height }, (_, i) => shapeCoverage(shape, (i % width) - margin + 0.5, Math.floor(i / width) - margin + 0.5))
  const radius = Math.ceil(5 * sigma)
  const taps = Array.from({ length: 2 * radius + 1 }, (_, i) => Math.exp(-((i - radius) ** 2) / (2 * sigma * sigma)))
  const total = taps.reduce((sum, tap) => sum + tap, 0)
  const blur = (from: Float64Array, stride: number, limit: (at: number) => readonly [index: number, length: number]) =>
    from.map((_, at) => {
      const [index, length] = limit(at)
      let sum = 0
      for (let k = Math.max(-radius, -index); k <= Math.min(radius, length - 1 - index); k += 1) sum += from[at + k * stride]! * taps[k + radius]!
      return sum / total
    })
  const across = blur(mask, 1, (at) => [at % width, width])
  const both = blur(across, width, (at) => [Math.floor(at / width), height])
  return { at: (x, y) => both[(y + margin) * width + x + margin]! }
}

describe('the error function', () => {
  // Abramowitz and Stegun, Table 7.1 (from memory).
  it.each([
    [0, 0],
    [0.5, 0.5204998778],
    [1, 0.8427007929],
    [2, 0.995322265],
    [-1, -0.8427007929],
  ])('of %d is %d', (x, expected) => expect(Math.abs(erf(x) - expected)).toBeLessThanOrEqual(1.5e-7))
})

describe('shadows', () => {
  const shapes: readonly (readonly [string, Shape])[] = [
    ['a rectangle', { kind: 'roundedRect', width: 60, height: 34, cornerRadius: 0 }],
    ['a rounded rectangle', { kind: 'roundedRect', width: 60, height: 34, cornerRadius: 12 }],
    ['a circle', { kind: 'roundedRect', width: 40, height: 40, cornerRadius: 20 }],
    ['a soft square', { kind: 'superellipse', width: 50, height: 40, exponent: 4 }],
  ]
  it.each(shapes.flatMap(([name, shape]) => [2, 4, 10].map((sigma) => [name, sigma, shape] as const)))(
    'of %s at deviation %d are a true gaussian',
    (_, sigma, shape) => {
      const margin = Math.ceil(3 * sigma)
      const truth = trueShadow(enlarged(shape, FINE), margin * FINE, sigma * FINE)
      let largest = 0
      for (let y = -margin; y < shape.height + margin; y += 1) {
        for (let x = -margin; x < shape.width + margin; x += 1) {
          largest = Math.max(largest, Math.abs(shadowCoverage(shape, x + 0.5, y + 0.5, sigma) - truth.at(x * FINE + 1, y * FINE + 1)))
        }
      }
      expect(largest * 255).toBeLessThanOrEqual(0.5)
    },
  )

  it('vanish far away and are whole deep inside', () => {
    const shape: Shape = { kind: 'roundedRect', width: 100, height: 80, cornerRadius: 10 }
    expect(shadowCoverage(shape, 50, 40, 4)).toBeCloseTo(1, 3)
    expect(shadowCoverage(shape, 50, -40, 4)).toBe(0)
    expect(shadowCoverage(shape, -40, 40, 4)).toBeCloseTo(0, 6)
  })

  it('have half the blur for a deviation, as style sheets mean it', () => expect(sigmaOfBlur(16)).toBe(8))
})
