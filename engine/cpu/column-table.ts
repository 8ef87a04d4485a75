import type { Affine } from '../../core/composite/affine.ts'
import type { PixelRect } from '../../core/picture/picture.ts'
import type { Heap } from './heap.ts'
import type { Kept, SurfaceStore } from './surface-store.ts'

/** Of each column of an item's bounds three words lie in the heap: left column, right column and weight of the right one (of 256). */
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
  const kept = store.keep(key, count * 12, about)
  const words = kept.block.at >> 2
  for (let column = 0; column < count; column += 1) {
    const position = positionOf(column)
    const near = Math.floor(position)
    heap.words[words + column * 3] = near
    heap.words[words + column * 3 + 1] = Math.min(sourceWidth - 1, near + 1)
    heap.words[words + column * 3 + 2] = Math.round((position - near) * 256)
  }
  return kept
}
