// Growing and choking a matte, and softening it. One number a pixel.
import type { Plane } from '../picture/float-picture.ts'
import { convolvePlane, gaussianTaps } from '../filter/gaussian.ts'

/**
 * Grows (positive) or chokes (negative) by `pixels`: the largest or smallest value within a square; between
 * whole sizes the two neighbours are mixed.
 */
export function spreadPlane(plane: Plane, pixels: number): Plane {
  const size = Math.abs(pixels)
  const whole = Math.floor(size)
  const share = size - whole
  const inner = extreme(plane, whole, pixels > 0)
  if (share === 0) return inner
  const outer = extreme(plane, whole + 1, pixels > 0)
  return { ...plane, data: Float64Array.from(inner.data, (value, i) => value * (1 - share) + outer.data[i]! * share) }
}

/** A matte softened by a Gaussian of `sigmaPx`. */
export function featherPlane(plane: Plane, sigmaPx: number): Plane {
  return sigmaPx <= 0 ? plane : convolvePlane(plane, gaussianTaps(sigmaPx))
}

function extreme({ widthPx, heightPx, data }: Plane, radius: number, isLargest: boolean): Plane {
  if (radius === 0) return { widthPx, heightPx, data: Float64Array.from(data) }
  const across = extremeLines(data, widthPx, heightPx, 1, widthPx, radius, isLargest)
  return { widthPx, heightPx, data: extremeLines(across, heightPx, widthPx, widthPx, 1, radius, isLargest) }
}

function extremeLines(
  from: ArrayLike<number>,
  length: number,
  lines: number,
  step: number,
  lineStep: number,
  radius: number,
  isLargest: boolean,
): Float64Array {
  const out = new Float64Array(length * lines)
  for (let line = 0; line < lines; line += 1) {
    for (let i = 0; i < length; i += 1) {
      let best = from[line * lineStep + i * step]!
      for (let k = Math.max(0, i - radius); k <= Math.min(length - 1, i + radius); k += 1) {
        const value = from[line * lineStep + k * step]!
        if (isLargest ? value > best : value < best) best = value
      }
      out[line * lineStep + i * step] = best
    }
  }
  return out
}
