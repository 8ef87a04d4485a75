// Strokes over one another as a picture, and the same picture again after one of them came or went.
import { LRUCache } from 'lru-cache'
import { parseHex } from '../colour/hex.ts'
import { insideShares } from '../outline/outline-coverage.ts'
import type { PixelRect, RgbaPicture } from '../picture/picture.ts'
import { EMPTY_RECT, isEmptyRect, meeting, unionOf, uniteRects } from '../picture/pixel-rect.ts'
import { strokeContours } from './stroke-contours.ts'
import { strokeOpacity, type Stroke } from './stroke.ts'

/** A part of a surface as a picture; straight alpha. */
export interface DrawnPicture {
  /** Where its first pixel lies on the surface. */
  readonly x: number
  readonly y: number
  readonly picture: RgbaPicture
}

/** How much of each pixel a stroke covers, 0..255, within the rectangle that holds it. */
interface StrokeCover {
  readonly rect: PixelRect
  readonly shares: Uint8Array
}

/** Lines a row on which strokes are looked at where they cross themselves: steps of an eighth are not seen there. */
const LINES = 8
/** Samples beyond the edge of a picture repeat it: it must be clear. */
const PAD_PX = 1
const COVER_BYTES = 32 * 1024 * 1024

/** The strokes of one surface, drawn. What a set of strokes looks like does not depend on how it came about. */
export class StrokesCanvas {
  readonly widthPx: number
  readonly heightPx: number
  readonly #pixels: Uint8ClampedArray<ArrayBuffer>
  readonly #covers = new LRUCache<Stroke, StrokeCover>({ maxSize: COVER_BYTES, sizeCalculation: ({ shares }) => Math.max(1, shares.length) })
  #strokes: readonly Stroke[] = []
  /** Of each stroke, by its place in the list. */
  #rects: readonly PixelRect[] = []

  /** A surface in whole pixels, at least one each way. */
  constructor(widthPx: number, heightPx: number) {
    this.widthPx = widthPx
    this.heightPx = heightPx
    this.#pixels = new Uint8ClampedArray(widthPx * heightPx * 4)
  }

