// Treats rows of pictures that have been copied into the heap.
import type { Picture, PixelRect } from '../../core/picture/picture.ts'
import type { Block, Heap } from './heap.ts'
import { CLEAR, type AlphaForm, type ColourMemo } from './colour-memo.ts'

/** Working space of the row kernels, for pictures up to `maxWidthPx` wide. */
export class RowTreater {
  readonly #heap: Heap
  #scratch: Block
  #missing: Block
  #line: Block
  #maxWidthPx = 4096

  constructor(heap: Heap) {
    this.#heap = heap
    this.#scratch = heap.allocate(scratchBytes(this.#maxWidthPx))
    this.#missing = heap.allocate(missingBytes(this.#maxWidthPx))
    this.#line = heap.allocate(missingBytes(this.#maxWidthPx))
  }

  /**
   * Treats row `y` of `picture`, whose bytes lie at `pictureAt`, into `line`; everything outside
   * `keep` becomes clear. `line` needs room for 16 pixels more than the width.
   */
  treat(picture: Picture, pictureAt: number, memo: ColourMemo, keep: PixelRect, y: number, line: number, form: AlphaForm = 'premultiplied'): void {
    const { widthPx } = picture
    const { kernels } = this.#heap
    if (picture.format === 'rgba') return this.treatStraight(pictureAt + y * widthPx * 4, widthPx, memo, keep, y, line, form)
    if (y < keep.top || y >= keep.bottom || keep.right <= keep.left) {
      kernels.fillRow(line, widthPx, CLEAR)
      return
    }
    this.#reserve(widthPx)
    const missing = this.#missing.at
    // A second pass finds every entry that the first one listed.
    for (let misses = 1; misses > 0;) {
      misses = this.#i420Row(picture.widthPx, picture.heightPx, pictureAt, memo.at, keep, y, line)
      if (misses > 0) memo.computeListed(missing, misses)
    }
    this.#clearOutside(keep, widthPx, line)
  }

  /** The same for a row of straight pixels in the heap, at `source`; their own alpha thins the result. */
  treatStraight(source: number, widthPx: number, memo: ColourMemo, keep: PixelRect, y: number, line: number, form: AlphaForm): void {
    const { kernels } = this.#heap
    if (y < keep.top || y >= keep.bottom || keep.right <= keep.left) {
      kernels.fillRow(line, widthPx, CLEAR)
      return
    }
    this.#reserve(widthPx)
    const missing = this.#missing.at
    // Where the result replaces its source, codes without an entry must be known before anything is written.
    for (let misses = 1; misses > 0;) {
      const target = source === line ? this.#line.at : line
      misses =
        form === 'straight'
          ? kernels.treatStraightRow(memo.at, source, widthPx, target, missing)
          : kernels.treatRgbaRow(memo.at, source, widthPx, target, missing)
      if (misses > 0) memo.computeListed(missing, misses)
      else if (target !== line) kernels.copyRows(target, line, widthPx * 4, 0, 1)
    }
    this.#clearOutside(keep, widthPx, line)
  }

  dispose(): void {
    this.#heap.free(this.#line)
    this.#heap.free(this.#scratch)
    this.#heap.free(this.#missing)
  }

  #clearOutside(keep: PixelRect, widthPx: number, line: number): void {
    const { kernels } = this.#heap
    if (keep.left > 0) kernels.fillRow(line, keep.left, CLEAR)
    if (keep.right < widthPx) kernels.fillRow(line + keep.right * 4, widthPx - keep.right, CLEAR)
  }

  #i420Row(widthPx: number, heightPx: number, at: number, table: number, keep: PixelRect, y: number, line: number): number {
    const chromaWidth = (widthPx + 1) >> 1
    const chromaHeight = (heightPx + 1) >> 1
    const row = y >> 1
    const wanted = (y & 1) === 0 ? row - 1 : row + 1
    const side = wanted < 0 ? 0 : wanted >= chromaHeight ? chromaHeight - 1 : wanted
    const cb = at + widthPx * heightPx
    const cr = cb + chromaWidth * chromaHeight
    return this.#heap.kernels.treatI420Row(
      table,
      at + y * widthPx,
      cb + row * chromaWidth,
      cb + side * chromaWidth,
      cr + row * chromaWidth,
      cr + side * chromaWidth,
      keep.left,
      keep.right,
      chromaWidth,
      this.#scratch.at,
      line,
      this.#missing.at,
    )
  }

  #reserve(widthPx: number): void {
    if (widthPx <= this.#maxWidthPx) return
    this.dispose()
    this.#maxWidthPx = widthPx
    this.#scratch = this.#heap.allocate(scratchBytes(widthPx))
    this.#missing = this.#heap.allocate(missingBytes(widthPx))
    this.#line = this.#heap.allocate(missingBytes(widthPx))
  }
}

function scratchBytes(widthPx: number): number {
  return 4 * (((widthPx + 1) >> 1) + 64)
}

function missingBytes(widthPx: number): number {
  return 4 * (widthPx + 64)
}
