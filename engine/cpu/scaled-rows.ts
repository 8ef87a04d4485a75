// Rows of an upright picture, drawn larger or smaller into the columns of an item.
import type { Affine } from '../../core/composite/affine.ts'
import type { PixelRect } from '../../core/picture/picture.ts'
import { footprintOf } from '../../core/picture/box-sample.ts'
import { axisTableFor, entryBytes, type AxisTable, type ScaledAxis } from './axis-table.ts'
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

/** Keeps what says where each column and row of an item's bounds comes from. */
export class ScaledRows {
  readonly #across: ScaledAxis
  readonly #down: ScaledAxis
  #columns: Kept<AxisTable> | null = null
  #rows: Kept<AxisTable> | null = null

  constructor({ left, right, top, bottom }: PixelRect, toNode: Affine) {
    const { across, down } = footprintOf(toNode)
    this.#across = { from: left, to: right, scale: toNode.a, offset: toNode.e, footprint: across }
    this.#down = { from: top, to: bottom, scale: toNode.d, offset: toNode.f, footprint: down }
  }

  /** Most source rows that one drawn row reads. */
  get rowsRead(): number {
    const { footprint } = this.#down
    return footprint > 1 ? Math.ceil(footprint) + 1 : 2
  }

  /** Columns of a picture of this width that the bounds read: the first, and the one after the last. */
  columnsRead(tools: ScalingTools, sourceWidth: number): readonly [number, number] {
    const { first, last } = this.#columnsOf(tools, sourceWidth).about
    return [first, last + 1]
  }

  /** Draws columns left..right of row `y` of the stack into `line`. */
  write(tools: ScalingTools, picture: RowPicture, y: number, left: number, right: number, line: number): void {
    const columns = this.#columnsOf(tools, picture.widthPx)
    const { footprint, scale, offset } = this.#down
    if (footprint > 1 || columns.about.pairs > 1) return this.#writeShrunk(tools, picture, columns, y, left, right, line)
    const at = Math.min(picture.heightPx - 1, Math.max(0, scale * (y + 0.5) + offset - 0.5))
    const upper = Math.floor(at)
    const upperAt = picture.rowAt(upper)
    tools.heap.kernels.scaleRow(
      upperAt,
      picture.rowAt(Math.min(picture.heightPx - 1, upper + 1)),
      Math.round((at - upper) * 256),
      columns.about.first,
      columns.about.last,
      tools.mixed.at(picture.widthPx),
      columns.block.at + (left - this.#across.from) * entryBytes(columns.about),
      right - left,
      line,
    )
  }

  #writeShrunk(tools: ScalingTools, picture: RowPicture, columns: Kept<AxisTable>, y: number, left: number, right: number, line: number): void {
    const { heap, mixed, rowTable } = tools
    const rows = this.#rowsOf(tools, picture.heightPx)
    const entry = (rows.block.at + (y - this.#down.from) * entryBytes(rows.about)) >> 2
    const first = heap.words[entry]! >> 2
    const table = rowTable.at(rows.about.pairs * 4)
    let count = 0
    for (let i = 0; i < rows.about.pairs * 2; i += 1) {
      const weight = (heap.words[entry + 1 + (i >> 1)]! >>> ((i & 1) * 16)) & 0xffff
      if (weight === 0) continue
      // Asking for a row may move the heap's views.
      const rowAt = picture.rowAt(first + i)
      heap.words[(table >> 2) + count * 2] = rowAt
      heap.words[(table >> 2) + count * 2 + 1] = weight
      count += 1
    }
    heap.kernels.shrinkRow(
      table,
      count,
      columns.about.first,
      columns.about.last,
      mixed.at(picture.widthPx + columns.about.pairs * 2),
      columns.block.at + (left - this.#across.from) * entryBytes(columns.about),
      columns.about.pairs,
      right - left,
      line,
    )
  }

  #columnsOf(tools: ScalingTools, sourceWidth: number): Kept<AxisTable> {
    return (this.#columns = currentTable(tools, this.#columns, this.#across, sourceWidth))
  }

  #rowsOf(tools: ScalingTools, sourceHeight: number): Kept<AxisTable> {
    return (this.#rows = currentTable(tools, this.#rows, this.#down, sourceHeight))
  }
}

function currentTable({ heap, surfaces }: ScalingTools, table: Kept<AxisTable> | null, axis: ScaledAxis, sourceSize: number): Kept<AxisTable> {
  if (table === null || table.isEvicted || table.about.sourceSize !== sourceSize) return axisTableFor(surfaces, heap, axis, sourceSize)
  surfaces.touch(table)
  return table
}
