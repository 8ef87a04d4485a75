// The soft edge solved in real time: the same work as core/matte/solve-edges.ts, with its loops in WebAssembly.
import { placesInCells } from '../../../core/filter/bilinear.ts'
import { CELL_PX, RIM_WHITE, SAMPLE_STEP, type EdgeLevels } from '../../../core/matte/solve-edges.ts'
import type { Block } from '../heap.ts'
import { LivePullPush } from './live-pull-push.ts'
import type { LiveTools } from './live-work.ts'
import { heapPlaces, type HeapPlaces } from './places.ts'

/** Bytes of room beside each row of opacity. */
const MARGIN = 32

export class LiveEdges {
  readonly #tools: LiveTools
  readonly #stride: number
  readonly #columnsOfCells: number
  readonly #front: LivePullPush
  readonly #back: LivePullPush
  readonly #columns: HeapPlaces
  readonly #rows: ReturnType<typeof placesInCells>
  /** Opacity, and the largest and smallest of three across. */
  readonly #alpha: Block
  readonly #most: Block
  readonly #least: Block
  /** How surely all of the 3 × 3 about a pixel is the backdrop, and the presenter: 0..255. */
  readonly #surelyBack: Block
  readonly #surelyFront: Block
  readonly #frontRow: Block
  readonly #backRow: Block

  constructor(tools: LiveTools) {
    const { widthPx, heightPx, allocate, heap } = tools
    this.#tools = tools
    this.#stride = Math.ceil((widthPx + 2 * MARGIN) / 16) * 16
    this.#columnsOfCells = Math.ceil(widthPx / CELL_PX)
    const rowsOfCells = Math.ceil(heightPx / CELL_PX)
    this.#front = new LivePullPush(tools, this.#columnsOfCells, rowsOfCells)
    this.#back = new LivePullPush(tools, this.#columnsOfCells, rowsOfCells)
    this.#columns = heapPlaces(heap, allocate, placesInCells(widthPx, CELL_PX), this.#columnsOfCells)
    this.#rows = placesInCells(heightPx, CELL_PX)
    const plane = () => allocate(this.#stride * heightPx + 2 * MARGIN)
    this.#alpha = plane()
    this.#most = plane()
    this.#least = plane()
    this.#surelyBack = plane()
    this.#surelyFront = plane()
    this.#frontRow = allocate(this.#columnsOfCells * 16)
    this.#backRow = allocate(this.#columnsOfCells * 16)
  }

  /**
   * Solves the pixels at `at` in place; `table` holds the levels as 256 bytes. False, and nothing is changed, where one of the sides
   * is nowhere sure.
   */
  solve(at: number, levels: EdgeLevels, table: number): boolean {
    this.#mark(at)
    this.#gather(at)
    if (!this.#front.run() || !this.#back.run()) return false
    const { heap, widthPx, heightPx } = this.#tools
    const { kernels } = heap
    const rowBytes = this.#columnsOfCells * 16
    const trust = this.#front.trust * this.#back.trust
    for (let y = 0; y < heightPx; y += 1) {
      const below = this.#rows.below[y]! * rowBytes
      const above = this.#rows.above[y]! * rowBytes
      const share = this.#rows.share[y]!
      kernels.mixFloats(this.#front.colours + below, this.#front.colours + above, this.#frontRow.at, this.#columnsOfCells * 4, share)
      kernels.mixFloats(this.#back.colours + below, this.#back.colours + above, this.#backRow.at, this.#columnsOfCells * 4, share)
      kernels.solveEdgeRow(
        at + y * widthPx * 4,
        this.#row(this.#surelyBack, y),
        this.#row(this.#surelyFront, y),
        widthPx,
        trust,
        this.#frontRow.at,
        this.#backRow.at,
        this.#columns.cells,
        this.#columns.shares,
        this.#columnsOfCells - 1,
        table,
        levels.black,
        levels.white,
        RIM_WHITE,
        levels.amount,
      )
    }
    return true
  }

  dispose(): void {
    const { heap } = this.#tools
    const blocks = [this.#alpha, this.#most, this.#least, this.#surelyBack, this.#surelyFront]
    this.#front.dispose()
    this.#back.dispose()
    for (const block of [...blocks, this.#frontRow, this.#backRow, ...this.#columns.blocks]) heap.free(block)
  }

  #row(plane: Block, y: number): number {
    return plane.at + MARGIN + y * this.#stride
  }

  #mark(at: number): void {
    const { heap, widthPx, heightPx } = this.#tools
    const { kernels } = heap
    for (let y = 0; y < heightPx; y += 1) {
      kernels.alphaBytes(at + y * widthPx * 4, this.#row(this.#alpha, y), widthPx)
      kernels.extremeOfThree(this.#row(this.#alpha, y), this.#row(this.#most, y), widthPx, true)
      kernels.extremeOfThree(this.#row(this.#alpha, y), this.#row(this.#least, y), widthPx, false)
    }
    for (let y = 0; y < heightPx; y += 1) {
      const up = Math.max(0, y - 1)
      const down = Math.min(heightPx - 1, y + 1)
      const [most, least] = [this.#most, this.#least]
      kernels.surelyRow(this.#row(most, up), this.#row(most, y), this.#row(most, down), this.#row(this.#surelyBack, y), widthPx, false)
      kernels.surelyRow(this.#row(least, up), this.#row(least, y), this.#row(least, down), this.#row(this.#surelyFront, y), widthPx, true)
    }
  }

  #gather(at: number): void {
    const { heap, widthPx, heightPx } = this.#tools
    const { kernels } = heap
    this.#front.clear()
    this.#back.clear()
    for (let y = 0; y < heightPx; y += SAMPLE_STEP) {
      const cells = Math.floor(y / CELL_PX) * this.#columnsOfCells * 16
      kernels.gatherRow(at + y * widthPx * 4, this.#row(this.#surelyFront, y), widthPx, this.#front.sums + cells)
      kernels.gatherRow(at + y * widthPx * 4, this.#row(this.#surelyBack, y), widthPx, this.#back.sums + cells)
    }
  }
}
