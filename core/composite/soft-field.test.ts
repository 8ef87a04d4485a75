import { describe, expect, it } from 'vitest'
import type { Shape } from './shape.ts'
import { shadowCoverage } from './shadow.ts'
import { softRowOf } from './soft-field.ts'

const shapes: readonly Shape[] = [
  { kind: 'roundedRect', width: 120, height: 80, cornerRadius: 0 },
  { kind: 'roundedRect', width: 97.3, height: 41.6, cornerRadius: 20.8 },
  { kind: 'roundedRect', width: 3, height: 60, cornerRadius: 1.5 },
  { kind: 'superellipse', width: 90, height: 50, exponent: 2 },
  { kind: 'superellipse', width: 64, height: 64, exponent: 4 },
]

// The exact value is the shape seen through a gaussian (core/composite/shadow.ts, checked against a true gaussian over the exact coverage in shadow.test.ts).
describe('a softened shape by rows', () => {
  it.each(shapes.flatMap((shape) => [1, 3.9, 4, 6.5, 12, 30].map((sigma) => ({ shape, sigma }))))(
    'is the exact one within a tenth of a code: %o',
    ({ shape, sigma }) => {
      const row = softRowOf(shape, sigma)
      let worst = 0
      for (let y = -4 * sigma; y < shape.height + 4 * sigma; y += 1.7) {
        row.moveTo(y)
        for (let x = -4 * sigma; x < shape.width + 4 * sigma; x += 1.3) worst = Math.max(worst, Math.abs(row.at(x) - shadowCoverage(shape, x, y, sigma)))
      }
      expect(worst).toBeLessThan(0.1 / 255)
    },
  )

  it('is nothing far away, and goes back to a row that it had before', () => {
    const shape = shapes[0]!
    const row = softRowOf(shape, 8)
    row.moveTo(30)
    const before = row.at(4)
    expect([row.at(-1000), row.at(5000)]).toEqual([0, 0])
    row.moveTo(70)
    row.moveTo(30)
    expect(row.at(4)).toBe(before)
    // The same column of another row is not what it was.
    row.moveTo(31)
    const fresh = softRowOf(shape, 8)
    fresh.moveTo(31)
    expect(row.at(4)).toBe(fresh.at(4))
    row.moveTo(-500)
    expect(row.at(60)).toBe(0)
  })
})
