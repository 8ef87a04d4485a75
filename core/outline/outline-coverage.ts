// How much of each pixel an outline covers: inside by exact areas, along its stroke by the distance to it.
import { halfPlaneShare } from '../composite/shape.ts'
import type { Contour } from './read-outline.ts'

/**
 * Share (0..1) of each pixel that lies inside contours, row by row: the exact area, signed by the way round, its amount and no more
 * than 1. Ways round in one direction add up (non-zero rule), the other direction leaves a hole. Open contours are closed.
 */
export function insideShares(contours: readonly Contour[], widthPx: number, heightPx: number): Float64Array {
  // Of each pixel the change of cover from the pixel before: a running sum along the row gives the share.
  const changes = new Float64Array((widthPx + 2) * heightPx)
  for (const { points } of contours) {
    const count = points.length / 2
    for (let i = 0; i < count; i += 1) {
      const next = ((i + 1) % count) * 2
      addEdge(changes, widthPx, heightPx, points[i * 2]!, points[i * 2 + 1]!, points[next]!, points[next + 1]!)
    }
  }
  const shares = new Float64Array(widthPx * heightPx)
  for (let y = 0; y < heightPx; y += 1) {
    let sum = 0
    for (let x = 0; x < widthPx; x += 1) {
      sum += changes[y * (widthPx + 2) + x]!
      shares[y * widthPx + x] = Math.min(1, Math.abs(sum))
    }
  }
  return shares
}

/** Adds what lies to the right of an edge, row by row. */
function addEdge(changes: Float64Array, widthPx: number, heightPx: number, x0: number, y0: number, x1: number, y1: number): void {
  if (y0 === y1) return
  const sign = y0 < y1 ? 1 : -1
  const [topX, topY, bottomX, bottomY] = y0 < y1 ? [x0, y0, x1, y1] : [x1, y1, x0, y0]
  const slope = (bottomX - topX) / (bottomY - topY)
  const last = Math.min(heightPx - 1, Math.ceil(bottomY) - 1)
  for (let row = Math.max(0, Math.floor(topY)); row <= last; row += 1) {
    const from = Math.max(topY, row)
    const to = Math.min(bottomY, row + 1)
    if (to <= from) continue
    addPiece(changes, row * (widthPx + 2), widthPx, topX + (from - topY) * slope, topX + (to - topY) * slope, sign * (to - from))
  }
}

/** Of one row: an edge from `x0` to `x1` that is `height` high (signed) covers all to its right. */
function addPiece(changes: Float64Array, row: number, widthPx: number, x0: number, x1: number, height: number): void {
  const left = Math.min(x0, x1)
  const right = Math.max(x0, x1)
  const clamped = (x: number) => Math.min(widthPx, Math.max(0, x))
  // What lies beyond the sides is a straight edge at the side.
  const [from, to] = [clamped(left), clamped(right)]
  const width = right - left
  if (width === 0 || to === from) return addColumn(changes, row, from, height)
  const beyondLeft = ((Math.min(right, 0) - Math.min(left, 0)) / width) * height
  const beyondRight = ((Math.max(right, widthPx) - Math.max(left, widthPx)) / width) * height
  if (beyondLeft !== 0) addColumn(changes, row, 0, beyondLeft)
  if (beyondRight !== 0) addColumn(changes, row, widthPx, beyondRight)
  for (let column = Math.floor(from); column < to; column += 1) {
    const [a, b] = [Math.max(from, column), Math.min(to, column + 1)]
    if (b > a) addColumn(changes, row, (a + b) / 2, (height * (b - a)) / width, column)
  }
}

/** An edge within one column, on the mean at `x`: that pixel is covered as far as it lies to the right, those after it whole. */
function addColumn(changes: Float64Array, row: number, x: number, height: number, column = Math.floor(x)): void {
  const covered = height * (1 - (x - column))
  changes[row + column] = changes[row + column]! + covered
  changes[row + column + 1] = changes[row + column + 1]! + height - covered
}

/** From where to where a piece runs between two heights; all of it where it has none between them. */
function spanNear(x0: number, y0: number, x1: number, y1: number, top: number, bottom: number): readonly [from: number, to: number] {
  if (y0 === y1) return [Math.min(x0, x1), Math.max(x0, x1)]
  const at = (y: number) => x0 + ((x1 - x0) * (Math.min(Math.max(y0, y1), Math.max(Math.min(y0, y1), y)) - y0)) / (y1 - y0)
  const [first, last] = [at(top), at(bottom)]
  return [Math.min(first, last), Math.max(first, last)]
}

/**
 * Share (0..1) of each pixel that lies within `halfPx` of contours: a stroke with round joins and ends, by the straight edge that is as
 * far away as the nearest piece.
 */
export function strokeShares(contours: readonly Contour[], widthPx: number, heightPx: number, halfPx: number): Float64Array {
  const distances = new Float64Array(widthPx * heightPx).fill(Infinity)
  const alongX = new Float32Array(widthPx * heightPx)
  const alongY = new Float32Array(widthPx * heightPx)
  const shares = new Float64Array(widthPx * heightPx)
  const reach = halfPx + 1
  const note = (x0: number, y0: number, x1: number, y1: number) => {
    const [dx, dy] = [x1 - x0, y1 - y0]
    const length = dx * dx + dy * dy
    const bottom = Math.min(heightPx, Math.ceil(Math.max(y0, y1) + reach))
    for (let y = Math.max(0, Math.floor(Math.min(y0, y1) - reach)); y < bottom; y += 1) {
      // Of a long piece only what is near this row.
      const [from, to] = spanNear(x0, y0, x1, y1, y - reach, y + 1 + reach)
      const right = Math.min(widthPx, Math.ceil(to + reach))
      for (let x = Math.max(0, Math.floor(from - reach)); x < right; x += 1) {
        const [fromX, fromY] = [x + 0.5 - x0, y + 0.5 - y0]
        const t = length === 0 ? 0 : Math.min(1, Math.max(0, (fromX * dx + fromY * dy) / length))
        const [awayX, awayY] = [fromX - t * dx, fromY - t * dy]
        const distance = Math.sqrt(awayX * awayX + awayY * awayY)
        const at = y * widthPx + x
        if (distance >= distances[at]!) continue
        distances[at] = distance
        // On the piece itself away is across it.
        const across = Math.sqrt(length) || 1
        alongX[at] = distance > 1e-9 ? awayX / distance : -dy / across
        alongY[at] = distance > 1e-9 ? awayY / distance : dx / across
      }
    }
  }
  for (const { points, isClosed } of contours) {
    const count = points.length / 2
    for (let i = 0; i < (isClosed ? count : count - 1); i += 1) {
      const next = ((i + 1) % count) * 2
      note(points[i * 2]!, points[i * 2 + 1]!, points[next]!, points[next + 1]!)
    }
  }
  const edge = { distance: 0, normalX: 0, normalY: 0 }
  for (let at = 0; at < shares.length; at += 1) {
    const distance = distances[at]!
    if (distance > reach) continue
    edge.normalX = alongX[at]!
    edge.normalY = alongY[at]!
    edge.distance = distance - halfPx
    const near = halfPlaneShare(edge)
    // Of a thin stroke the far side is in the same pixel.
    edge.distance = distance + halfPx
    shares[at] = near - halfPlaneShare(edge)
  }
  return shares
}
