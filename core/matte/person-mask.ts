// Where the person is, as a model said at a low size, sharpened along the picture's own edges.
import { LUMA_B, LUMA_G, LUMA_R, luma709 } from '../colour/luma.ts'
import { placesBetween } from '../filter/bilinear.ts'
import type { FloatPicture, Plane } from '../picture/float-picture.ts'
import { guidedFilter } from './guided-filter.ts'

/**
 * A guided mask (He, Sun & Tang 2010): opacity is a·luma + b with a and b given at a low size, then steepened.
 * With gain 0 it is a plain mask.
 */
export interface GuidedMask {
  readonly widthPx: number
  readonly heightPx: number
  readonly gain: Float32Array
  readonly offset: Float32Array
}

/** Guided values up to `LOW` are the room, from `HIGH` on the person. */
export const MASK_LOW = 0.2
export const MASK_HIGH = 0.8

/** Radius of the guiding window in mask pixels, and how even a window must be to count as flat. */
export const GUIDE_RADIUS = 4
export const GUIDE_EPSILON = 0.002
/** Pixels looked at for a mean: every second one of every second row, or all of a picture that has few for each mask pixel. */
export function lumaStep(widthPx: number, heightPx: number, columns: number, rows: number): 1 | 2 {
  return widthPx >= 2 * columns && heightPx >= 2 * rows ? 2 : 1
}

/** A plain mask tied to the luma of the picture it lies on; `one` is the value of full white in `data`. */
export function guideMask(mask: Plane, data: ArrayLike<number>, one: number, widthPx: number, heightPx: number): GuidedMask {
  const luma = smallLuma(data, one, widthPx, heightPx, mask.widthPx, mask.heightPx)
  const { gain, offset } = guidedFilter(luma, mask.data, mask.widthPx, mask.heightPx, GUIDE_RADIUS, GUIDE_EPSILON)
  return { widthPx: mask.widthPx, heightPx: mask.heightPx, gain, offset }
}

/** Mean luma of the pixels under each mask pixel; a mask pixel that is smaller than those of the picture takes the one it lies in. */
export function smallLuma(data: ArrayLike<number>, one: number, widthPx: number, heightPx: number, columns: number, rows: number): Float32Array {
  const out = new Float32Array(columns * rows)
  const step = lumaStep(widthPx, heightPx, columns, rows)
  const across = spansOf(widthPx, columns, step)
  const down = spansOf(heightPx, rows, step)
  for (let row = 0; row < rows; row += 1) {
    for (let column = 0; column < columns; column += 1) {
      let sum = 0
      let count = 0
      for (let y = down.from[row]!; y < down.to[row]!; y += step) {
        for (let x = across.from[column]!; x < across.to[column]!; x += step) {
          const at = (y * widthPx + x) * 4
          sum += LUMA_R * data[at]! + LUMA_G * data[at + 1]! + LUMA_B * data[at + 2]!
          count += 1
        }
      }
      out[row * columns + column] = sum / (count * one)
    }
  }
  return out
}

/** The pixels that lie under each of `cells`, beginning at a multiple of `step`; never none. */
function spansOf(pixels: number, cells: number, step: number): { readonly from: Int32Array; readonly to: Int32Array } {
  const from = Int32Array.from({ length: cells }, (_, cell) => Math.ceil(Math.ceil((cell * pixels) / cells) / step) * step)
  const to = Int32Array.from({ length: cells }, (_, cell) => Math.ceil(((cell + 1) * pixels) / cells))
  for (let cell = 0; cell < cells; cell += 1) {
    if (from[cell]! < to[cell]!) continue
    from[cell] = Math.floor(((2 * cell + 1) * pixels) / (2 * cells))
    to[cell] = from[cell]! + 1
  }
  return { from, to }
}

/** Smooth step from 0 at MASK_LOW to 1 at MASK_HIGH. */
export function steepen(value: number): number {
  const share = (value - MASK_LOW) / (MASK_HIGH - MASK_LOW)
  const t = share < 0 ? 0 : share > 1 ? 1 : share
  return t * t * (3 - 2 * t)
}

/** The person's opacity at every pixel of a picture. */
export function personOpacity(mask: GuidedMask, picture: FloatPicture): Plane {
  const { widthPx, heightPx, data } = picture
  const columns = placesBetween(widthPx, mask.widthPx)
  const rows = placesBetween(heightPx, mask.heightPx)
  const out = new Float64Array(widthPx * heightPx)
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const i = y * widthPx + x
      const sample = (plane: Float32Array) => {
        const top = rows.below[y]! * mask.widthPx
        const bottom = rows.above[y]! * mask.widthPx
        const share = columns.share[x]!
        const upper = plane[top + columns.below[x]!]! * (1 - share) + plane[top + columns.above[x]!]! * share
        const lower = plane[bottom + columns.below[x]!]! * (1 - share) + plane[bottom + columns.above[x]!]! * share
        return upper * (1 - rows.share[y]!) + lower * rows.share[y]!
      }
      out[i] = steepen(sample(mask.gain) * luma709(data[i * 4]!, data[i * 4 + 1]!, data[i * 4 + 2]!) + sample(mask.offset))
    }
  }
  return { widthPx, heightPx, data: out }
}
