import { ycbcrCoding, ycbcrToRgb } from '../../core/colour/ycbcr.ts'
import type { I420Picture, Picture, RgbaPicture } from '../../core/picture/picture.ts'

/** Samples a side in each small pixel: four are enough against shimmer. */
const SAMPLES = 2

/** A picture at a small size as RGBA bytes, each pixel the mean of a few of the large one; chroma is taken once. */
export function shrinkPicture(picture: Picture, widthPx: number, heightPx: number): Uint8ClampedArray<ArrayBuffer> {
  const out = new Uint8ClampedArray(widthPx * heightPx * 4)
  // Where the samples of each small column and row lie in the large picture.
  const columns = samplePlaces(picture.widthPx, widthPx)
  const rows = samplePlaces(picture.heightPx, heightPx)
  if (picture.format === 'rgba') shrinkRgba(picture, widthPx, heightPx, columns, rows, out)
  else shrinkI420(picture, widthPx, heightPx, columns, rows, out)
  return out
}

function samplePlaces(large: number, small: number): Int32Array {
  return Int32Array.from({ length: small * SAMPLES }, (_, i) => Math.floor(((i + 0.5) * large) / (small * SAMPLES)))
}

function shrinkRgba(
  { widthPx: large, data }: RgbaPicture,
  widthPx: number,
  heightPx: number,
  columns: Int32Array,
  rows: Int32Array,
  out: Uint8ClampedArray,
): void {
  for (let y = 0; y < heightPx; y += 1) {
    const first = rows[y * SAMPLES]! * large
    const second = rows[y * SAMPLES + 1]! * large
    for (let x = 0; x < widthPx; x += 1) {
      const left = columns[x * SAMPLES]!
      const right = columns[x * SAMPLES + 1]!
      const at = (y * widthPx + x) * 4
      for (let channel = 0; channel < 3; channel += 1) {
        const sum =
          data[(first + left) * 4 + channel]! +
          data[(first + right) * 4 + channel]! +
          data[(second + left) * 4 + channel]! +
          data[(second + right) * 4 + channel]!
        out[at + channel] = sum / 4
      }
      out[at + 3] = 255
    }
  }
}

function shrinkI420(picture: I420Picture, widthPx: number, heightPx: number, columns: Int32Array, rows: Int32Array, out: Uint8ClampedArray): void {
  const { widthPx: large, heightPx: largeHeight, data } = picture
  const coding = ycbcrCoding(picture.matrix, picture.range)
  const chromaWidth = (large + 1) >> 1
  const cb = large * largeHeight
  const cr = cb + chromaWidth * ((largeHeight + 1) >> 1)
  const pixel = new Float64Array(3)
  for (let y = 0; y < heightPx; y += 1) {
    const first = rows[y * SAMPLES]! * large
    const second = rows[y * SAMPLES + 1]! * large
    const chromaRow = (rows[y * SAMPLES + 1]! >> 1) * chromaWidth
    for (let x = 0; x < widthPx; x += 1) {
      const left = columns[x * SAMPLES]!
      const right = columns[x * SAMPLES + 1]!
      const luma = (data[first + left]! + data[first + right]! + data[second + left]! + data[second + right]!) / 4
      const chroma = chromaRow + (right >> 1)
      ycbcrToRgb(coding, luma, data[cb + chroma]!, data[cr + chroma]!, pixel)
      const at = (y * widthPx + x) * 4
      out[at] = pixel[0]! * 255
      out[at + 1] = pixel[1]! * 255
      out[at + 2] = pixel[2]! * 255
      out[at + 3] = 255
    }
  }
}
