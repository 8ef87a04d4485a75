// Rows of an upright picture, drawn larger or smaller into the columns of an item.
import type { Affine } from '../../core/composite/affine.ts'
import type { PixelRect } from '../../core/picture/picture.ts'
import { COLUMN_BYTES, columnsFor, type ColumnTable } from './column-table.ts'
import type { Heap } from './heap.ts'
import type { RowSpace } from './row-blender.ts'
import type { Kept, SurfaceStore } from './surface-store.ts'

/** A picture that is read row by row. */
export interface RowPicture {
  readonly widthPx: number
  readonly heightPx: number
  /** Where the first pixel of a row lies, until the second next call. */
  rowAt(y: number): number
}

export interface ScalingTools {
  readonly heap: Heap
  readonly surfaces: SurfaceStore
  /** Room for a row that is mixed of two. */
  readonly mixed: RowSpace
}

/** Keeps what says where each column of an item's bounds comes from. */
export class ScaledRows {
  readonly #bounds: PixelRect
  readonly #toNode: Affine
  #columns: Kept<ColumnTable> | null = null

  constructor(bounds: PixelRect, toNode: Affine) {
    this.#bounds = bounds
    this.#toNode = toNode
  }

  /** Columns of a picture of this width that the bounds read: the first, and the one after the last. */
  columnsRead(tools: ScalingTools, sourceWidth: number): readonly [number, number] {
    const { first, last } = this.#columnsOf(tools, sourceWidth).about
    return [first, last + 1]
  }

  /** Draws columns left..right of row `y` of the stack into `line`. */
  write(tools: ScalingTools, picture: RowPicture, y: number, left: number, right: number, line: number): void {
    const columns = this.#columnsOf(tools, picture.widthPx)
    const { d, f } = this.#toNode
    const at = Math.min(picture.heightPx - 1, Math.max(0, d * (y + 0.5) + f - 0.5))
    const upper = Math.floor(at)
    const upperAt = picture.rowAt(upper)
    tools.heap.kernels.scaleRow(
      upperAt,
      picture.rowAt(Math.min(picture.heightPx - 1, upper + 1)),
      Math.round((at - upper) * 256),
      columns.about.first,
      columns.about.last,
      tools.mixed.at(picture.widthPx),
      columns.block.at + (left - this.#bounds.left) * COLUMN_BYTES,
      right - left,
      line,
    )
  }

  #columnsOf({ heap, surfaces }: ScalingTools, sourceWidth: number): Kept<ColumnTable> {
    if (this.#columns === null || this.#columns.isEvicted || this.#columns.about.sourceWidth !== sourceWidth) {
      this.#columns = columnsFor(surfaces, heap, this.#bounds, this.#toNode, sourceWidth)
    } else surfaces.touch(this.#columns)
    return this.#columns
  }
}
