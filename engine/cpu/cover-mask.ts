// Coverage of an item as spans per row; fully covered spans store no bytes.
import { edgeRevealAt, type EdgeReveal } from '../../core/composite/coverage.ts'
import type { PixelRect } from '../../core/picture/picture.ts'
import type { Item } from '../../core/plan/frame-plan.ts'
import { ShareMeter } from './share-meter.ts'

/** Numbers a span: first column, column after the last (both of the bounds), and where its bytes begin. */
export const SPAN_NUMBERS = 3
/** In place of where bytes begin: all of the span is covered. */
export const SOLID = -1

/** Where the bytes of wholly covered pixels of a faint item begin. */
export const FAINT = 0

export interface CoverMask {
  readonly widthPx: number
  readonly heightPx: number
  /** Index of the first span of each row, with one extra entry at the end. */
  readonly rowStarts: Int32Array
  readonly spans: Int32Array
  /** One byte a pixel, 255 wholly covered. Its beginning is a row of equal bytes where an item is equally faint. */
  readonly bytes: Uint8Array
  /** Whether it is of an item that is equally faint. */
  readonly isFaint: boolean
}

/** Equal for two masks with equal spans and bytes, wherever on their stack they lie. */
export function maskKey({ coverage, toCoverage, bounds, opacity }: Item): string {
  const { shape, strokePx, sigmaPx, hole, reveal } = coverage
  const { a, b, c, d } = toCoverage
  const left = rounded(a * bounds.left + c * bounds.top + toCoverage.e)
  const top = rounded(b * bounds.left + d * bounds.top + toCoverage.f)
  const form = shape.kind === 'roundedRect' ? `r${shape.cornerRadius}` : `s${shape.exponent}`
  const edge = reveal?.kind === 'edge' ? `${reveal.a},${reveal.b},${rounded(reveal.a * bounds.left + reveal.b * bounds.top + reveal.c)}` : ''
  const size = `${bounds.right - bounds.left}×${bounds.bottom - bounds.top}`
  return `mask ${form} ${shape.width}×${shape.height} ${strokePx ?? ''} ${sigmaPx} ${hole?.dx ?? ''},${hole?.dy ?? ''} ${edge} ${a},${b},${c},${d} ${left},${top} ${size} ${opacity}`
}

function rounded(value: number): number {
  return Math.round(value * 1e6) / 1e6
}

/** Works the mask of an item out; a reveal by another picture is not in it. */
export function coverMask(item: Item): CoverMask {
  const { coverage, toCoverage, bounds, opacity } = item
  const builder = new MaskBuilder(bounds, opacity)
  const edge = coverage.reveal?.kind === 'edge' ? coverage.reveal : null
  const isBox = isWholeBox(item)
  const alike = edge === null || edge.b === 0 ? alikeRows(item) : NO_ROWS
  const measure = new ShareMeter(coverage, toCoverage)
  for (let y = bounds.top; y < bounds.bottom; y += 1) {
    if (y > bounds.top && y > alike.from && y < alike.to) builder.repeatRow()
    else if (isBox) addRevealed(builder, bounds.left, edge, bounds.left, bounds.right, y, 1)
    else {
      measure.row(y)
      for (let x = bounds.left; x < bounds.right;) {
        const share = measure.shareAt(x)
        const count = Math.min(measure.reach, bounds.right - x)
        addRevealed(builder, bounds.left, edge, x, x + count, y, share)
        x += count
      }
    }
    builder.endRow()
  }
  return builder.finish()
}

const NO_ROWS = { from: 0, to: 0 }
/** So far from the top and the bottom of a shadow its rows are level. */
const SHADOW_ROW_SIGMAS = 4.5

/** The rows of a stack that an upright box, a ring round one or its shadow covers alike: those between its corners. */
function alikeRows({ coverage: { shape, strokePx, sigmaPx, hole }, toCoverage: { a, b, f } }: Item) {
  if (shape.kind !== 'roundedRect' || (hole !== null && sigmaPx === 0) || a !== 1 || b !== 0) return NO_ROWS
  // A pixel is covered otherwise only within its reach of something that bends, or of an edge along the row; of a shadow, within its softness.
  const inset = Math.max(shape.cornerRadius, strokePx ?? 0) + sigmaPx * SHADOW_ROW_SIGMAS + Math.abs(hole?.dy ?? 0)
  return { from: Math.ceil(inset - f + 1), to: Math.floor(shape.height - inset - f - 1) }
}

/** Whether an item (ignoring its reveal) fully covers every pixel of its bounds: an upright box on whole pixels. */
function isWholeBox({ coverage: { shape, strokePx, sigmaPx, hole }, toCoverage: { a, b, e, f }, bounds }: Item): boolean {
  if (shape.kind !== 'roundedRect' || shape.cornerRadius !== 0 || strokePx !== null || sigmaPx !== 0 || hole !== null || a !== 1 || b !== 0) return false
  return bounds.left + e >= 0 && bounds.top + f >= 0 && bounds.right + e <= shape.width && bounds.bottom + f <= shape.height
}

