// Premultiplied alpha: averaging straight colours would bring back what a key has cleared.
import type { FloatPicture } from './float-picture.ts'

/** Half the size, each pixel the mean of 2×2; an odd last row or column is dropped, a single one stays. */
export function halve(picture: FloatPicture): FloatPicture {
  const widthPx = Math.max(1, picture.widthPx >> 1)
  const heightPx = Math.max(1, picture.heightPx >> 1)
  const data = new Float64Array(widthPx * heightPx * 4)
  const right = Math.min(1, picture.widthPx - 1)
  const below = Math.min(1, picture.heightPx - 1)
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      for (let channel = 0; channel < 4; channel += 1) {
        const from = (column: number, row: number) => picture.data[((2 * y + row) * picture.widthPx + 2 * x + column) * 4 + channel]!
        data[(y * widthPx + x) * 4 + channel] = (from(0, 0) + from(right, 0) + from(0, below) + from(right, below)) / 4
      }
    }
  }
  return { widthPx, heightPx, data }
}
