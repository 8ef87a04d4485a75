import { formatHex } from '../../core/colour/hex.ts'
import type { Matte } from './matte-metrics.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'

/** The mean colour of a square about (x, y), as "#rrggbb". */
export function pickMean(picture: RgbaPicture, x: number, y: number, radiusPx: number): string {
  const sum = [0, 0, 0]
  let count = 0
  for (let row = y - radiusPx; row <= y + radiusPx; row += 1) {
    for (let column = x - radiusPx; column <= x + radiusPx; column += 1) {
      for (let channel = 0; channel < 3; channel += 1) sum[channel]! += picture.data[(row * picture.widthPx + column) * 4 + channel]!
      count += 1
    }
  }
  return formatHex([sum[0]! / count / 255, sum[1]! / count / 255, sum[2]! / count / 255])
}

/** The opacity of a picture. */
export function matteOf(picture: RgbaPicture): Matte {
  const data = new Uint8Array(picture.widthPx * picture.heightPx)
  for (let i = 0; i < data.length; i += 1) data[i] = picture.data[i * 4 + 3]!
  return { widthPx: picture.widthPx, heightPx: picture.heightPx, data }
}

/** How two pictures of codes differ: the greatest difference, and the share of pixels above `limit`. */
export function differenceOf(first: ArrayLike<number>, second: ArrayLike<number>, limit: number): { max: number; shareAbove: number } {
  let max = 0
  let above = 0
  for (let at = 0; at < first.length; at += 4) {
    let worst = 0
    for (let channel = 0; channel < 4; channel += 1) worst = Math.max(worst, Math.abs(first[at + channel]! - second[at + channel]!))
    max = Math.max(max, worst)
    if (worst > limit) above += 1
  }
  return { max, shareAbove: above / (first.length / 4) }
}
