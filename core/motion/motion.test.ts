import { describe, expect, it } from 'vitest'
import { appearanceKinds, AT_REST, entranceAt, exitAt, lastsMs, sides, type Appearance, type AppearanceKind } from './appearance.ts'
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

describe('how a layer comes and goes', () => {
  const swinging: Easing = { kind: 'cubicBezier', x1: 0.3, y1: -1.2, x2: 0.7, y2: 2.4 }
  const of = (kind: AppearanceKind, more: Partial<Appearance> = {}): Appearance => ({
    kind,
    durationMs: 400,
    delayMs: 100,
    easing: namedEasings.easeInOut,
    side: 'left',
    ...more,
  })
  const moving = appearanceKinds

  it('is at once there, or gone, with none', () => {
    expect(lastsMs(null)).toBe(0)
    expect(entranceAt(null, 0)).toEqual(AT_REST)
    expect(exitAt(null, 0).opacity).toBe(0)
  })

  it.each(moving)('%s: not there before its time, at rest after it, and the other way round', (kind) => {
    expect(entranceAt(of(kind), 99).opacity).toBe(0)
    expect(entranceAt(of(kind), 500)).toEqual(AT_REST)
    expect(exitAt(of(kind), 99)).toEqual(AT_REST)
    expect(exitAt(of(kind), 500).opacity).toBe(0)
  })

  it.each(moving)('%s goes as it comes, backwards', (kind) => {
    for (let ms = 101; ms < 500; ms += 57) {
      const coming = Object.values(entranceAt(of(kind), 600 - ms))
      Object.values(exitAt(of(kind), ms)).forEach((value, i) => expect(value).toBeCloseTo(coming[i]!, 9))
    }
  })

  it.each(moving)('%s moves without a jump, from nothing to all', (kind) => {
    const numbers = (ms: number) => Object.values(entranceAt(of(kind), ms))
    for (let ms = 100; ms < 500; ms += 1) {
      const [now, next] = [numbers(ms), numbers(ms + 1)]
      // easeInOut is never steeper than about 1.8 (its slope at ½), and lasts 400 ms.
      now.forEach((value, i) => expect(Math.abs(value - next[i]!)).toBeLessThanOrEqual(2 / 400))
    }
    expect(numbers(100)).not.toEqual(Object.values(AT_REST))
  })

  it.each(moving)('%s keeps its shares within 0 … 1 whatever the easing', (kind) => {
    for (let ms = 0; ms < 600; ms += 13) {
      const { opacity, revealed, typed, scale } = entranceAt(of(kind, { easing: swinging }), ms)
      for (const share of [opacity, revealed, typed]) expect(share >= 0 && share <= 1).toBe(true)
      expect(scale).toBeGreaterThanOrEqual(0)
    }
  })

  it('slides in from its side, whole widths and heights away', () => {
    const begin = (side: Appearance['side']) => entranceAt(of('slide', { side }), 100)
    expect(sides.map((side) => [begin(side).shiftX, begin(side).shiftY])).toEqual([
      [-1, 0],
      [1, 0],
      [0, -1],
      [0, 1],
    ])
  })
})
