// How the light on a cloth changes over the picture, as a gain that makes it even.
import type { Rgb } from '../colour/hex.ts'
import type { RgbaPicture } from '../picture/picture.ts'

/** Gains at the centres of square cells; multiplied with the picture they make the cloth one colour. */
export interface GainField {
  readonly columns: number
  readonly rows: number
  readonly cellPx: number
  readonly gains: Float32Array
}

/** Gains outside would only amplify noise, or clip. */
const LEAST_GAIN = 0.4
const MOST_GAIN = 3
const CELL_PX = 8
/** A cell darker than this says nothing about light. */
const LEAST_SQUARE = 0.003

/** Terms of a quadratic surface over −1..1 each way: 1, x, y, x², xy, y². */
export const SURFACE_TERMS = 6
/** Three channels of terms, then the least and the most of each channel that was seen. */
export const SURFACE_NUMBERS = SURFACE_TERMS * 3 + 6

/** The gain that takes backdrop colour `b` to `key`, by the light they share: K·B / B·B. */
export function gainFor(key: Rgb, red: number, green: number, blue: number): number {
  const square = red * red + green * green + blue * blue
  if (square < LEAST_SQUARE) return 1
  const gain = (key[0] * red + key[1] * green + key[2] * blue) / square
  return gain < LEAST_GAIN ? LEAST_GAIN : gain > MOST_GAIN ? MOST_GAIN : gain
}

/** The gain field of a fitted surface (see fit-backdrop.ts). */
export function fieldOfSurface(surface: readonly number[], key: Rgb, widthPx: number, heightPx: number): GainField {
  const backdrop = [0, 0, 0]
  return makeField(widthPx, heightPx, (left, top) => {
    surfaceColour(surface, ((left + CELL_PX / 2) / widthPx) * 2 - 1, ((top + CELL_PX / 2) / heightPx) * 2 - 1, backdrop)
    return gainFor(key, backdrop[0]!, backdrop[1]!, backdrop[2]!)
  })
}

/** The gain field of a picture of the empty cloth; it is stretched over the picture. */
export function fieldOfPlate(plate: RgbaPicture, key: Rgb, widthPx: number, heightPx: number): GainField {
  return makeField(widthPx, heightPx, (left, top) => {
    const fromX = Math.floor((left * plate.widthPx) / widthPx)
    const toX = Math.min(plate.widthPx, Math.max(fromX + 1, Math.floor(((left + CELL_PX) * plate.widthPx) / widthPx)))
    const fromY = Math.floor((top * plate.heightPx) / heightPx)
    const toY = Math.min(plate.heightPx, Math.max(fromY + 1, Math.floor(((top + CELL_PX) * plate.heightPx) / heightPx)))
    const sum = [0, 0, 0]
    for (let y = fromY; y < toY; y += 1) {
      for (let x = fromX; x < toX; x += 1) for (let channel = 0; channel < 3; channel += 1) sum[channel]! += plate.data[(y * plate.widthPx + x) * 4 + channel]!
    }
    const scale = 1 / (255 * Math.max(1, (toX - fromX) * (toY - fromY)))
    return gainFor(key, sum[0]! * scale, sum[1]! * scale, sum[2]! * scale)
  })
}

/** Writes the surface's colour at (x, y), each −1..1, within what was seen of the cloth. */
export function surfaceColour(surface: readonly number[], x: number, y: number, out: number[]): void {
  const terms = [1, x, y, x * x, x * y, y * y]
  for (let channel = 0; channel < 3; channel += 1) {
    let value = 0
    for (let term = 0; term < SURFACE_TERMS; term += 1) value += surface[channel * SURFACE_TERMS + term]! * terms[term]!
    const least = surface[SURFACE_TERMS * 3 + channel]!
    const most = surface[SURFACE_TERMS * 3 + 3 + channel]!
    out[channel] = value < least ? least : value > most ? most : value
  }
}

function makeField(widthPx: number, heightPx: number, gainAt: (left: number, top: number) => number): GainField {
  const columns = Math.ceil(widthPx / CELL_PX)
  const rows = Math.ceil(heightPx / CELL_PX)
  const gains = new Float32Array(columns * rows)
  for (let row = 0; row < rows; row += 1) {
    for (let column = 0; column < columns; column += 1) gains[row * columns + column] = gainAt(column * CELL_PX, row * CELL_PX)
  }
  return { columns, rows, cellPx: CELL_PX, gains }
}
