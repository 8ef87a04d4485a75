// Decides which parts of a picture are drawn and in which order: bands of rows, without hidden areas.
import type { PixelRect } from '../../core/picture/picture.ts'
import { isEmptyRect, without } from '../../core/picture/pixel-rect.ts'

/** Of a picture that is drawn at a time: with what it is drawn from it stays in the processor's own memory until it is done. */
const BAND_BYTES = 262_144
const LEAST_ROWS = 16

/** A region in bands of whole rows, from the top. */
export function bandsOf(region: PixelRect): readonly PixelRect[] {
  if (isEmptyRect(region)) return []
  const rows = Math.max(LEAST_ROWS, Math.floor(BAND_BYTES / ((region.right - region.left) * 4)))
  const bands: PixelRect[] = []
  for (let top = region.top; top < region.bottom; top += rows) bands.push({ ...region, top, bottom: Math.min(region.bottom, top + rows) })
  return bands
}

/** An item visible in more parts than this is drawn in full. */
const MOST_PARTS = 6

/**
 * Where each of a list can be seen in a region, from back to front, and what lies behind all of them: what a later one hides is not drawn.
 * `hidden` is the rectangle in which each hides whatever is under it; empty for one that hides nothing.
 */
export function seenParts(
  hidden: readonly PixelRect[],
  region: PixelRect,
): { readonly seen: readonly (readonly PixelRect[])[]; readonly behindAll: readonly PixelRect[] } {
  const seen: (readonly PixelRect[])[] = []
  let parts: readonly PixelRect[] = [region]
  for (let i = hidden.length - 1; i >= 0; i -= 1) {
    seen[i] = parts
    const left = parts.flatMap((part) => without(part, hidden[i]!))
    if (left.length <= MOST_PARTS) parts = left
  }
  return { seen, behindAll: parts }
}
