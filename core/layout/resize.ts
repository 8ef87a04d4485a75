// A box whose edge or corner is dragged, or that is turned: what is opposite stays where it is.
import { mapPoint, rotation } from '../composite/affine.ts'
import type { Placement } from '../show/show.ts'

/** Which edges are dragged: -1 the first of an axis, 1 the last, 0 none. */
export interface Towards {
  readonly x: -1 | 0 | 1
  readonly y: -1 | 0 | 1
}

/** A turn comes to rest on multiples of this, when it is so near. */
const TURN_STEP_DEG = 15
const TURN_REACH_DEG = 3

/**
 * A placement after edges were dragged by (dx, dy) on the canvas, however it is turned. `keepsRatio`: its proportions stay, and the larger
 * of the two ways counts. No side becomes shorter than `leastPx`.
 */
export function resized(placement: Placement, towards: Towards, dx: number, dy: number, keepsRatio: boolean, leastPx: number): Placement {
  const { x, y, width, height, angleDeg } = placement
  const [alongX, alongY] = mapPoint(rotation(-angleDeg), dx, dy)
  let nextWidth = Math.max(leastPx, width + alongX * towards.x)
  let nextHeight = Math.max(leastPx, height + alongY * towards.y)
  if (keepsRatio) {
    const byX = nextWidth / width
    const byY = nextHeight / height
    const isByX = Math.abs(byX - 1) >= Math.abs(byY - 1)
    const times = Math.max(isByX ? byX : byY, leastPx / width, leastPx / height)
    nextWidth = width * times
    nextHeight = height * times
  }
  const [shiftX, shiftY] = mapPoint(rotation(angleDeg), (towards.x * (nextWidth - width)) / 2, (towards.y * (nextHeight - height)) / 2)
  return {
    ...placement,
    x: x + width / 2 + shiftX - nextWidth / 2,
    y: y + height / 2 + shiftY - nextHeight / 2,
    width: nextWidth,
    height: nextHeight,
  }
}

/** The angle at which the top of a box points to (x, y): whole degrees from -180 to 180; on a step when it is near one, unless it is `isFree`. */
export function turnedTo({ x, y, width, height }: Placement, toX: number, toY: number, isFree: boolean): number {
  const degrees = Math.round((Math.atan2(toX - x - width / 2, y + height / 2 - toY) * 180) / Math.PI)
  const step = Math.round(degrees / TURN_STEP_DEG) * TURN_STEP_DEG
  // No minus before nothing.
  return (!isFree && Math.abs(step - degrees) <= TURN_REACH_DEG ? step : degrees) + 0
}
