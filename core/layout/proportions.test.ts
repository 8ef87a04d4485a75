import { describe, expect, it } from 'vitest'
import type { Placement } from '../show/show.ts'
import { inProportion, proportionNames, proportionOf, proportions } from './proportions.ts'

const canvas = { widthPx: 1280, heightPx: 720 }
const box: Placement = { x: 400, y: 200, width: 400, height: 300, angleDeg: 12, fit: 'fit' }

describe('proportions', () => {
  it.each(proportionNames)('%s: about the same middle, as large, and itself when asked', (name) => {
    const next = inProportion(box, name, canvas)
    expect(proportionOf(next)).toBe(name)
    expect([next.x + next.width / 2, next.y + next.height / 2]).toEqual([600, 350])
    expect(Math.abs((next.width * next.height) / (400 * 300) - 1)).toBeLessThan(0.01)
    expect(next).toMatchObject({ angleDeg: 12, fit: 'fill' })
    // Once more changes nothing but by rounding.
    expect(Math.abs(inProportion(next, name, canvas).width - next.width)).toBeLessThanOrEqual(1)
  })

  it.each(proportionNames)('%s: a box inside the canvas stays inside it, at an edge, turned or as large as it', (name) => {
    for (const [x, y, width, height, angleDeg] of [
      [0, 0, 1280, 720, 0],
      [880, 0, 400, 300, 0],
      [0, 620, 1280, 100, 0],
      [1180, 20, 90, 600, 0],
      [300, 200, 500, 300, 30],
    ] as const) {
      const next = inProportion({ ...box, x, y, width, height, angleDeg }, name, canvas)
      const angle = (angleDeg * Math.PI) / 180
      for (const [right, down] of [
        [-1, -1],
        [1, -1],
        [1, 1],
        [-1, 1],
      ] as const) {
        const [acrossPx, downPx] = [(right * next.width) / 2, (down * next.height) / 2]
        const cornerX = next.x + next.width / 2 + acrossPx * Math.cos(angle) - downPx * Math.sin(angle)
        const cornerY = next.y + next.height / 2 + acrossPx * Math.sin(angle) + downPx * Math.cos(angle)
        expect(cornerX).toBeGreaterThan(-1)
        expect(cornerX).toBeLessThan(1281)
        expect(cornerY).toBeGreaterThan(-1)
        expect(cornerY).toBeLessThan(721)
      }
      expect(proportionOf(next)).toBe(name)
    }
    // One that reaches over the edge already was meant to.
    expect(inProportion({ ...box, x: -200 }, name, canvas).x).toBeLessThan(0)
  })

  it('leave a picture that is pulled to shape pulled, and a box of one pixel a box', () => {
    expect(inProportion({ ...box, fit: 'stretch' }, 'wide', canvas).fit).toBe('stretch')
    expect(inProportion({ ...box, width: 1, height: 1 }, 'tall', canvas)).toMatchObject({ width: 1, height: 2 })
    expect(inProportion({ ...box, width: 0.01, height: 1 }, 'tall', canvas)).toMatchObject({ width: 1, height: 1 })
    expect(proportionOf({ width: 500, height: 130 })).toBeNull()
    expect(proportionOf({ width: 1920, height: 1080 })).toBe('wide')
    expect(proportions.classic * 3).toBeCloseTo(4, 12)
  })
})
