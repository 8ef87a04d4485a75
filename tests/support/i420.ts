import { rgbToYcbcr, ycbcrCoding } from '../../core/colour/ycbcr.ts'
import { i420ByteLength, type I420Picture, type RgbaPicture } from '../../core/picture/picture.ts'

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
