import { describe, expect, it } from 'vitest'
import { edgeDistance, halfPlaneShare, shapeCoverage, type Shape } from './shape.ts'

/** Area of a shape as its pixels cover it, turned about its middle and set down at (offsetX, offsetY). */
function areaOf(shape: Shape, offsetX = 0.3, offsetY = 0.7, angle = 0): number {
  const cos = Math.cos(angle)
  const sin = Math.sin(angle)
  const reach = Math.ceil(Math.hypot(shape.width, shape.height) / 2) + 2
  let sum = 0
  for (let row = -reach; row < reach; row += 1) {
    for (let column = -reach; column < reach; column += 1) {
      const right = column + 0.5 - offsetX
      const down = row + 0.5 - offsetY
      sum += shapeCoverage(shape, shape.width / 2 + right * cos + down * sin, shape.height / 2 - right * sin + down * cos, cos, sin)
    }
  }
  return sum
}

const rect = (width: number, height: number, cornerRadius = 0): Shape => ({ kind: 'roundedRect', width, height, cornerRadius })
const superellipse = (width: number, height: number, exponent: number): Shape => ({ kind: 'superellipse', width, height, exponent })

/** Γ by Lanczos's series (g = 7, n = 9; coefficients from memory, held to Γ(½) = √π and Γ(n + 1) = n! below). */
function gamma(z: number): number {
  const coefficients = [
    0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905, -0.13857109526572012,
    9.9843695780195716e-6, 1.5056327351493116e-7,
  ]
  const x = z - 1
  const t = x + 7.5
  const sum = coefficients.slice(1).reduce((total, coefficient, i) => total + coefficient / (x + i + 1), coefficients[0]!)
  return Math.sqrt(2 * Math.PI) * t ** (x + 0.5) * Math.exp(-t) * sum
}

describe('areas of shapes', () => {
  it('rest on a true gamma function', () => {
    expect(gamma(0.5)).toBeCloseTo(Math.sqrt(Math.PI), 12)
    expect(gamma(6)).toBeCloseTo(120, 9)
  })

  // Analytic areas: π r², w·h − (4 − π) r², and 4ab Γ(1 + 1/n)² / Γ(1 + 2/n) for a superellipse.
  it.each([
    ['circle of 40', rect(40, 40, 20), Math.PI * 400],
    ['rectangle of 20.5 × 31.25', rect(20.5, 31.25), 20.5 * 31.25],
    ['rounded rectangle, radius 3', rect(60, 33, 3), 60 * 33 - (4 - Math.PI) * 9],
    ['rounded rectangle, radius 12', rect(60, 33, 12), 60 * 33 - (4 - Math.PI) * 144],
    ['ellipse of 48 × 24', superellipse(48, 24, 2), Math.PI * 24 * 12],
    ['soft square of 64, n = 4', superellipse(64, 64, 4), 4 * 32 * 32 * (gamma(1.25) ** 2 / gamma(1.5))],
    ['soft square of 90 × 50, n = 5', superellipse(90, 50, 5), 4 * 45 * 25 * (gamma(1.2) ** 2 / gamma(1.4))],
  ] as const)('%s', (_, shape, area) => {
    for (const angle of [0, 0.2, Math.PI / 4, 1.1]) expect(Math.abs(areaOf(shape, 0.3, 0.7, angle) / area - 1)).toBeLessThanOrEqual(2e-4)
    for (const [x, y] of [
      [0, 0],
      [0.5, 0.25],
    ] as const)
      expect(Math.abs(areaOf(shape, x, y) / area - 1)).toBeLessThanOrEqual(2e-4)
  })
})

describe('a straight edge through a pixel', () => {
  it.each([0, 0.3, Math.PI / 4, 1.2, 2.5])('covers the share that a fine grid counts (angle %d)', (angle) => {
    const normalX = Math.cos(angle)
    const normalY = Math.sin(angle)
    const fine = 400
    for (const distance of [-0.6, -0.31, 0, 0.2, 0.45, 0.69]) {
      let inside = 0
      for (let i = 0; i < fine * fine; i += 1) {
        const x = ((i % fine) + 0.5) / fine - 0.5
        const y = (Math.floor(i / fine) + 0.5) / fine - 0.5
        if (x * normalX + y * normalY + distance <= 0) inside += 1
      }
      expect(halfPlaneShare({ distance, normalX, normalY })).toBeCloseTo(inside / (fine * fine), 2)
    }
  })

  it('is what both sides share: the two together cover the pixel', () => {
    for (let i = 0; i < 50; i += 1) {
      const edge = { distance: i / 40 - 0.6, normalX: Math.cos(i), normalY: Math.sin(i) }
      const other = { distance: -edge.distance, normalX: -edge.normalX, normalY: -edge.normalY }
      expect(halfPlaneShare(edge) + halfPlaneShare(other)).toBeCloseTo(1, 12)
    }
  })
})

describe('the distance to an edge', () => {
  it('leads to the edge and away from the shape, on every side', () => {
    const out = { distance: 0, normalX: 0, normalY: 0, curvature: 0 }
    for (const shape of [rect(40, 30, 10), superellipse(40, 30, 4)]) {
      for (const [x, y] of [
        [-1, 15],
        [41, 15],
        [20, -1],
        [20, 31],
        [2, 2],
        [38, 28],
      ] as const) {
        edgeDistance(shape, x, y, out)
        const { distance, normalX, normalY } = out
        expect(Math.hypot(normalX, normalY)).toBeCloseTo(1, 9)
        edgeDistance(shape, x - normalX * distance, y - normalY * distance, out)
        expect(Math.abs(out.distance)).toBeLessThan(0.15)
      }
    }
  })

  it('knows how round the edge is: one over the radius of a circle, however it is described', () => {
    const out = { distance: 0, normalX: 0, normalY: 0, curvature: 0 }
    for (const shape of [rect(40, 40, 20), superellipse(40, 40, 2)]) {
      for (const angle of [0, 0.4, 1, 2.2, 4]) {
        edgeDistance(shape, 20 + 20 * Math.cos(angle), 20 + 20 * Math.sin(angle), out)
        if (angle !== 0) expect(out.curvature).toBeCloseTo(1 / 20, 9)
        expect(out.distance).toBeCloseTo(0, 9)
      }
    }
    edgeDistance(rect(40, 30, 5), 20, 0, out)
    expect(out.curvature).toBe(0)
  })

  it('is finite in the very middle and for the thinnest shapes', () => {
    for (const shape of [superellipse(10, 10, 4), rect(0.2, 50), rect(1, 1), superellipse(1, 1, 2)]) {
      expect(Number.isFinite(shapeCoverage(shape, shape.width / 2, shape.height / 2))).toBe(true)
    }
  })
})
