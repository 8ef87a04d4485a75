import { describe, expect, it } from 'vitest'
import { ease, easingCss, namedEasings, type Easing } from './easing.ts'

const all: Easing[] = [
  ...Object.values(namedEasings),
  { kind: 'cubicBezier', x1: 0, y1: 1, x2: 1, y2: 0 },
  { kind: 'cubicBezier', x1: 1, y1: 0, x2: 0, y2: 1 },
  { kind: 'cubicBezier', x1: 0.3, y1: -1.2, x2: 0.7, y2: 2.4 },
]

describe('easing', () => {
  it.each(all.map((easing) => [easingCss(easing), easing] as const))('%s begins at 0 and ends at 1', (_, easing) => {
    expect(ease(easing, 0)).toBeCloseTo(0, 12)
    expect(ease(easing, 1)).toBeCloseTo(1, 12)
  })

  it('is half way at half time where the curve is its own mirror image', () => {
    const mirrored: Easing = { kind: 'cubicBezier', x1: 0.3, y1: -0.4, x2: 0.7, y2: 1.4 }
    for (const easing of [namedEasings.linear, namedEasings.easeInOut, mirrored]) expect(ease(easing, 0.5)).toBeCloseTo(0.5, 12)
  })

  it('lies on the curve that its points define', () => {
    const { x1, y1, x2, y2 } = namedEasings.ease
    for (let t = 0; t <= 1; t += 0.05) {
      const at = (first: number, second: number) => 3 * (1 - t) ** 2 * t * first + 3 * (1 - t) * t ** 2 * second + t ** 3
      expect(ease(namedEasings.ease, at(x1, x2))).toBeCloseTo(at(y1, y2), 9)
    }
  })

  // CSS Easing Functions Level 1 §2.3 (from memory): the staircase for four steps.
  it.each([
    ['end', 0, 0],
    ['end', 0.24, 0],
    ['end', 0.25, 0.25],
    ['end', 0.99, 0.75],
    ['end', 1, 1],
    ['start', 0, 0.25],
    ['start', 0.5, 0.75],
    ['start', 0.99, 1],
    ['start', 1, 1],
    ['none', 0, 0],
    ['none', 0.25, 1 / 3],
    ['none', 0.75, 1],
    ['none', 1, 1],
    ['both', 0, 0.2],
    ['both', 0.25, 0.4],
    ['both', 0.99, 0.8],
    ['both', 1, 1],
  ] as const)('steps(4, jump-%s) is at %d of the time at %d', (position, progress, expected) => {
    expect(ease({ kind: 'steps', count: 4, position }, progress)).toBeCloseTo(expected, 12)
  })
})
