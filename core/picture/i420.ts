// 4:2:0 chroma is taken as centred between its four luma samples and interpolated
// linearly; the interpolated code is rounded to 8 bits. Every executor does the same.
import { ycbcrCoding, ycbcrToRgb, rgbToYcbcr } from '../colour/ycbcr.ts'
import { i420ByteLength, type I420Picture, type RgbaPicture } from './picture.ts'

/** The Cb or Cr code (0..255) at luma position (x, y) of a chroma plane, rounded. */
export function chromaAt(plane: Uint8Array, chromaWidth: number, chromaHeight: number, x: number, y: number): number {
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

/** Writes encoded RGB (0..1, not clipped) of the pixel (x, y) into `out[0..2]`. */
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
  }
}

/** An I420 picture (BT.709 limited range) of an RGBA picture, whose alpha is ignored. */
export function rgbaToI420(source: RgbaPicture): I420Picture {
  const { widthPx, heightPx, data } = source
  const coding = ycbcrCoding('bt709', 'limited')
  const chromaWidth = Math.ceil(widthPx / 2)
  const chromaHeight = Math.ceil(heightPx / 2)
  const lumaLength = widthPx * heightPx
  const planes = new Uint8Array(i420ByteLength(widthPx, heightPx))
  const sums = new Float64Array(chromaWidth * chromaHeight * 2)
  const counts = new Uint8Array(chromaWidth * chromaHeight)
  const codes = new Float64Array(3)
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const at = (y * widthPx + x) * 4
      rgbToYcbcr(coding, data[at]! / 255, data[at + 1]! / 255, data[at + 2]! / 255, codes)
      planes[y * widthPx + x] = Math.round(codes[0]!)
      const chroma = (y >> 1) * chromaWidth + (x >> 1)
      sums[chroma * 2] = sums[chroma * 2]! + codes[1]!
      sums[chroma * 2 + 1] = sums[chroma * 2 + 1]! + codes[2]!
      counts[chroma] = counts[chroma]! + 1
    }
  }
  for (let chroma = 0; chroma < counts.length; chroma += 1) {
    planes[lumaLength + chroma] = Math.round(sums[chroma * 2]! / counts[chroma]!)
    planes[lumaLength + counts.length + chroma] = Math.round(sums[chroma * 2 + 1]! / counts[chroma]!)
  }
  return { format: 'i420', widthPx, heightPx, matrix: 'bt709', range: 'limited', data: planes }
}
