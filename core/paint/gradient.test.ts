import { describe, expect, it } from 'vitest'
import { gradientAt, type Gradient, type GradientStop } from './gradient.ts'

const RED: GradientStop = { at: 0, colour: [1, 0, 0], opacity: 1 }
const BLUE: GradientStop = { at: 1, colour: [0, 0, 1], opacity: 1 }
const at = (gradient: Gradient, x: number, y: number) => {
  const out = new Float64Array(4)
  gradientAt(gradient, x, y, out)
  return [...out]
}
const line = (stops: readonly GradientStop[]): Gradient => ({ kind: 'linear', fromX: 10, fromY: 0, toX: 20, toY: 0, stops })

describe('gradients', () => {
  it('run evenly from one colour to the next, and stay at the ends', () => {
    expect(at(line([RED, BLUE]), 15, 99)).toEqual([0.5, 0, 0.5, 1])
    expect(at(line([RED, BLUE]), -5, 0)).toEqual([1, 0, 0, 1])
    expect(at(line([RED, BLUE]), 50, 0)).toEqual([0, 0, 1, 1])
  })

  it('run across any direction: what counts is how far along', () => {
    const slanted: Gradient = { kind: 'linear', fromX: 0, fromY: 0, toX: 30, toY: 40, stops: [RED, BLUE] }
    // (40, −30) lies at a right angle to the line's direction.
    expect(at(slanted, 15 + 40, 20 - 30)).toEqual([0.5, 0, 0.5, 1])
  })

  it('run outwards from a point', () => {
    const ring: Gradient = { kind: 'radial', centreX: 5, centreY: 5, radius: 10, stops: [RED, BLUE] }
    expect(at(ring, 5, 5)).toEqual([1, 0, 0, 1])
    expect(at(ring, 8, 9)).toEqual([0.5, 0, 0.5, 1])
    expect(at(ring, 100, 5)).toEqual([0, 0, 1, 1])
  })

  // CSS Images Level 4 §3.4.2: interpolated premultiplied; half way from red to clear is half a red, not a half-grey one.
  it('mix premultiplied: a clear stop has no colour', () => {
    expect(at(line([RED, { at: 1, colour: [0, 1, 0], opacity: 0 }]), 15, 0)).toEqual([0.5, 0, 0, 0.5])
  })

  it('have hard edges where two stops share a place, and several stops', () => {
    const stops = [RED, { ...RED, at: 0.5 }, { ...BLUE, at: 0.5 }, BLUE]
    expect(at(line(stops), 14.99, 0)).toEqual([1, 0, 0, 1])
    expect(at(line(stops), 15.01, 0)).toEqual([0, 0, 1, 1])
  })

  it('show the last colour when they have no length, and the only one there is', () => {
    expect(at({ kind: 'linear', fromX: 3, fromY: 3, toX: 3, toY: 3, stops: [RED, BLUE] }, 3, 3)).toEqual([0, 0, 1, 1])
    expect(at({ kind: 'radial', centreX: 0, centreY: 0, radius: 0, stops: [RED, BLUE] }, 0, 0)).toEqual([0, 0, 1, 1])
    expect(at(line([{ ...BLUE, at: 0.5 }]), 0, 0)).toEqual([0, 0, 1, 1])
  })
})
