import { ycbcrCoding, ycbcrToRgb } from '../../core/colour/ycbcr.ts'
import type { Picture } from '../../core/picture/picture.ts'

/** Samples a side in each small pixel: four are enough against shimmer. */
const SAMPLES = 2

/** A picture at a small size as RGBA bytes, each pixel the mean of a few of the large one. */
export function shrinkPicture(picture: Picture, widthPx: number, heightPx: number): Uint8ClampedArray<ArrayBuffer> {
  const out = new Uint8ClampedArray(widthPx * heightPx * 4)
  const read = reader(picture)
  const pixel = new Float64Array(3)
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const at = (y * widthPx + x) * 4
      let red = 0
      let green = 0
      let blue = 0
      for (let j = 0; j < SAMPLES; j += 1) {
        const sourceY = Math.floor(((y + (j + 0.5) / SAMPLES) * picture.heightPx) / heightPx)
        for (let i = 0; i < SAMPLES; i += 1) {
          read(Math.floor(((x + (i + 0.5) / SAMPLES) * picture.widthPx) / widthPx), sourceY, pixel)
          red += pixel[0]!
          green += pixel[1]!
          blue += pixel[2]!
        }
      }
      out[at] = (red * 255) / SAMPLES ** 2
      out[at + 1] = (green * 255) / SAMPLES ** 2
      out[at + 2] = (blue * 255) / SAMPLES ** 2
      out[at + 3] = 255
    }
  }
  return out
}

/** Colour 0..1 of whole pixels, chroma taken from the nearest sample. */
function reader(picture: Picture): (x: number, y: number, out: Float64Array) => void {
  const { widthPx, heightPx, data } = picture
  if (picture.format === 'rgba') {
    return (x, y, out) => {
      const at = (y * widthPx + x) * 4
      for (let channel = 0; channel < 3; channel += 1) out[channel] = data[at + channel]! / 255
    }
  }
  const coding = ycbcrCoding(picture.matrix, picture.range)
  const chromaWidth = Math.ceil(widthPx / 2)
  const cb = widthPx * heightPx
  const cr = cb + chromaWidth * Math.ceil(heightPx / 2)
  return (x, y, out) => {
    const chroma = (y >> 1) * chromaWidth + (x >> 1)
    ycbcrToRgb(coding, data[y * widthPx + x]!, data[cb + chroma]!, data[cr + chroma]!, out)
  }
}
