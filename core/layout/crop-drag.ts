// Cropping by an edge: what is uncovered goes, the rest of the picture stays where it is. And what a layer shows at its own size.
import { mapPoint, rotation } from '../composite/affine.ts'
import type { Crop, Placement } from '../show/show.ts'
import { fitRects, type Rect } from '../box/fit.ts'

/** What of a layer matters here. */
export interface Cropped {
  readonly placement: Placement
  readonly crop: Crop | null
}

interface Size {
  readonly widthPx: number
  readonly heightPx: number
}

/** How far the edges of what is seen are moved, in canvas pixels along the layer's own directions; inwards and outwards. */
export interface EdgeMoves {
  readonly left: number
  readonly top: number
  readonly right: number
  readonly bottom: number
}

/** What is left of a picture at least, in its pixels. */
const LEAST_PX = 2
/** And as a share of it. */
const LEAST_SHARE = 0.0101

/**
 * A layer after edges were moved: right and down are positive for all four. An edge stops at the end of the picture, and before the opposite
 * edge. The box is what is seen then, so that a frame goes round it.
 */
export function cropByEdges({ placement, crop }: Cropped, size: Size, moves: EdgeMoves): Cropped {
  const { source, target } = fitRects(placement.fit, size.widthPx, size.heightPx, placement.width, placement.height, crop)
  const scaleX = target.width / source.width
  const scaleY = target.height / source.height
  const seenX = moved(source.x, source.width, moves.left / scaleX, moves.right / scaleX, size.widthPx)
  const seenY = moved(source.y, source.height, moves.top / scaleY, moves.bottom / scaleY, size.heightPx)
  const box: Rect = {
    x: target.x + (seenX.from - source.x) * scaleX,
    y: target.y + (seenY.from - source.y) * scaleY,
    width: (seenX.to - seenX.from) * scaleX,
    height: (seenY.to - seenY.from) * scaleY,
  }
  const next: Crop = {
    left: share(seenX.from, size.widthPx),
    top: share(seenY.from, size.heightPx),
    right: share(size.widthPx - seenX.to, size.widthPx),
    bottom: share(size.heightPx - seenY.to, size.heightPx),
  }
  const isWhole = next.left === 0 && next.top === 0 && next.right === 0 && next.bottom === 0
  return { placement: within(placement, box), crop: isWhole ? null : next }
}

/** A layer whose shown part has as many canvas pixels as it has pixels of its own, about the same middle. */
export function atOwnSize({ placement, crop }: Cropped, size: Size): Placement {
  const { width, height } = fitRects('fit', size.widthPx, size.heightPx, placement.width, placement.height, crop).source
  return within(placement, { x: (placement.width - width) / 2, y: (placement.height - height) / 2, width, height })
}

function moved(from: number, length: number, first: number, last: number, most: number): { readonly from: number; readonly to: number } {
  const least = Math.min(length, Math.max(LEAST_PX, LEAST_SHARE * most))
  const start = Math.min(from + length - least, Math.max(0, from + first))
  return { from: start, to: Math.min(most, Math.max(start + least, from + length + last)) }
}

/** Rounding must not leave a sliver. */
function share(px: number, of: number): number {
  const value = px / of
  return value < 1e-6 ? 0 : value
}

/** A placement whose box is `box`, in the units and directions of the old one: turned about its new middle, so that nothing jumps. */
function within(placement: Placement, box: Rect): Placement {
  const { x, y, width, height, angleDeg } = placement
  const [dx, dy] = mapPoint(rotation(angleDeg), box.x + box.width / 2 - width / 2, box.y + box.height / 2 - height / 2)
  return { ...placement, x: x + width / 2 + dx - box.width / 2, y: y + height / 2 + dy - box.height / 2, width: box.width, height: box.height }
}
