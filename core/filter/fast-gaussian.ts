// A Gaussian for wide shadows: what is wide is blurred small. Values of one plane; beyond its edges there is nothing.
import { gaussianTaps } from './gaussian.ts'

/** From this sigma on, in pixels, half the size is enough: a plane that smooth is put back by cubic interpolation within a code (tested). */
const HALVED_FROM = 4

export interface FastPlane {
  readonly widthPx: number
  readonly heightPx: number
  readonly data: Float32Array
}

/** `plane` blurred by a Gaussian of `sigma` pixels, within one code of 255 of `convolvePlane` where nothing lies within 3 sigma of its edges. */
export function fastGaussian(plane: FastPlane, sigma: number): FastPlane {
  if (sigma <= 0) return plane
  if (sigma < HALVED_FROM) return convolved(plane, Float32Array.from(gaussianTaps(sigma)))
  const half = halved(plane)
  // Halving blurs by itself: 0.75 pixels squared of variance.
  return doubled(fastGaussian(half, Math.sqrt(sigma * sigma - 0.75) / 2), plane.widthPx, plane.heightPx)
}

/** Half the size by the weights 1, 3, 3, 1 across and down: two alone would let fine patterns through as coarse ones. */
function halved({ widthPx, heightPx, data }: FastPlane): FastPlane {
  const width = (widthPx + 1) >> 1
  const height = (heightPx + 1) >> 1
  const narrow = new Float32Array(width * heightPx)
  for (let y = 0; y < heightPx; y += 1) halveLine(data, y * widthPx, 1, widthPx, narrow, y * width, 1, width)
  const out = new Float32Array(width * height)
  for (let x = 0; x < width; x += 1) halveLine(narrow, x, width, heightPx, out, x, width, height)
  return { widthPx: width, heightPx: height, data: out }
}

function halveLine(from: Float32Array, start: number, step: number, count: number, to: Float32Array, toStart: number, toStep: number, toCount: number): void {
  const at = (i: number) => (i < 0 || i >= count ? 0 : from[start + i * step]!)
  for (let i = 0; i < toCount; i += 1) to[toStart + i * toStep] = (at(2 * i - 1) + 3 * at(2 * i) + 3 * at(2 * i + 1) + at(2 * i + 2)) / 8
}

/** Catmull and Rom's cubic (1974) at a quarter and at three quarters between two pixels. */
const NEAR = [-0.0703125, 0.8671875, 0.2265625, -0.0234375] as const

/** Twice the size: each pixel's two halves lie a quarter of it off its middle. */
function doubled(plane: FastPlane, widthPx: number, heightPx: number): FastPlane {
  const wide = new Float32Array(widthPx * plane.heightPx)
  for (let y = 0; y < plane.heightPx; y += 1) spreadLine(plane.data, y * plane.widthPx, 1, plane.widthPx, wide, y * widthPx, 1, widthPx)
  const out = new Float32Array(widthPx * heightPx)
  for (let x = 0; x < widthPx; x += 1) spreadLine(wide, x, widthPx, plane.heightPx, out, x, widthPx, heightPx)
  return { widthPx, heightPx, data: out }
}

function spreadLine(from: Float32Array, start: number, step: number, count: number, to: Float32Array, toStart: number, toStep: number, toCount: number): void {
  const at = (i: number) => (i < 0 || i >= count ? 0 : from[start + i * step]!)
  for (let i = 0; i < toCount; i += 1) {
    const middle = i >> 1
    // Odd ones lie towards the next pixel, even ones towards the one before.
    const way = (i & 1) === 1 ? 1 : -1
    to[toStart + i * toStep] = Math.max(0, NEAR[0] * at(middle - way) + NEAR[1] * at(middle) + NEAR[2] * at(middle + way) + NEAR[3] * at(middle + 2 * way))
  }
}

function convolved({ widthPx, heightPx, data }: FastPlane, taps: Float32Array): FastPlane {
  // Much of a text's box is empty.
  const isEmpty = Uint8Array.from({ length: heightPx }, (_, y) => (data.subarray(y * widthPx, (y + 1) * widthPx).some((value) => value !== 0) ? 0 : 1))
  const across = convolvedAcross(data, widthPx, heightPx, taps, isEmpty)
  const out = new Float32Array(widthPx * heightPx)
  const radius = (taps.length - 1) / 2
  for (let y = 0; y < heightPx; y += 1) {
    const row = out.subarray(y * widthPx, (y + 1) * widthPx)
    for (let k = Math.max(-radius, -y); k <= Math.min(radius, heightPx - 1 - y); k += 1) {
      if (isEmpty[y + k] === 1) continue
      const tap = taps[k + radius]!
      const other = (y + k) * widthPx
      for (let x = 0; x < widthPx; x += 1) row[x]! += tap * across[other + x]!
    }
  }
  return { widthPx, heightPx, data: out }
}

function convolvedAcross(data: Float32Array, widthPx: number, heightPx: number, taps: Float32Array, isEmpty: Uint8Array): Float32Array {
  const radius = (taps.length - 1) / 2
  const out = new Float32Array(widthPx * heightPx)
  const line = new Float32Array(widthPx + 2 * radius)
  for (let y = 0; y < heightPx; y += 1) {
    if (isEmpty[y] === 1) continue
    line.set(data.subarray(y * widthPx, (y + 1) * widthPx), radius)
    for (let x = 0; x < widthPx; x += 1) {
      let sum = 0
      for (let k = 0; k < taps.length; k += 1) sum += taps[k]! * line[x + k]!
      out[y * widthPx + x] = sum
    }
  }
  return out
}
