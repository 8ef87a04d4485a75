// Shapes that layers are seen through, by their signed distance and its direction, and how much of a pixel they cover.

/** A shape that spans 0..width × 0..height. */
export type Shape =
  /** `cornerRadius` ≥ 0; half the shorter side or more makes a circle or a stadium. */
  | { readonly kind: 'roundedRect'; readonly width: number; readonly height: number; readonly cornerRadius: number }
  /** |x/a|ⁿ + |y/b|ⁿ ≤ 1: an ellipse with n = 2, a soft square with about 4. `exponent` ≥ 2. */
  | { readonly kind: 'superellipse'; readonly width: number; readonly height: number; readonly exponent: number }

/** Distance to the edge, negative inside, and the unit vector that leads away from the shape. */
export interface EdgeDistance {
  distance: number
  normalX: number
  normalY: number
  /** One over the radius that the edge has there; 0 where it is straight. */
  curvature: number
}

/** The edge nearest to (x, y); written into `out`. For a superellipse to first order, which is exact at its edge. */
export function edgeDistance(shape: Shape, x: number, y: number, out: EdgeDistance): void {
  const fromCentreX = x - shape.width / 2
  const fromCentreY = y - shape.height / 2
  if (shape.kind === 'roundedRect') roundedRectDistance(shape, Math.abs(fromCentreX), Math.abs(fromCentreY), out)
  else superellipseDistance(shape, Math.abs(fromCentreX), Math.abs(fromCentreY), out)
  if (fromCentreX < 0) out.normalX = -out.normalX
  if (fromCentreY < 0) out.normalY = -out.normalY
}

function roundedRectDistance({ width, height, cornerRadius }: Extract<Shape, { kind: 'roundedRect' }>, x: number, y: number, out: EdgeDistance): void {
  const radius = Math.min(cornerRadius, width / 2, height / 2)
  const dx = x - (width / 2 - radius)
  const dy = y - (height / 2 - radius)
  if (dx > 0 && dy > 0) {
    const length = Math.hypot(dx, dy)
    out.distance = length - radius
    out.normalX = dx / length
    out.normalY = dy / length
    out.curvature = 1 / length
    return
  }
  out.curvature = 0
  const isSide = dx > dy
  out.distance = (isSide ? dx : dy) - radius
  out.normalX = isSide ? 1 : 0
  out.normalY = isSide ? 0 : 1
}

function superellipseDistance({ width, height, exponent }: Extract<Shape, { kind: 'superellipse' }>, x: number, y: number, out: EdgeDistance): void {
  const a = width / 2
  const b = height / 2
  const across = (x / a) ** exponent
  const down = (y / b) ** exponent
  const sum = across + down
  if (sum < 1e-12) {
    out.distance = -Math.min(a, b)
    out.normalX = a <= b ? 1 : 0
    out.normalY = a <= b ? 0 : 1
    out.curvature = 0
    return
  }
  // g = sum^(1/n) − 1 has slope 1/a along the axes, so it is nearly linear; its gradient makes a distance of it.
  const root = sum ** (1 / exponent)
  const scale = root / sum
  const slopeX = x === 0 ? 0 : (scale * across) / x
  const slopeY = y === 0 ? 0 : (scale * down) / y
  const slope = Math.hypot(slopeX, slopeY)
  out.distance = (root - 1) / slope
  out.normalX = slopeX / slope
  out.normalY = slopeY / slope
  // Of the level line through (x, y), by the first and second derivatives of |x/a|ⁿ + |y/b|ⁿ.
  const firstX = x === 0 ? 0 : (exponent * across) / x
  const firstY = y === 0 ? 0 : (exponent * down) / y
  const secondX = x === 0 ? (exponent === 2 ? 2 / (a * a) : 0) : ((exponent - 1) * firstX) / x
  const secondY = y === 0 ? (exponent === 2 ? 2 / (b * b) : 0) : ((exponent - 1) * firstY) / y
  out.curvature = (secondX * firstY * firstY + secondY * firstX * firstX) / Math.hypot(firstX, firstY) ** 3
}

/**
 * Share of a unit square, with sides along the axes, that lies on the inner side of a straight edge: `distance` is from its
 * centre, (normalX, normalY) the unit vector away from the shape. Exact.
 */
export function halfPlaneShare({ distance, normalX, normalY }: Omit<EdgeDistance, 'curvature'>): number {
  const a = Math.abs(normalX)
  const b = Math.abs(normalY)
  const reach = (a + b) / 2
  if (distance >= reach) return 0
  if (distance <= -reach) return 1
  const straight = Math.abs(a - b) / 2
  if (Math.abs(distance) <= straight) return 0.5 - distance / Math.max(a, b)
  const corner = (reach - Math.abs(distance)) ** 2 / (2 * a * b)
  return distance < 0 ? 1 - corner : corner
}

/** A rounding of the corner up to so many pixels is no straight edge within a pixel. */
const SHARP_RADIUS = 5
/** Parts of a pixel each way where one straight edge will not do. */
const PARTS = 8

const scratch: EdgeDistance = { distance: 0, normalX: 0, normalY: 0, curvature: 0 }
/** Between an arc and its tangent lies an area of curvature · length³ / 24: within a part of a pixel, about its size. */
const ARC_SHARE = 1 / 24

/**
 * Share (0..1) of the pixel centred at (x, y), in the shape's own pixels, that the shape covers. `cos` and `sin` turn the
 * shape's axes into the pixel's.
 */
export function shapeCoverage(shape: Shape, x: number, y: number, cos = 1, sin = 0): number {
  edgeDistance(shape, x, y, scratch)
  // No edge comes as near as half a diagonal.
  if (scratch.distance > 0.75) return 0
  if (scratch.distance < -0.75) return 1
  return isStraightAt(shape, x, y) ? turnedShare(cos, sin, 1) : coverageByParts(shape, x, y, cos, sin)
}

/** Share of a part of a pixel, `size` wide, for the edge in `scratch`. */
function turnedShare(cos: number, sin: number, size: number): number {
  const { normalX, normalY } = scratch
  const distance = scratch.distance + scratch.curvature * size * size * ARC_SHARE
  return halfPlaneShare({ distance: distance / size, normalX: normalX * cos - normalY * sin, normalY: normalX * sin + normalY * cos })
}

function coverageByParts(shape: Shape, x: number, y: number, cos: number, sin: number): number {
  let sum = 0
  for (let row = 0; row < PARTS; row += 1) {
    for (let column = 0; column < PARTS; column += 1) {
      const right = (column + 0.5) / PARTS - 0.5
      const down = (row + 0.5) / PARTS - 0.5
      // From the pixel's axes back to the shape's.
      edgeDistance(shape, x + right * cos + down * sin, y - right * sin + down * cos, scratch)
      sum += turnedShare(cos, sin, 1 / PARTS)
    }
  }
  return sum / (PARTS * PARTS)
}

/** Whether the edge is as good as straight within the pixel at (x, y). */
function isStraightAt(shape: Shape, x: number, y: number): boolean {
  const { width, height } = shape
  if (Math.min(width, height) < 2) return false
  const fromCornerX = width / 2 - Math.abs(x - width / 2)
  const fromCornerY = height / 2 - Math.abs(y - height / 2)
  if (shape.kind === 'roundedRect') {
    const radius = Math.min(shape.cornerRadius, width / 2, height / 2)
    return radius > SHARP_RADIUS || Math.max(fromCornerX, fromCornerY) > radius + 1
  }
  return Math.min(width, height) > 4 * SHARP_RADIUS
}
