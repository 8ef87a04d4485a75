import { rotation, followedBy, translation, type Affine } from '../composite/affine.ts'
import type { PixelRect } from '../picture/picture.ts'
import type { FitMode } from './fit.ts'

/** A box on the canvas, in canvas pixels, turned about its centre (clockwise). */
export interface Placement {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
  readonly angleDeg: number
  readonly fit: FitMode
}

/** The map from box coordinates (0..width × 0..height) to the canvas: moved, then turned about the centre. */
export function boxToCanvas(placement: Placement): Affine {
  if (placement.angleDeg === 0) return translation(placement.x, placement.y)
  const centreX = placement.width / 2
  const centreY = placement.height / 2
  return followedBy(followedBy(translation(-centreX, -centreY), rotation(placement.angleDeg)), translation(placement.x + centreX, placement.y + centreY))
}

/** Where a box lies and how large it is, upright. */
export type UprightBox = Pick<Placement, 'x' | 'y' | 'width' | 'height'>

/** The smallest upright box round some, turned as they are; null without any. */
export function boxRound(placements: readonly Placement[]): UprightBox | null {
  if (placements.length === 0) return null
  const spans = placements.map(({ x, y, width, height, angleDeg }) => {
    const angle = (angleDeg * Math.PI) / 180
    const halfWidth = (Math.abs(width * Math.cos(angle)) + Math.abs(height * Math.sin(angle))) / 2
    const halfHeight = (Math.abs(width * Math.sin(angle)) + Math.abs(height * Math.cos(angle))) / 2
    const [centreX, centreY] = [x + width / 2, y + height / 2]
    return { left: centreX - halfWidth, top: centreY - halfHeight, right: centreX + halfWidth, bottom: centreY + halfHeight }
  })
  const left = Math.min(...spans.map((span) => span.left))
  const top = Math.min(...spans.map((span) => span.top))
  return { x: left, y: top, width: Math.max(...spans.map(({ right }) => right)) - left, height: Math.max(...spans.map(({ bottom }) => bottom)) - top }
}

/** Whole-pixel bounds of a mapped rectangle, clipped to the canvas. */
export function mappedBounds(map: Affine, width: number, height: number, canvasWidth: number, canvasHeight: number): PixelRect {
  // Along each axis the map sends the rectangle to the sum of two spans.
  const acrossX = map.a * width
  const acrossY = map.b * width
  const downX = map.c * height
  const downY = map.d * height
  const left = map.e + Math.min(acrossX, 0) + Math.min(downX, 0)
  const top = map.f + Math.min(acrossY, 0) + Math.min(downY, 0)
  const right = map.e + Math.max(acrossX, 0) + Math.max(downX, 0)
  const bottom = map.f + Math.max(acrossY, 0) + Math.max(downY, 0)
  return {
    left: clamp(low(left), canvasWidth),
    top: clamp(low(top), canvasHeight),
    right: clamp(high(right), canvasWidth),
    bottom: clamp(high(bottom), canvasHeight),
  }
}

/** Half a pixel of soft edge reaches past the shape unless the edge lies on a whole pixel. */
function reach(value: number): number {
  return Math.abs(value - Math.round(value)) < 1e-3 ? 0 : 0.5
}

function low(value: number): number {
  return Math.floor(value - reach(value) + 1e-3)
}

function high(value: number): number {
  return Math.ceil(value + reach(value) - 1e-3)
}

function clamp(value: number, most: number): number {
  return Math.min(most, Math.max(0, value))
}
