// Rows of an upright picture, drawn larger or smaller into the columns of an item.
import type { Affine } from '../../core/composite/affine.ts'
import type { PixelRect } from '../../core/picture/picture.ts'
import { footprintOf } from '../../core/picture/box-sample.ts'
import { columnBytes, columnsFor, weightsOf, type ColumnTable } from './column-table.ts'
import type { Heap } from './heap.ts'
import type { RowSpace } from './row-blender.ts'
import type { Kept, SurfaceStore } from './surface-store.ts'

/** A picture that is read row by row. */
export interface RowPicture {
  readonly widthPx: number
  readonly heightPx: number
  /** Where the first pixel of a row lies, until as many others were asked for as one row of what is drawn reads. */
  rowAt(y: number): number
}

export interface ScalingTools {
  readonly heap: Heap
  readonly surfaces: SurfaceStore
  /** Room for a row that is mixed of several. */
  readonly mixed: RowSpace
  /** Room for where those lie, and their weights. */
  readonly rowTable: RowSpace
}

/** Keeps what says where each column of an item's bounds comes from. */
export class ScaledRows {
  readonly #bounds: PixelRect
  readonly #toNode: Affine
  readonly #down: number
  #columns: Kept<ColumnTable> | null = null

  constructor(bounds: PixelRect, toNode: Affine) {
    this.#bounds = bounds
    this.#toNode = toNode
    this.#down = footprintOf(toNode).down
  }

  /** Rows of a picture that one row of what is drawn reads, at most. */
  get rowsRead(): number {
    return this.#down > 1 ? Math.ceil(this.#down) + 1 : 2
  }

  /** Columns of a picture of this width that the bounds read: the first, and the one after the last. */
  columnsRead(tools: ScalingTools, sourceWidth: number): readonly [number, number] {
    const { first, last } = this.#columnsOf(tools, sourceWidth).about
    return [first, last + 1]
  }

  /** Draws columns left..right of row `y` of the stack into `line`. */
  write(tools: ScalingTools, picture: RowPicture, y: number, left: number, right: number, line: number): void {
    const columns = this.#columnsOf(tools, picture.widthPx)
    if (this.#down > 1 || columns.about.pairs > 1) return this.#writeShrunk(tools, picture, columns, y, left, right, line)
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
      columns.block.at + (left - this.#bounds.left) * columnBytes(columns.about),
      right - left,
      line,
    )
  }

  #writeShrunk(tools: ScalingTools, picture: RowPicture, columns: Kept<ColumnTable>, y: number, left: number, right: number, line: number): void {
    const { heap, mixed, rowTable } = tools
    const { d, f } = this.#toNode
    const { first, weights } = weightsOf(d * (y + 0.5) + f, this.#down, picture.heightPx)
    const table = rowTable.at(weights.length * 2)
    weights.forEach((weight, i) => {
      // Asking for a row may move the heap's views.
      const rowAt = picture.rowAt(first + i)
      heap.words[(table >> 2) + i * 2] = rowAt
      heap.words[(table >> 2) + i * 2 + 1] = weight
    })
    heap.kernels.shrinkRow(
      table,
      weights.length,
      columns.about.first,
      columns.about.last,
      mixed.at(picture.widthPx + columns.about.pairs * 2),
      columns.block.at + (left - this.#bounds.left) * columnBytes(columns.about),
      columns.about.pairs,
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
