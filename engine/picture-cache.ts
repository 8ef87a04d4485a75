// What caches of pictures ask, on the processor and on the card.
import type { Picture } from '../core/picture/picture.ts'

/** Whether two pictures have one size and one coding. */
export function isAlike(first: Picture, second: Picture): boolean {
  if (first.widthPx !== second.widthPx || first.heightPx !== second.heightPx) return false
  if (first.format === 'rgba' || second.format === 'rgba') return first.format === second.format
  return first.matrix === second.matrix && first.range === second.range
}
