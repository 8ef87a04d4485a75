import { rotation, followedBy, translation, mapPoint, type Affine } from '../composite/affine.ts'
import type { PixelRect } from '../picture/picture.ts'
import type { Placement } from '../show/show.ts'

/** The map from box coordinates (0..width × 0..height) to the canvas: moved, then turned about the centre. */
export function boxToCanvas(placement: Placement): Affine {
  const centreX = placement.width / 2
  const centreY = placement.height / 2
  return followedBy(followedBy(translation(-centreX, -centreY), rotation(placement.angleDeg)), translation(placement.x + centreX, placement.y + centreY))
}

/** Whole-pixel bounds of a mapped rectangle, clipped to the canvas. */
export function mappedBounds(map: Affine, width: number, height: number, canvasWidth: number, canvasHeight: number): PixelRect {
  const corners = [mapPoint(map, 0, 0), mapPoint(map, width, 0), mapPoint(map, 0, height), mapPoint(map, width, height)]
  const xs = corners.map(([x]) => x)
  const ys = corners.map(([, y]) => y)
  // Half a pixel of soft edge reaches past the shape unless the edge lies on a whole pixel.
  const reach = (value: number) => (Math.abs(value - Math.round(value)) < 1e-3 ? 0 : 0.5)
  const low = (value: number) => Math.floor(value - reach(value) + 1e-3)
  const high = (value: number) => Math.ceil(value + reach(value) - 1e-3)
  const clamp = (value: number, most: number) => Math.min(most, Math.max(0, value))
  return {
    left: clamp(low(Math.min(...xs)), canvasWidth),
    top: clamp(low(Math.min(...ys)), canvasHeight),
    right: clamp(high(Math.max(...xs)), canvasWidth),
    bottom: clamp(high(Math.max(...ys)), canvasHeight),
  }
}