  /** Draws these strokes instead of those before, from the lowest to the topmost; only where they differ. False where nothing changes. */
  show(strokes: readonly Stroke[]): boolean {
    const before = this.#strokes
    let same = 0
    while (same < strokes.length && strokes[same] === before[same]) same += 1
    if (same === strokes.length && same === before.length) return false
    const covers = strokes.slice(same).map((stroke) => this.#coverOf(stroke))
    const rects = [...this.#rects.slice(0, same), ...covers.map(({ rect }) => rect)]
    const gone = unionOf(this.#rects.slice(same))
    this.#strokes = strokes
    this.#rects = rects
    if (isEmptyRect(gone)) {
      strokes.slice(same).forEach((stroke, index) => this.#paint(stroke, covers[index]!, this.#whole))
      return true
    }
    // Where anything lay above the first that differs, all of it is drawn again.
    const damaged = uniteRects(gone, unionOf(rects.slice(same)))
    this.#wipe(damaged)
    strokes.forEach((stroke, index) => {
      if (!isEmptyRect(meeting(rects[index]!, damaged))) this.#paint(stroke, this.#coverOf(stroke), damaged)
    })
    return true
  }

  /** What is drawn, as small as holds it with a clear pixel on every side; null where nothing is. */
  picture(): DrawnPicture | null {
    const rect = unionOf(this.#rects)
    if (isEmptyRect(rect)) return null
    const drawn = clearPicture(rect)
    const rowBytes = (rect.right - rect.left) * 4
    for (let y = rect.top; y < rect.bottom; y += 1) {
      const from = (y * this.widthPx + rect.left) * 4
      drawn.picture.data.set(this.#pixels.subarray(from, from + rowBytes), ((y - rect.top + PAD_PX) * drawn.picture.widthPx + PAD_PX) * 4)
    }
    return drawn
  }

  get #whole(): PixelRect {
    return { left: 0, top: 0, right: this.widthPx, bottom: this.heightPx }
  }

  #coverOf(stroke: Stroke): StrokeCover {
    const known = this.#covers.get(stroke)
    if (known !== undefined) return known
    const cover = coverOf(stroke, this.widthPx, this.heightPx)
    this.#covers.set(stroke, cover)
    return cover
  }

  #wipe({ left, top, right, bottom }: PixelRect): void {
    for (let y = top; y < bottom; y += 1) this.#pixels.fill(0, (y * this.widthPx + left) * 4, (y * this.widthPx + right) * 4)
  }

  /** Source over, W3C Compositing and Blending Level 1 §5.1, on straight eight-bit colours. */
  #paint(stroke: Stroke, { rect, shares }: StrokeCover, clip: PixelRect): void {
    const { left, top, right, bottom } = meeting(rect, clip)
    const opacity = strokeOpacity(stroke.tool) / 255
    const [red, green, blue] = parseHex(stroke.colour)
    const pixels = this.#pixels
    for (let y = top; y < bottom; y += 1) {
      let share = (y - rect.top) * (rect.right - rect.left) + left - rect.left
      let at = (y * this.widthPx + left) * 4
      for (let x = left; x < right; x += 1, share += 1, at += 4) {
        if (shares[share] === 0) continue
        const over = shares[share]! * opacity
        const under = (pixels[at + 3]! / 255) * (1 - over)
        const alpha = over + under
        pixels[at] = (red * 255 * over + pixels[at]! * under) / alpha
        pixels[at + 1] = (green * 255 * over + pixels[at + 1]! * under) / alpha
        pixels[at + 2] = (blue * 255 * over + pixels[at + 2]! * under) / alpha
        pixels[at + 3] = alpha * 255
      }
    }
  }
}

/** One stroke by itself, on a surface of that size; null where nothing of it lies inside. */
export function strokePicture(stroke: Stroke, widthPx: number, heightPx: number): DrawnPicture | null {
  const { rect, shares } = coverOf(stroke, widthPx, heightPx)
  if (isEmptyRect(rect)) return null
  const [red, green, blue] = parseHex(stroke.colour)
  const opacity = strokeOpacity(stroke.tool)
  const drawn = clearPicture(rect)
  const { data, widthPx: rowPx } = drawn.picture
  const width = rect.right - rect.left
  for (let share = 0; share < shares.length; share += 1) {
    if (shares[share] === 0) continue
    const at = ((Math.floor(share / width) + PAD_PX) * rowPx + (share % width) + PAD_PX) * 4
    data[at] = red * 255
    data[at + 1] = green * 255
    data[at + 2] = blue * 255
    data[at + 3] = shares[share]! * opacity
  }
  return drawn
}

/** A picture of what lies in a rectangle, with room for the clear pixels round it. */
function clearPicture({ left, top, right, bottom }: PixelRect): DrawnPicture {
  const [widthPx, heightPx] = [right - left + 2 * PAD_PX, bottom - top + 2 * PAD_PX]
  return { x: left - PAD_PX, y: top - PAD_PX, picture: { format: 'rgba', widthPx, heightPx, data: new Uint8ClampedArray(widthPx * heightPx * 4) } }
}

/** The same numbers for a stroke whatever else is drawn: worked out from the corner of its own rectangle. */
function coverOf(stroke: Stroke, widthPx: number, heightPx: number): StrokeCover {
  const contours = strokeContours(stroke, widthPx, heightPx)
  const rect = meeting(boundsOf(contours), { left: 0, top: 0, right: widthPx, bottom: heightPx })
  if (isEmptyRect(rect)) return { rect: EMPTY_RECT, shares: new Uint8Array(0) }
  const moved = contours.map((contour) => ({ ...contour, points: contour.points.map((value, index) => value - (index % 2 === 0 ? rect.left : rect.top)) }))
  const exact = insideShares(moved, rect.right - rect.left, rect.bottom - rect.top, LINES)
  const shares = new Uint8Array(exact.length)
  for (let at = 0; at < exact.length; at += 1) shares[at] = Math.round(exact[at]! * 255)
  return { rect, shares }
}

function boundsOf(contours: readonly { readonly points: Float64Array }[]): PixelRect {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity]
  for (const { points } of contours) {
    for (let i = 0; i < points.length; i += 2) {
      left = Math.min(left, points[i]!)
      right = Math.max(right, points[i]!)
      top = Math.min(top, points[i + 1]!)
      bottom = Math.max(bottom, points[i + 1]!)
    }
  }
  return { left: Math.floor(left), top: Math.floor(top), right: Math.ceil(right), bottom: Math.ceil(bottom) }
}
