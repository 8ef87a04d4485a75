import type { Affine } from '../../core/composite/affine.ts'
import type { PixelRect } from '../../core/picture/picture.ts'
import type { Heap } from './heap.ts'
import type { Kept, SurfaceStore } from './surface-store.ts'

/** What a column takes. */
export const COLUMN_BYTES = 8

/** Of each column of an item's bounds two words lie in the heap: the bytes before its left pixel; the weights of left and right (of 256) as half words. */
export interface ColumnTable {
  readonly sourceWidth: number
  /** Columns of the source that are read. */
  readonly first: number
  readonly last: number
}

/** The table for the bounds' columns, kept under the name of what it holds. */
export function columnsFor(store: SurfaceStore, heap: Heap, { left, right }: PixelRect, { a, e }: Affine, sourceWidth: number): Kept<ColumnTable> {
  const key = `columns ${left} ${right} ${a} ${e} of ${sourceWidth}`
  const known = store.find<ColumnTable>(key)
  if (known !== undefined) return known
  const count = right - left
  const positionOf = (column: number) => Math.min(sourceWidth - 1, Math.max(0, a * (left + column + 0.5) + e - 0.5))
  const ends = [Math.floor(positionOf(0)), Math.floor(positionOf(count - 1))]
  const about = { sourceWidth, first: Math.min(...ends), last: Math.min(sourceWidth - 1, Math.max(...ends) + 1) }
  const kept = store.keep(key, count * COLUMN_BYTES, about)
  const words = kept.block.at >> 2
  for (let column = 0; column < count; column += 1) {
    const position = positionOf(column)
    const near = Math.floor(position)
    const weight = Math.round((position - near) * 256)
    heap.words[words + column * 2] = near * 4
    heap.words[words + column * 2 + 1] = (256 - weight) | (weight << 16)
  }
  return kept
}
