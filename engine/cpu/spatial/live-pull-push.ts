// core/matte/pull-push.ts in real time: cells of four floats, its loops in WebAssembly.
import { FULL_KNOWLEDGE } from '../../../core/matte/pull-push.ts'
import type { Block, Heap } from '../heap.ts'
import type { LiveTools } from './live-work.ts'

interface Level {
  readonly columns: number
  readonly rows: number
  readonly sums: Block
  readonly colours: Block
}

/** Levels of one size, reused from frame to frame. */
export class LivePullPush {
  readonly #heap: Heap
  readonly #levels: Level[] = []

  constructor({ heap, allocate }: Pick<LiveTools, 'heap' | 'allocate'>, columns: number, rows: number) {
    this.#heap = heap
    for (let width = columns, height = rows; ; width = (width + 1) >> 1, height = (height + 1) >> 1) {
      const byteLength = width * height * 16
      this.#levels.push({ columns: width, rows: height, sums: allocate(byteLength), colours: allocate(byteLength) })
      if (width === 1 && height === 1) break
    }
  }

  /** Where sums are to be added: red, green, blue, count of each cell. */
  get sums(): number {
    return this.#levels[0]!.sums.at
  }

  /** Where `run` leaves colours: red, green, blue and a number of no use. */
  get colours(): number {
    return this.#levels[0]!.colours.at
  }

  /** Empties the sums. */
  clear(): void {
    const { columns, rows, sums } = this.#levels[0]!
    this.#heap.bytes.fill(0, sums.at, sums.at + columns * rows * 16)
  }

  /** How far all that is known is trusted, 0..1, after `run`. */
  get trust(): number {
    const top = this.#levels[this.#levels.length - 1]!
    return Math.min(1, this.#heap.floats[(top.sums.at >> 2) + 3]! / FULL_KNOWLEDGE)
  }

  /** Spreads what the sums hold over all cells; false when they hold nothing. */
  run(): boolean {
    const { kernels } = this.#heap
    const levels = this.#levels
    for (let i = 1; i < levels.length; i += 1) {
      const fine = levels[i - 1]!
      kernels.pullCells(fine.sums.at, fine.columns, fine.rows, levels[i]!.sums.at)
    }
    const top = levels[levels.length - 1]!
    if (!kernels.topCell(top.sums.at, top.colours.at)) return false
    for (let i = levels.length - 2; i >= 0; i -= 1) {
      const level = levels[i]!
      kernels.pushCells(level.sums.at, level.columns, level.rows, levels[i + 1]!.colours.at, level.colours.at)
    }
    return true
  }

  dispose(): void {
    for (const { sums, colours } of this.#levels) {
      this.#heap.free(sums)
      this.#heap.free(colours)
    }
  }
}
