// A stroke as contours of its own, which all run the same way round: what they cover together is the stroke.
import type { Contour } from './read-outline.ts'

/** Longest mitre, as a multiple of the stroke's width; a sharper corner is cut off (stroke-miterlimit, SVG 2 §13.5.6). */
export const MITRE_LIMIT = 4

/** The stroke of contours, `halfPx` to each side: a box for each piece, a corner for each join. Open ends are cut straight (butt). */
export function strokedContours(contours: readonly Contour[], halfPx: number): Contour[] {
  return contours.flatMap((contour) => {
    const points = distinctPoints(contour)
    const count = points.length
    if (count < 2) return []
    const pieces = Array.from({ length: contour.isClosed ? count : count - 1 }, (_, i) => pieceOf(points[i]!, points[(i + 1) % count]!, halfPx))
    const boxes = pieces.map(({ from, to, normal: [x, y] }) =>
      contourOf([from[0] + x, from[1] + y, to[0] + x, to[1] + y, to[0] - x, to[1] - y, from[0] - x, from[1] - y]),
    )
    const joins = pieces.flatMap((piece, i) => {
      const next = i + 1 < pieces.length ? pieces[i + 1]! : contour.isClosed ? pieces[0]! : null
      return next === null ? [] : joinOf(piece, next, halfPx)
    })
    return [...boxes, ...joins]
  })
}

type Point = readonly [x: number, y: number]

interface Piece {
  readonly from: Point
  readonly to: Point
  /** Across it, as long as half the stroke is wide. */
  readonly normal: Point
}

function pieceOf(from: Point, to: Point, halfPx: number): Piece {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]]
  const length = Math.hypot(dx, dy)
  return { from, to, normal: [(-dy / length) * halfPx, (dx / length) * halfPx] }
}

/** The corner between two pieces on its outer side: to the tip of the mitre, or cut off. */
function joinOf(piece: Piece, next: Piece, halfPx: number): Contour[] {
  const [ax, ay] = piece.normal
  const [bx, by] = next.normal
  const turn = ax * by - ay * bx
  const along = ax * bx + ay * by
  if (Math.abs(turn) < 1e-9 * halfPx * halfPx && along > 0) return []
  // The outer side lies away from the turn.
  const side = turn > 0 ? -1 : 1
  const [x, y] = piece.to
  const first: Point = [x + side * ax, y + side * ay]
  const last: Point = [x + side * bx, y + side * by]
  // The tip lies on the half between both normals, as far out as the half width by the cosine of half the angle between them.
  const cosine = Math.sqrt(Math.max(0, (1 + along / (halfPx * halfPx)) / 2))
  if (cosine * MITRE_LIMIT < 1) return [contourOf([x, y, ...first, ...last])]
  const reach = side / (2 * cosine * cosine)
  return [contourOf([x, y, ...first, x + (ax + bx) * reach, y + (ay + by) * reach, ...last])]
}

/** The corners of a contour without those that lie on the one before. */
function distinctPoints({ points, isClosed }: Contour): Point[] {
  const distinct: Point[] = []
  for (let i = 0; i < points.length; i += 2) {
    const last = distinct.at(-1)
    if (last === undefined || last[0] !== points[i] || last[1] !== points[i + 1]) distinct.push([points[i]!, points[i + 1]!])
  }
  const [first, last] = [distinct[0], distinct.at(-1)]
  if (isClosed && distinct.length > 1 && first![0] === last![0] && first![1] === last![1]) distinct.pop()
  return distinct
}

/** A contour that runs to the right, whichever way its points are given. */
function contourOf(points: readonly number[]): Contour {
  let area = 0
  for (let i = 0; i < points.length; i += 2) {
    const next = (i + 2) % points.length
    area += points[i]! * points[next + 1]! - points[next]! * points[i + 1]!
  }
  if (area >= 0) return { points: Float64Array.from(points), isClosed: true }
  const backwards: number[] = []
  for (let i = points.length - 2; i >= 0; i -= 2) backwards.push(points[i]!, points[i + 1]!)
  return { points: Float64Array.from(backwards), isClosed: true }
}
