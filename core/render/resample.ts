// Premultiplied alpha: averaging straight colours would bring back what a key has cleared.
import type { FloatPicture } from './treat-reference.ts'

/** The picture with colours multiplied by alpha. */
export function premultiply(picture: FloatPicture): FloatPicture {
  const data = picture.data.slice()
  for (let at = 0; at < data.length; at += 4) {
    const alpha = data[at + 3]!
    data[at] = data[at]! * alpha
    data[at + 1] = data[at + 1]! * alpha
    data[at + 2] = data[at + 2]! * alpha
  }
  return { ...picture, data }
}

/** Half the size, each pixel the mean of 2×2; an odd last row or column is dropped. */
export function halve(picture: FloatPicture): FloatPicture {
  const widthPx = Math.max(1, picture.widthPx >> 1)
  const heightPx = Math.max(1, picture.heightPx >> 1)
  const data = new Float64Array(widthPx * heightPx * 4)
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      for (let channel = 0; channel < 4; channel += 1) {
        const from = (column: number, row: number) => picture.data[((2 * y + row) * picture.widthPx + 2 * x + column) * 4 + channel]!
        data[(y * widthPx + x) * 4 + channel] = (from(0, 0) + from(1, 0) + from(0, 1) + from(1, 1)) / 4
      }
    }
  }
  return { widthPx, heightPx, data }
}

/** Writes the bilinear sample at (x, y), pixel centres at ½, edges repeated, into `out[0..3]`. */
export function sampleBilinear(picture: FloatPicture, x: number, y: number, out: Float64Array): void {
  const { widthPx, heightPx, data } = picture
  const px = Math.min(widthPx - 1, Math.max(0, x - 0.5))
  const py = Math.min(heightPx - 1, Math.max(0, y - 0.5))
  const x0 = Math.floor(px)
  const y0 = Math.floor(py)
  const x1 = Math.min(widthPx - 1, x0 + 1)
  const y1 = Math.min(heightPx - 1, y0 + 1)
  const fx = px - x0
  const fy = py - y0
  for (let channel = 0; channel < 4; channel += 1) {
    const upper = data[(y0 * widthPx + x0) * 4 + channel]! * (1 - fx) + data[(y0 * widthPx + x1) * 4 + channel]! * fx
    const lower = data[(y1 * widthPx + x0) * 4 + channel]! * (1 - fx) + data[(y1 * widthPx + x1) * 4 + channel]! * fx
    out[channel] = upper * (1 - fy) + lower * fy
  }
}
