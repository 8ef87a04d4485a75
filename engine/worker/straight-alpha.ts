import type { RgbaPicture } from '../../core/picture/picture.ts'

/** The picture with colours divided by alpha, as ImageData wants them, in `out`. */
export function straightOf(picture: RgbaPicture, out: Uint8ClampedArray<ArrayBuffer>): RgbaPicture {
  out.set(picture.data)
  for (let at = 0; at < out.length; at += 4) {
    const alpha = out[at + 3]!
    if (alpha === 0 || alpha === 255) continue
    out[at] = (out[at]! * 255) / alpha
    out[at + 1] = (out[at + 1]! * 255) / alpha
    out[at + 2] = (out[at + 2]! * 255) / alpha
  }
  return { ...picture, data: out }
}
