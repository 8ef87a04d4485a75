// A text as a picture: plate, shadow and letters over each other. Browser and server share it; each brings its canvas.
import { fastGaussian } from '../../core/filter/fast-gaussian.ts'
import { parseHex } from '../../core/colour/hex.ts'
import { sigmaOfBlur } from '../../core/composite/shadow.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { TextJob } from '../../core/plan/frame-plan.ts'
import type { TextShadow } from '../../core/text/text-content.ts'
import { drawLetters, drawPlate, type StackOf, type TextPen } from './draw-text.ts'

/** An empty canvas. */
export interface TextCanvas {
  readonly pen: TextPen
  /** Its pixels: RGBA, straight. */
  readonly read: () => Uint8ClampedArray
}
export type OpenCanvas = (widthPx: number, heightPx: number) => TextCanvas

/** The picture of a text. */
export function textPicture({ content, widthPx, heightPx, lettersShown }: TextJob, open: OpenCanvas, stackOf: StackOf): RgbaPicture {
  const canvas = open(widthPx, heightPx)
  drawPlate(canvas.pen, content, widthPx, heightPx)
  const { shadow } = content
  if (shadow === null || shadow.opacity === 0) {
    drawLetters(canvas.pen, content, widthPx, heightPx, { stackOf, lettersShown })
    return { format: 'rgba', widthPx, heightPx, data: canvas.read() }
  }
  // A canvas's own shadow is no gaussian: it is up to 19 of 255 off.
  const letters = open(widthPx, heightPx)
  drawLetters(letters.pen, content, widthPx, heightPx, { stackOf, lettersShown })
  const reach = Math.ceil(3 * sigmaOfBlur(shadow.blurPx))
  const wide = { widthPx: widthPx + 2 * reach, heightPx: heightPx + 2 * reach }
  const cast = open(wide.widthPx, wide.heightPx)
  drawLetters(cast.pen, content, widthPx, heightPx, { stackOf, lettersShown, left: reach + shadow.dx, top: reach + shadow.dy })
  const shade = blurred(alphaOf(cast.read()), wide.widthPx, wide.heightPx, shadow)
  return { format: 'rgba', widthPx, heightPx, data: together(canvas.read(), letters.read(), shade, widthPx, heightPx, reach, shadow) }
}

function alphaOf(pixels: Uint8ClampedArray): Float32Array {
  const out = new Float32Array(pixels.length / 4)
  for (let i = 0; i < out.length; i += 1) out[i] = pixels[i * 4 + 3]! / 255
  return out
}

function blurred(data: Float32Array, widthPx: number, heightPx: number, { blurPx }: TextShadow): Float32Array {
  return fastGaussian({ widthPx, heightPx, data }, sigmaOfBlur(blurPx)).data
}

/** Plate, shadow and letters; `shade` reaches `reach` pixels further on every side. */
function together(
  plate: Uint8ClampedArray,
  letters: Uint8ClampedArray,
  shade: Float32Array,
  widthPx: number,
  heightPx: number,
  reach: number,
  shadow: TextShadow,
): Uint8ClampedArray {
  const colour = parseHex(shadow.colour)
  const out = new Uint8ClampedArray(plate.length)
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const at = (y * widthPx + x) * 4
      const letterAlpha = letters[at + 3]! / 255
      const shadeAlpha = shade[(y + reach) * (widthPx + 2 * reach) + x + reach]! * shadow.opacity * (1 - letterAlpha)
      // Most of a box is empty.
      if (letterAlpha + shadeAlpha === 0 && plate[at + 3] === 0) continue
      const plateAlpha = (plate[at + 3]! / 255) * (1 - letterAlpha - shadeAlpha)
      const alpha = letterAlpha + shadeAlpha + plateAlpha
      if (alpha === 0) continue
      for (let channel = 0; channel < 3; channel += 1) {
        const sum = letters[at + channel]! * letterAlpha + colour[channel]! * 255 * shadeAlpha + plate[at + channel]! * plateAlpha
        out[at + channel] = sum / alpha
      }
      out[at + 3] = alpha * 255
    }
  }
  return out
}
