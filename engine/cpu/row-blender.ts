// Blends rows of pixels through a mask by a mode, into a canvas.
import type { BlendName } from '../../core/blend/index.ts'
import { blendRows, type BlendRow } from './blends/index.ts'
import { FAINT, SOLID, SPAN_NUMBERS, type CoverMask } from './cover-mask.ts'
import type { Block, Heap } from './heap.ts'

/** Room for one row of pixels, as wide as it was ever needed. */
export class RowSpace {
  readonly #heap: Heap
  #block: Block | null = null

  constructor(heap: Heap) {
    this.#heap = heap
  }

  /** Address of scratch memory for `pixels`; earlier contents may be lost. */
  at(pixels: number): number {
    const bytes = (pixels + 64) * 4
    if (this.#block === null || this.#block.byteLength < bytes) {
      this.dispose()
      this.#block = this.#heap.allocate(Math.max(bytes, 4 * 8192))
    }
    return this.#block.at
  }

  dispose(): void {
    if (this.#block !== null) this.#heap.free(this.#block)
    this.#block = null
  }
}

export class RowBlender {
  readonly #heap: Heap
  readonly #modes: Readonly<Record<BlendName, BlendRow>>
  readonly #thin: RowSpace

  constructor(heap: Heap) {
    this.#heap = heap
    this.#modes = blendRows(heap.kernels)
    this.#thin = new RowSpace(heap)
  }

  /**
   * Blends columns left..right of row `row` of a mask. `line` is where the pixel of column `left` lies; `baseRow` and `outRow`
   * where column 0 of the stack does. Where nothing is covered `base` is copied, if it is not `out` itself.
   */
  blend(
    blend: BlendName,
    isOpaque: boolean,
    mask: CoverMask,
    maskAt: number,
    row: number,
    boundsLeft: number,
    line: number,
    baseRow: number,
    outRow: number,
    left: number,
    right: number,
  ): void {
    const { kernels } = this.#heap
    const isInPlace = baseRow === outRow
    const last = mask.rowStarts[row + 1]!
    let done = left
    for (let span = mask.rowStarts[row]!; span < last; span += 1) {
      const at = span * SPAN_NUMBERS
      const spanFrom = mask.spans[at]! + boundsLeft
      const from = Math.max(spanFrom, left)
      const to = Math.min(mask.spans[at + 1]! + boundsLeft, right)
      if (to <= from) continue
      if (!isInPlace && from > done) kernels.copyRows(baseRow + done * 4, outRow + done * 4, (from - done) * 4, 0, 1)
      done = to
      const bytesAt = mask.spans[at + 2]!
      const pixels = line + (from - left) * 4
      const count = to - from
      if (bytesAt === SOLID) {
        if (isOpaque && blend === 'normal') kernels.copyRows(pixels, outRow + from * 4, count * 4, 0, 1)
        else this.#modes[blend](pixels, baseRow + from * 4, outRow + from * 4, count)
        continue
      }
      // Equally faint all along: the first bytes of the mask say how much.
      if (bytesAt === FAINT && mask.isFaint && isOpaque && blend === 'normal') {
        kernels.mixRow(pixels, baseRow + from * 4, outRow + from * 4, count, mask.bytes[0]!)
        continue
      }
      const covered = maskAt + bytesAt + (from - spanFrom)
      if (blend === 'normal') kernels.blendMaskedRow(pixels, baseRow + from * 4, outRow + from * 4, count, covered)
      else {
        const thin = this.#thin.at(count)
        kernels.thinRow(pixels, covered, thin, count)
        this.#modes[blend](thin, baseRow + from * 4, outRow + from * 4, count)
      }
    }
    if (!isInPlace && right > done) kernels.copyRows(baseRow + done * 4, outRow + done * 4, (right - done) * 4, 0, 1)
  }

  dispose(): void {
    this.#thin.dispose()
  }
}
