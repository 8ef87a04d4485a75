import { describe, expect, it } from 'vitest'
import { defaultParams } from '../step.ts'
import { framingOf } from './reference.ts'
import { framingParams } from './params.ts'

describe('framing', () => {
  const map = (params: object) => framingOf({ ...defaultParams(framingParams), ...params }, 1280, 720)!
  /** The angle, clockwise on screen (y down), at which a mark right of the middle of the incoming picture is shown. */
  const shownAngle = (params: object) => {
    const { a, b, c, d, e, f } = map(params)
    const determinant = a * d - b * c
    const [dx, dy] = [640 + 100 - e, 360 - f]
    const x = (d * dx - c * dy) / determinant - 640
    const y = (a * dy - b * dx) / determinant - 360
    return (Math.atan2(y, x) * 180) / Math.PI
  }

  it('turns clockwise as it is seen, mirrored or not', () => {
    expect(shownAngle({ angle: 10 })).toBeCloseTo(10, 6)
    // Mirrored, the mark is at the left, 180°; clockwise from there.
    expect(shownAngle({ angle: 10, mirror: 'on' })).toBeCloseTo(-170, 6)
    expect(shownAngle({ angle: -15, mirror: 'on' })).toBeCloseTo(165, 6)
  })
})
