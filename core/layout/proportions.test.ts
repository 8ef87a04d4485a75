import { describe, expect, it } from 'vitest'
import type { Placement } from '../show/show.ts'
import { inProportion, proportionNames, proportionOf, proportions } from './proportions.ts'

const box: Placement = { x: 100, y: 50, width: 400, height: 300, angleDeg: 12, fit: 'fit' }

describe('proportions', () => {
  it.each(proportionNames)('%s: about the same middle, as large, and itself when asked', (name) => {
    const next = inProportion(box, name)
    expect(proportionOf(next)).toBe(name)
    expect([next.x + next.width / 2, next.y + next.height / 2]).toEqual([300, 200])
    expect(Math.abs((next.width * next.height) / (400 * 300) - 1)).toBeLessThan(0.01)
    expect(next).toMatchObject({ angleDeg: 12, fit: 'fill' })
    // Once more changes nothing but by rounding.
    expect(Math.abs(inProportion(next, name).width - next.width)).toBeLessThanOrEqual(1)
  })

  it('leave a picture that is pulled to shape pulled, and a box of one pixel a box', () => {
    expect(inProportion({ ...box, fit: 'stretch' }, 'wide').fit).toBe('stretch')
    expect(inProportion({ ...box, width: 1, height: 1 }, 'tall')).toMatchObject({ width: 1, height: 2 })
    expect(inProportion({ ...box, width: 0.01, height: 1 }, 'tall')).toMatchObject({ width: 1, height: 1 })
    expect(proportionOf({ width: 500, height: 130 })).toBeNull()
    expect(proportionOf({ width: 1920, height: 1080 })).toBe('wide')
    expect(proportions.classic * 3).toBeCloseTo(4, 12)
  })
})
