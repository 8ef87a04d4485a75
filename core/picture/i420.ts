// 4:2:0 chroma is taken as centred between its four luma samples and interpolated
// linearly; the interpolated code is rounded to 8 bits. Every executor does the same.
import { ycbcrCoding, ycbcrToRgb } from '../colour/ycbcr.ts'
import { clamp01 } from './float-picture.ts'
import type { I420Picture } from './picture.ts'

/** The Cb or Cr code (0..255) at luma position (x, y) of a chroma plane, rounded. */
function chromaAt(plane: Uint8Array, chromaWidth: number, chromaHeight: number, x: number, y: number): number {
  const column = x >> 1
  const row = y >> 1
  const sideColumn = clampIndex(column + ((x & 1) === 0 ? -1 : 1), chromaWidth)
  const sideRow = clampIndex(row + ((y & 1) === 0 ? -1 : 1), chromaHeight)
  const near = 3 * plane[row * chromaWidth + column]! + plane[sideRow * chromaWidth + column]!
  const far = 3 * plane[row * chromaWidth + sideColumn]! + plane[sideRow * chromaWidth + sideColumn]!
  return (3 * near + far + 8) >> 4
}

function clampIndex(index: number, length: number): number {
  return index < 0 ? 0 : index >= length ? length - 1 : index
}

/** Writes encoded RGB of the pixel (x, y) into `out[0..2]`: clipped to 0..1, so that a chain of steps may be split anywhere. */
export function i420Reader(picture: I420Picture): (x: number, y: number, out: Float64Array) => void {
  const { widthPx, heightPx, data } = picture
  const coding = ycbcrCoding(picture.matrix, picture.range)
  const chromaWidth = Math.ceil(widthPx / 2)
  const chromaHeight = Math.ceil(heightPx / 2)
  const lumaLength = widthPx * heightPx
  const chromaLength = chromaWidth * chromaHeight
  const cb = data.subarray(lumaLength, lumaLength + chromaLength)
  const cr = data.subarray(lumaLength + chromaLength, lumaLength + 2 * chromaLength)
  return (x, y, out) => {
    ycbcrToRgb(coding, data[y * widthPx + x]!, chromaAt(cb, chromaWidth, chromaHeight, x, y), chromaAt(cr, chromaWidth, chromaHeight, x, y), out)
    for (let channel = 0; channel < 3; channel += 1) out[channel] = clamp01(out[channel]!)
  }
}