/** Pixels of one share, as far as an edge uncovers them: none, a ramp, all, or the other way round. */
function addRevealed(builder: MaskBuilder, boundsLeft: number, edge: EdgeReveal | null, from: number, to: number, y: number, share: number): void {
  if (edge === null || share === 0) return builder.add(from - boundsLeft, to - from, share)
  const { a } = edge
  const first = edgeRevealAt(edge, from + 0.5, y + 0.5)
  if (a === 0) return builder.add(from - boundsLeft, to - from, share * first)
  // Along a row the edge's share is a·x + d, which reaches 0 and 1 at two places.
  const d = edge.b * (y + 0.5) + edge.c
  const atZero = -d / a - 0.5
  const atOne = (1 - d) / a - 0.5
  const rampFrom = Math.min(to, Math.max(from, Math.floor(Math.min(atZero, atOne))))
  const rampTo = Math.min(to, Math.max(rampFrom, Math.ceil(Math.max(atZero, atOne)) + 1))
  if (rampFrom > from) builder.add(from - boundsLeft, rampFrom - from, share * first)
  builder.addRamp(rampFrom - boundsLeft, rampTo - rampFrom, share, a, a * (rampFrom + 0.5) + d)
  if (to > rampTo) builder.add(rampTo - boundsLeft, to - rampTo, share * edgeRevealAt(edge, to - 0.5, y + 0.5))
}

class MaskBuilder {
  readonly #widthPx: number
  readonly #heightPx: number
  readonly #opacity: number
  readonly #rowStarts: Int32Array
  #spans = new Int32Array(256)
  #bytes: Uint8Array
  #spanCount = 0
  #byteCount: number
  #row = 0
  /** Whether the last span of this row takes bytes of its own. */
  #isOpen = false

  constructor({ left, top, right, bottom }: PixelRect, opacity: number) {
    this.#widthPx = Math.max(0, right - left)
    this.#heightPx = Math.max(0, bottom - top)
    this.#opacity = opacity
    this.#rowStarts = new Int32Array(this.#heightPx + 1)
    // Of a faint item the first bytes are those of wholly covered pixels.
    this.#byteCount = opacity === 1 ? 0 : this.#widthPx
    this.#bytes = new Uint8Array(Math.max(1024, this.#byteCount)).fill(Math.round(opacity * 255))
  }

  /** `count` pixels of one share, from a column of the bounds on. */
  add(from: number, count: number, share: number): void {
    if (share >= 1) {
      const at = this.#opacity === 1 ? SOLID : FAINT
      const last = this.#spanCount * SPAN_NUMBERS - SPAN_NUMBERS
      if (!this.#isOpen && this.#spanCount > this.#rowStarts[this.#row]! && this.#spans[last + 1] === from) this.#spans[last + 1] = from + count
      else this.#span(from, count, at)
      this.#isOpen = false
      return
    }
    const value = Math.round(share * this.#opacity * 255)
    if (value === 0) {
      this.#isOpen = false
      return
    }
    if (!this.#isOpen) this.#span(from, 0, this.#byteCount)
    this.#isOpen = true
    this.#reserve(count)
    if (count === 1) this.#bytes[this.#byteCount] = value
    else this.#bytes.fill(value, this.#byteCount, this.#byteCount + count)
    this.#byteCount += count
    this.#spans[this.#spanCount * SPAN_NUMBERS - SPAN_NUMBERS + 1] = from + count
  }

  /** `count` pixels whose share grows by `step`, times `share`; the first one's is `from01`, and none leaves 0..1. */
  addRamp(from: number, count: number, share: number, step: number, from01: number): void {
    if (count <= 0) return
    if (!this.#isOpen) this.#span(from, 0, this.#byteCount)
    this.#isOpen = true
    this.#reserve(count)
    const scale = share * this.#opacity * 255
    const bytes = this.#bytes
    const start = this.#byteCount
    for (let i = 0; i < count; i += 1) bytes[start + i] = Math.round(Math.min(1, Math.max(0, from01 + step * i)) * scale)
    this.#byteCount += count
    this.#spans[this.#spanCount * SPAN_NUMBERS - SPAN_NUMBERS + 1] = from + count
  }

  /** The spans of the row before once more, with the same bytes. */
  repeatRow(): void {
    for (let index = this.#rowStarts[this.#row - 1]!; index < this.#rowStarts[this.#row]!; index += 1) {
      const at = index * SPAN_NUMBERS
      this.#span(this.#spans[at]!, this.#spans[at + 1]! - this.#spans[at]!, this.#spans[at + 2]!)
    }
  }

  endRow(): void {
    this.#row += 1
    this.#rowStarts[this.#row] = this.#spanCount
    this.#isOpen = false
  }

  finish(): CoverMask {
    return {
      widthPx: this.#widthPx,
      heightPx: this.#heightPx,
      rowStarts: this.#rowStarts,
      spans: this.#spans.slice(0, this.#spanCount * SPAN_NUMBERS),
      bytes: this.#bytes.slice(0, this.#byteCount),
      isFaint: this.#opacity !== 1,
    }
  }

  #span(from: number, count: number, at: number): void {
    const index = this.#spanCount * SPAN_NUMBERS
    if (index + SPAN_NUMBERS > this.#spans.length) {
      const grown = new Int32Array(this.#spans.length * 2)
      grown.set(this.#spans)
      this.#spans = grown
    }
    this.#spans[index] = from
    this.#spans[index + 1] = from + count
    this.#spans[index + 2] = at
    this.#spanCount += 1
  }

  #reserve(count: number): void {
    if (this.#byteCount + count <= this.#bytes.length) return
    const grown = new Uint8Array(Math.max(this.#bytes.length * 2, this.#byteCount + count))
    grown.set(this.#bytes)
    this.#bytes = grown
  }
}
