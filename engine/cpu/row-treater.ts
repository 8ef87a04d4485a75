// Treats rows of pictures that have been copied into the heap.
import type { I420Picture, Picture, PixelRect } from '../../core/picture/picture.ts'
import type { Block, Heap } from './heap.ts'
import { CodingShares } from './yuv-coefficients.ts'
import { CLEAR, type AlphaForm, type ColourMemo } from './colour-memo.ts'

/** Working space of the row kernels, for pictures up to `maxWidthPx` wide. */
export class RowTreater {
  readonly #heap: Heap
  readonly #shares: CodingShares
  #scratch: Block
  #missing: Block
  #maxWidthPx = 4096

  constructor(heap: Heap) {
    this.#heap = heap
    this.#shares = new CodingShares(heap)
    this.#scratch = heap.allocate(scratchBytes(this.#maxWidthPx))
    this.#missing = heap.allocate(missingBytes(this.#maxWidthPx))
  }

  /**
   * Treats row `y` of `picture`, whose bytes lie at `pictureAt`, into `line`; everything outside
   * `keep` becomes clear. Without a `memo` colours stay as they are coded. `line` needs room for 16 pixels more than the width. Of the rest than the columns from `first` to `end`
   * nobody asks: what is there then is not said.
   */
  treat(
    picture: Picture,
    pictureAt: number,
    memo: ColourMemo | null,
    keep: PixelRect,
    y: number,
    line: number,
    form: AlphaForm = 'premultiplied',
    first = 0,
    end = picture.widthPx,
  ): void {
    const { widthPx } = picture
    if (picture.format === 'rgba') return this.treatStraight(pictureAt + y * widthPx * 4, widthPx, memo, keep, y, line, form)
    const left = Math.max(keep.left, first)
    const right = Math.min(keep.right, end)
    if (y < keep.top || y >= keep.bottom || right <= left) {
      this.#heap.kernels.fillRow(line + first * 4, end - first, CLEAR)
      return
    }
    this.#reserve(widthPx)
    this.#i420Row(picture, pictureAt, memo, left, right, y, line)
    this.#clearOutside(left, right, first, end, line)
  }

  /** The same for a row of straight pixels in the heap, at `source`; their own alpha thins the result. */
  treatStraight(source: number, widthPx: number, memo: ColourMemo | null, keep: PixelRect, y: number, line: number, form: AlphaForm): void {
    const { kernels } = this.#heap
    if (y < keep.top || y >= keep.bottom || keep.right <= keep.left) {
      kernels.fillRow(line, widthPx, CLEAR)
      return
    }
    this.#reserve(widthPx)
    const missing = this.#missing.at
    if (memo === null) {
      if (form === 'premultiplied') kernels.premultiplyRow(source, line, widthPx)
      else if (source !== line) kernels.copyRows(source, line, widthPx * 4, 0, 1)
    } else if (form === 'straight') {
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
    this.#shares.dispose()
    this.#freeSpace()
  }

  #freeSpace(): void {
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

  #i420Row({ widthPx, heightPx, matrix, range }: I420Picture, at: number, memo: ColourMemo | null, left: number, right: number, y: number, line: number): void {
    const { kernels } = this.#heap
    const chromaWidth = (widthPx + 1) >> 1
    const chromaHeight = (heightPx + 1) >> 1
    const row = y >> 1
    const wanted = (y & 1) === 0 ? row - 1 : row + 1
    const side = wanted < 0 ? 0 : wanted >= chromaHeight ? chromaHeight - 1 : wanted
    const luma = at + y * widthPx
    const cb = at + widthPx * heightPx
    const cr = cb + chromaWidth * chromaHeight
    const cbNear = cb + row * chromaWidth
    const cbSide = cb + side * chromaWidth
    const crNear = cr + row * chromaWidth
    const crSide = cr + side * chromaWidth
    const scratch = this.#scratch.at
    if (memo === null) {
      kernels.decodeI420Row(this.#shares.at(matrix, range), luma, cbNear, cbSide, crNear, crSide, left, right, chromaWidth, scratch, line)
      return
    }
    const missing = this.#missing.at
    const misses = kernels.treatI420Row(memo.at, luma, cbNear, cbSide, crNear, crSide, left, right, chromaWidth, scratch, line, missing)
    if (misses === 0) return
    memo.computeListed(missing, misses)
    this.#fillIn(memo.at, misses)
  }

  #reserve(widthPx: number): void {
    if (widthPx <= this.#maxWidthPx) return
    this.#freeSpace()
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
