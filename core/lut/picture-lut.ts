// Look-up tables kept as pictures: HALD (one long run of colours) and tiles (one tile a blue level).
import type { RgbaPicture } from '../picture/picture.ts'
import type { Lut } from './lut.ts'

const LARGEST_LEVEL = 16

/**
 * Reads a picture as a cube. A square of level³ pixels a side is a HALD of level (E. Steenberg): red runs
 * fastest along the rows, then green, then blue, level² points an axis. Tiles of N × N, N of them in a
 * strip or a square, hold red across, green down, one blue level a tile. A square of 64 or 512 pixels could
 * be both; whichever is the smoother cube is taken, since a look changes little from one colour to the next. Throws a RangeError that says which
 * sizes would do.
 */
export function lutFromPicture(picture: RgbaPicture): Lut {
  const candidates = [haldOf(picture), tilesOf(picture)].filter((lut) => lut !== null)
  if (candidates.length === 0) {
    throw new RangeError(
      `a picture of ${picture.widthPx}×${picture.heightPx} holds no look: use a HALD (a square of 8, 27, 64, 125, 216 … pixels) or tiles (512×512, 1024×32, 256×16)`,
    )
  }
  return candidates.reduce((best, lut) => (roughness(lut) < roughness(best) ? lut : best))
}

function haldOf(picture: RgbaPicture): Lut | null {
  const level = Math.round(Math.cbrt(picture.widthPx))
  if (picture.widthPx !== picture.heightPx || level ** 3 !== picture.widthPx || level < 2 || level > LARGEST_LEVEL) return null
  const size = level * level
  return cubeOf(size, (r, g, b) => b * size * size + g * size + r, picture)
}

function tilesOf(picture: RgbaPicture): Lut | null {
  const { widthPx, heightPx } = picture
  const total = Math.round(Math.cbrt(widthPx * heightPx))
  if (total < 2 || total > 256 || total ** 3 !== widthPx * heightPx || widthPx % total !== 0 || heightPx % total !== 0) return null
  const perRow = widthPx / total
  return cubeOf(total, (r, g, b) => (Math.floor(b / perRow) * total + g) * widthPx + (b % perRow) * total + r, picture)
}

function cubeOf(size: number, pixelOf: (r: number, g: number, b: number) => number, picture: RgbaPicture): Lut {
  const data = new Float32Array(size ** 3 * 3)
  let at = 0
  for (let b = 0; b < size; b += 1) {
    for (let g = 0; g < size; g += 1) {
      for (let r = 0; r < size; r += 1) {
        const from = pixelOf(r, g, b) * 4
        for (let channel = 0; channel < 3; channel += 1) data[at++] = picture.data[from + channel]! / 255
      }
    }
  }
  return { kind: '3d', size, domainMin: [0, 0, 0], domainMax: [1, 1, 1], data }
}

/** Mean squared difference of neighbours along the three axes: small for the right reading, whatever the look does to colours. */
function roughness({ size, data }: Lut): number {
  let sum = 0
  for (const step of [3, size * 3, size * size * 3]) {
    for (let at = 0; at < data.length; at += 1) {
      if (Math.floor(at / step) % size === size - 1) continue
      sum += (data[at + step]! - data[at]!) ** 2
    }
  }
  return sum / data.length
}
