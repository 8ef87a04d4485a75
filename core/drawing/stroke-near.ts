// Which strokes an eraser touches.
import type { Contour } from '../outline/read-outline.ts'
import { strokeContours } from './stroke-contours.ts'
import type { Stroke } from './stroke.ts'

/** Height that distances are measured in: shares of a thousandth. */
const HEIGHT = 1000

/** Whether a stroke comes as near to (u, v), shares of its surface, as `reach`, a share of its height. `aspect`: width of the surface by its height. */
export function isStrokeNear(stroke: Stroke, u: number, v: number, reach: number, aspect: number): boolean {
  const [x, y] = [u * aspect * HEIGHT, v * HEIGHT]
  const contours = strokeContours(stroke, aspect * HEIGHT, HEIGHT)
  return windingAt(contours, x, y) !== 0 || contours.some((contour) => distanceTo(contour, x, y) <= reach * HEIGHT)
}

function* edgesOf({ points }: Contour): Generator<readonly [x0: number, y0: number, x1: number, y1: number]> {
  for (let i = 0; i < points.length; i += 2) {
    const next = (i + 2) % points.length
    yield [points[i]!, points[i + 1]!, points[next]!, points[next + 1]!]
  }
}

function windingAt(contours: readonly Contour[], x: number, y: number): number {
  let winding = 0
  for (const contour of contours) {
    for (const [x0, y0, x1, y1] of edgesOf(contour)) {
      if (y0 <= y === y1 <= y) continue
      if (x0 + ((y - y0) / (y1 - y0)) * (x1 - x0) > x) winding += y0 <= y ? 1 : -1
    }
  }
  return winding
}

function distanceTo(contour: Contour, x: number, y: number): number {
  let least = Infinity
  for (const [x0, y0, x1, y1] of edgesOf(contour)) {
    const length = (x1 - x0) ** 2 + (y1 - y0) ** 2
    const along = length === 0 ? 0 : Math.min(1, Math.max(0, ((x - x0) * (x1 - x0) + (y - y0) * (y1 - y0)) / length))
    least = Math.min(least, Math.hypot(x - x0 - along * (x1 - x0), y - y0 - along * (y1 - y0)))
  }
  return least
}
