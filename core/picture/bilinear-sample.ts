import type { FloatPicture } from './float-picture.ts'

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
