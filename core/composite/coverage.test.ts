import { describe, expect, it } from 'vitest'
import { roundedRectCoverage } from './coverage.ts'

describe('roundedRectCoverage', () => {
  it.each([
    [0.25, 8],
    [0.5, 8],
    [0.75, 0.5],
    [0.3, 0.2],
    [8, 0.1],
  ])('of a shape of %f × %f is never more of a pixel than its area', (width, height) => {
    for (let offset = -1; offset <= 1; offset += 0.05) {
      const coverage = roundedRectCoverage(width / 2 + offset, height / 2, width, height, 0)
      expect(coverage).toBeLessThanOrEqual(Math.min(1, width) * Math.min(1, height) + 1e-12)
    }
    expect(roundedRectCoverage(width / 2, height / 2, width, height, 0)).toBeCloseTo(Math.min(1, width) * Math.min(1, height), 10)
  })

  it('is whole inside and half on the edge of a larger one', () => {
    expect(roundedRectCoverage(4, 4, 8, 8, 0)).toBe(1)
    expect(roundedRectCoverage(0, 4, 8, 8, 2)).toBe(0.5)
    expect(roundedRectCoverage(-0.5, 4, 8, 8, 2)).toBe(0)
  })
})
