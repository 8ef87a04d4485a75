// Treats rows of pictures that have been copied into the heap.
import type { Picture, PixelRect } from '../../core/picture/picture.ts'
import type { Block, Heap } from './heap.ts'
import { CLEAR, type AlphaForm, type ColourMemo } from './colour-memo.ts'

/** Working space of the row kernels, for pictures up to `maxWidthPx` wide. */
export class RowTreater {
  readonly #heap: Heap
  #scratch: Block
  #missing: Block
  #maxWidthPx = 4096

  constructor(heap: Heap) {
    this.#heap = heap
    this.#scratch = heap.allocate(scratchBytes(this.#maxWidthPx))
    this.#missing = heap.allocate(missingBytes(this.#maxWidthPx))
  }

  /**
   * Treats row `y` of `picture`, whose bytes lie at `pictureAt`, into `line`; everything outside
   * `keep` becomes clear. `line` needs room for 16 pixels more than the width. Of the rest than the columns from `first` to `end`
   * nobody asks: what is there then is not said.
   */
  treat(
    picture: Picture,
    pictureAt: number,
    memo: ColourMemo,
    keep: PixelRect,
    y: number,
    line: number,
    form: AlphaForm = 'premultiplied',
    first = 0,
    end = picture.widthPx,
  ): void {
    const { widthPx, heightPx } = picture
    if (picture.format === 'rgba') return this.treatStraight(pictureAt + y * widthPx * 4, widthPx, memo, keep, y, line, form)
    const left = Math.max(keep.left, first)
    const right = Math.min(keep.right, end)
    if (y < keep.top || y >= keep.bottom || right <= left) {
      this.#heap.kernels.fillRow(line + first * 4, end - first, CLEAR)
      return
    }
    this.#reserve(widthPx)
    const missing = this.#missing.at
    const misses = this.#i420Row(widthPx, heightPx, pictureAt, memo.at, left, right, y, line)
    if (misses > 0) {
      memo.computeListed(missing, misses)
      this.#fillIn(memo.at, misses)
    }
    this.#clearOutside(left, right, first, end, line)
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
    if (form === 'straight') {
      // The result may replace its source: what an entry does to alpha is done to the listed pixels afterwards.
      const misses = kernels.treatStraightRow(memo.at, source, widthPx, line, missing)
      if (misses > 0) {
        memo.computeListed(missing, misses)
        kernels.fillStraight(memo.at, missing, misses)
      }
    } else {
      const misses = kernels.treatRgbaRow(memo.at, source, widthPx, line, missing)
      if (misses > 0) {
        memo.computeListed(missing, misses)
        kernels.treatRgbaRow(memo.at, source, widthPx, line, missing)
      }
    }
    this.#clearOutside(keep.left, keep.right, 0, widthPx, line)
  }

  dispose(): void {
    this.#heap.free(this.#scratch)
    this.#heap.free(this.#missing)
  }

  /** Writes listed pixels again, now that their entries are there. */
  #fillIn(table: number, misses: number): void {
    const { words } = this.#heap
    const missing = this.#missing.at >> 2
    for (let i = 0; i < misses; i += 1) words[words[missing + 2 * i + 1]! >> 2] = words[(table >> 2) + words[missing + 2 * i]!]!
  }

  #clearOutside(left: number, right: number, first: number, end: number, line: number): void {
    const { kernels } = this.#heap
    if (left > first) kernels.fillRow(line + first * 4, left - first, CLEAR)
    if (right < end) kernels.fillRow(line + right * 4, end - right, CLEAR)
  }

  #i420Row(widthPx: number, heightPx: number, at: number, table: number, left: number, right: number, y: number, line: number): number {
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
      left,
      right,
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
  }
}

function scratchBytes(widthPx: number): number {
  return 4 * (((widthPx + 1) >> 1) + 64)
}

function missingBytes(widthPx: number): number {
  return 8 * (widthPx + 64)
}
