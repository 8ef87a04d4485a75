// A drawn outline as a picture: what is inside it filled, its stroke over that.
import { parseHex } from '../colour/hex.ts'
import { gradientAt, type Gradient } from '../paint/gradient.ts'
import type { RgbaPicture } from '../picture/picture.ts'
import { insideShares, strokeShares } from './outline-coverage.ts'
import { readOutline } from './read-outline.ts'

/** What fills an outline: a colour, straight, sRGB-encoded, 0..1; or a gradient in pixels of the picture. */
export type OutlineFill =
  { readonly kind: 'plain'; readonly colour: string; readonly opacity: number } | { readonly kind: 'gradient'; readonly gradient: Gradient }

export interface OutlineStroke {
  readonly widthPx: number
  readonly colour: string
  readonly opacity: number
}

/** An outline to be drawn as large as it is seen. */
export interface DrawnOutline {
  /** Path data of SVG, in a box of `boxWidth` × `boxHeight`, which is stretched over the picture but for `padPx` on every side. */
  readonly data: string
  readonly boxWidth: number
  readonly boxHeight: number
  readonly padPx: number
  readonly fill: OutlineFill
  readonly stroke: OutlineStroke | null
}

/** A pixel as it lies in memory: red first. */
function packed(colour: readonly [number, number, number], opacity: number): number {
  const bytes = Uint8ClampedArray.of(colour[0] * 255, colour[1] * 255, colour[2] * 255, opacity * 255)
  return opacity === 0 ? 0 : new Uint32Array(bytes.buffer)[0]!
}

/** Draws it. Throws an OutlineError for data that cannot be read. */
export function outlinePicture({ data, boxWidth, boxHeight, padPx, fill, stroke }: DrawnOutline, widthPx: number, heightPx: number): RgbaPicture {
  const contours = readOutline(data, (widthPx - 2 * padPx) / boxWidth, (heightPx - 2 * padPx) / boxHeight, padPx)
  const inside = insideShares(contours, widthPx, heightPx)
  const edge = stroke === null || stroke.opacity === 0 || stroke.widthPx === 0 ? null : strokeShares(contours, widthPx, heightPx, stroke.widthPx / 2)
  const [strokeRed, strokeGreen, strokeBlue] = parseHex(stroke?.colour ?? '#000000')
  const plain = fill.kind === 'plain' ? parseHex(fill.colour) : null
  // Premultiplied.
  const paint = new Float64Array(4)
  const picture = new Uint8ClampedArray(widthPx * heightPx * 4)
  // Most pixels are wholly inside, and of one colour all the same.
  const words = new Uint32Array(picture.buffer)
  const whole = plain === null || fill.kind !== 'plain' ? null : packed(plain, fill.opacity)
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const at = y * widthPx + x
      const share = inside[at]!
      const over = edge === null ? 0 : edge[at]! * stroke!.opacity
      if (share === 0 && over === 0) continue
      if (share === 1 && over === 0 && whole !== null) {
        words[at] = whole
        continue
      }
      if (fill.kind === 'gradient') gradientAt(fill.gradient, x + 0.5, y + 0.5, paint)
      else {
        for (let channel = 0; channel < 3; channel += 1) paint[channel] = plain![channel]! * fill.opacity
        paint[3] = fill.opacity
      }
      const under = share * (1 - over)
      const alpha = over + under * paint[3]!
      if (alpha === 0) continue
      picture[at * 4] = (255 * (over * strokeRed + under * paint[0]!)) / alpha
      picture[at * 4 + 1] = (255 * (over * strokeGreen + under * paint[1]!)) / alpha
      picture[at * 4 + 2] = (255 * (over * strokeBlue + under * paint[2]!)) / alpha
      picture[at * 4 + 3] = 255 * alpha
    }
  }
  return { format: 'rgba', widthPx, heightPx, data: picture }
}
