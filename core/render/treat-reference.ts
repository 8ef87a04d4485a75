// Straight alpha, sRGB-encoded, float, origin top left: what the live executors are measured against.
import type { Picture } from '../picture/picture.ts'
import { i420Reader } from '../picture/i420.ts'
import { prepareChain } from '../steps/chain.ts'
import type { StepCall } from '../steps/index.ts'

/** A picture of doubles: red, green, blue, alpha per pixel, nominally 0..1. */
export interface FloatPicture {
  readonly widthPx: number
  readonly heightPx: number
  readonly data: Float64Array
}

/** Runs a chain of steps on a picture, exactly; straight alpha in and out. */
export function treatReference(picture: Picture, calls: readonly StepCall[]): FloatPicture {
  const { widthPx, heightPx } = picture
  const { keep, points } = prepareChain(calls, widthPx, heightPx)
  const data = new Float64Array(widthPx * heightPx * 4)
  const read = pixelReader(picture)
  const pixel = new Float64Array(4)
  for (let y = keep.top; y < keep.bottom; y += 1) {
    for (let x = keep.left; x < keep.right; x += 1) {
      read(x, y, pixel)
      for (const point of points) point(pixel)
      const at = (y * widthPx + x) * 4
      for (let channel = 0; channel < 4; channel += 1) data[at + channel] = clamp01(pixel[channel]!)
    }
  }
  return { widthPx, heightPx, data }
}

function pixelReader(picture: Picture): (x: number, y: number, out: Float64Array) => void {
  if (picture.format === 'i420') {
    const read = i420Reader(picture)
    return (x, y, out) => {
      read(x, y, out)
      out[3] = 1
    }
  }
  const { data, widthPx } = picture
  return (x, y, out) => {
    const at = (y * widthPx + x) * 4
    for (let channel = 0; channel < 4; channel += 1) out[channel] = data[at + channel]! / 255
  }
}

function clamp01(value: number): number {
  return value < 0 ? 0 : value > 1 ? 1 : value
}
