import type { Placement } from '../show/show.ts'

/** A box takes at most so much of the canvas's height by itself. */
const MOST_SHARE = 0.9

/**
 * A box as high as its content needs, and at least `leastPx`. The edge that is nearer to the canvas's stays where it is, so that
 * a title at the bottom grows upwards; the box stays on the canvas.
 */
export function grownBox(placement: Placement, neededPx: number, leastPx: number, canvas: { readonly heightPx: number }): Placement {
  const height = Math.round(Math.max(leastPx, Math.min(neededPx, canvas.heightPx * MOST_SHARE)))
  if (height === Math.round(placement.height)) return placement
  const isLow = placement.y + placement.height / 2 > canvas.heightPx / 2
  const y = isLow ? placement.y + placement.height - height : placement.y
  const isInside = placement.y >= 0 && placement.y + placement.height <= canvas.heightPx
  return { ...placement, height, y: isInside ? Math.max(0, Math.min(y, canvas.heightPx - height)) : y }
}
