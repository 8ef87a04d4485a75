// A chain of colour functions as one table over 24-bit codes, filled the first time a code is met.
// A camera picture holds some ten thousand different codes of the sixteen million, so the table is
// exact, costs one look-up a pixel, and is ready within a frame or two after a slider moves.
import { ycbcrCoding, ycbcrToRgb, type YcbcrMatrix, type YcbcrRange } from '../../core/colour/ycbcr.ts'
import type { PointFunction } from '../../core/steps/step.ts'
import type { Block, Heap } from './heap.ts'

/** What the 24 bits of a code mean: luma, blue and red difference from the high byte down, or a packed pixel without its alpha. */
export type CodeSpace = 'rgb' | { readonly matrix: YcbcrMatrix; readonly range: YcbcrRange }
/** Whether entries hold colour multiplied by alpha. Straight ones keep the colour of clear pixels. */
export type AlphaForm = 'straight' | 'premultiplied'

/** Stands for "fully clear": an entry of 0 is not known yet. */
export const CLEAR = 1

const CODES = 1 << 24
const PAGE_BITS = 12

/** A lazily filled table of 2²⁴ packed RGBA entries (red in the low byte). */
export class ColourMemo {
  readonly #heap: Heap
  readonly #block: Block
  readonly #firstWord: number
  readonly #usedPages = new Uint8Array(CODES >> PAGE_BITS)
  readonly #pixel = new Float64Array(4)
  #points: readonly PointFunction[] = []
  #form: AlphaForm = 'premultiplied'
  #toRgb: (code: number, pixel: Float64Array) => void = rgbCodeToRgb

  constructor(heap: Heap) {
    this.#heap = heap
    this.#block = heap.allocateZeroed(CODES * 4)
    this.#firstWord = this.#block.at >> 2
  }

  /** Where the table starts, for kernels. */
  get at(): number {
    return this.#block.at
  }

  /** Forgets all entries and takes on another chain. */
  reset(points: readonly PointFunction[], space: CodeSpace, form: AlphaForm): void {
    this.#points = points
    this.#form = form
    this.#toRgb = space === 'rgb' ? rgbCodeToRgb : ycbcrCodeReader(space.matrix, space.range)
    for (let page = 0; page < this.#usedPages.length; page += 1) {
      if (this.#usedPages[page] === 0) continue
      const from = this.#firstWord + (page << PAGE_BITS)
      this.#heap.words.fill(0, from, from + (1 << PAGE_BITS))
      this.#usedPages[page] = 0
    }
  }

  /** Fills in the entries of `count` places listed from `at`, each followed by an address that does not matter here. */
  computeListed(at: number, count: number): void {
    const { words } = this.#heap
    const pixel = this.#pixel
    for (let i = 0; i < count; i += 1) {
      const place = words[(at >> 2) + 2 * i]!
      if (words[this.#firstWord + place] !== 0) continue
      this.#toRgb(codeAtPlace(place), pixel)
      pixel[3] = 1
      for (let j = 0; j < this.#points.length; j += 1) this.#points[j]!(pixel)
      words[this.#firstWord + place] = packEntry(pixel, this.#form)
      this.#usedPages[place >>> PAGE_BITS] = 1
    }
  }

  dispose(): void {
    this.#heap.free(this.#block)
  }
}

/**
 * The 24-bit code of a place in a table: entries of colours that are close lie close, the high halves of the three bytes
 * choosing one of 4096 pages (kernels/kernels.ts, placeOf).
 */
export function codeAtPlace(place: number): number {
  const high = place >>> 12
  return ((high & 0xf00) << 12) | ((high & 0xf0) << 8) | ((high & 0xf) << 4) | ((place & 0xf00) << 8) | ((place & 0xf0) << 4) | (place & 0xf)
}

function packEntry(pixel: Float64Array, form: AlphaForm): number {
  const alpha = byte(pixel[3]!)
  if (form === 'premultiplied' && alpha === 0) return CLEAR
  const scale = form === 'premultiplied' ? clamp01(pixel[3]!) : 1
  const red = byte(clamp01(pixel[0]!) * scale)
  const green = byte(clamp01(pixel[1]!) * scale)
  const blue = byte(clamp01(pixel[2]!) * scale)
  const packed = ((alpha << 24) | (blue << 16) | (green << 8) | red) >>> 0
  // Later work may want the colour of a clear pixel; only pure black must give way to what stands for "clear".
  return packed === 0 ? CLEAR : packed
}

function rgbCodeToRgb(code: number, pixel: Float64Array): void {
  pixel[0] = (code & 255) / 255
  pixel[1] = ((code >>> 8) & 255) / 255
  pixel[2] = (code >>> 16) / 255
}

function ycbcrCodeReader(matrix: YcbcrMatrix, range: YcbcrRange) {
  const coding = ycbcrCoding(matrix, range)
  return (code: number, pixel: Float64Array): void => {
    ycbcrToRgb(coding, code >>> 16, (code >>> 8) & 255, code & 255, pixel)
    // As core/picture/i420.ts has it.
    for (let channel = 0; channel < 3; channel += 1) pixel[channel] = clamp01(pixel[channel]!)
  }
}

function byte(value: number): number {
  return Math.round(clamp01(value) * 255)
}

function clamp01(value: number): number {
  return value < 0 ? 0 : value > 1 ? 1 : value
}
