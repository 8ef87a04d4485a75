// A plane of 16-bit values of 1/64 code in the heap, blurred or spread row by row.
import type { Block, Heap } from '../heap.ts'

/** Room at both sides of a row for the widest filter. */
const MARGIN = 64

/** Gaussian weights of 2¹⁵ that add up exactly: what rounding takes from one tap goes to the next. */
export function fineTaps(taps: ArrayLike<number>): Int16Array {
  const out = new Int16Array(taps.length)
  let owed = 0
  for (let i = 0; i < taps.length; i += 1) {
    const wanted = taps[i]! * 32767 + owed
    out[i] = Math.round(wanted)
    owed = wanted - out[i]!
  }
  return out
}

/** Working memory of filters over planes of one size. */
export class FinePlanes {
  readonly #heap: Heap
  readonly #widthPx: number
  readonly #heightPx: number
  readonly #stride: number
  readonly #blocks: Block[] = []
  readonly #planes: number[] = []
  readonly #rows: Block

  constructor(heap: Heap, allocate: (byteLength: number) => Block, widthPx: number, heightPx: number, planes: number) {
    this.#heap = heap
    this.#widthPx = widthPx
    this.#heightPx = heightPx
    this.#stride = (widthPx + 2 * MARGIN) * 2
    for (let i = 0; i < planes; i += 1) {
      const block = allocate(this.#stride * heightPx + MARGIN * 2)
      this.#blocks.push(block)
      this.#planes.push(block.at + MARGIN * 2)
    }
    this.#rows = allocate(4 * (2 * MARGIN + 1))
  }

  /** Where row `y` of a plane starts. */
  row(plane: number, y: number): number {
    return this.#planes[plane]! + y * this.#stride
  }

  /** Convolves a plane across and down with weights at `taps`; the result replaces it, `other` is used between. */
  blur(plane: number, other: number, taps: number, radius: number): void {
    const { kernels } = this.#heap
    for (let y = 0; y < this.#heightPx; y += 1) kernels.blurAcross(this.row(plane, y), this.row(other, y), this.#widthPx, taps, radius)
    for (let y = 0; y < this.#heightPx; y += 1) {
      this.#listRows(other, y, radius)
      kernels.blurDown(this.#rows.at, this.row(plane, y), this.#widthPx, taps, radius)
    }
  }

  /** Largest or smallest within a square of ±radius, from `plane` into `out` by way of `between`. */
  extreme(plane: number, between: number, out: number, radius: number, isLargest: boolean): void {
    const { kernels } = this.#heap
    for (let y = 0; y < this.#heightPx; y += 1) kernels.extremeAcross(this.row(plane, y), this.row(between, y), this.#widthPx, radius, isLargest)
    for (let y = 0; y < this.#heightPx; y += 1) {
      this.#listRows(between, y, radius)
      kernels.extremeDown(this.#rows.at, this.row(out, y), this.#widthPx, radius, isLargest)
    }
  }

  dispose(): void {
    for (const block of this.#blocks) this.#heap.free(block)
    this.#heap.free(this.#rows)
  }

  #listRows(plane: number, y: number, radius: number): void {
    const { words } = this.#heap
    const at = this.#rows.at >> 2
    for (let k = -radius; k <= radius; k += 1) {
      const row = y + k < 0 ? 0 : y + k >= this.#heightPx ? this.#heightPx - 1 : y + k
      words[at + k + radius] = this.row(plane, row)
    }
  }
}
