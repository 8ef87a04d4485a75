import type { Plane } from '../picture/float-picture.ts'

/** Weights of a sampled Gaussian of `sigma` pixels, ±⌈3σ⌉ taps, adding up to 1. */
export function gaussianTaps(sigma: number): Float64Array {
  const radius = Math.max(1, Math.ceil(3 * sigma))
  const taps = Float64Array.from({ length: 2 * radius + 1 }, (_, i) => Math.exp(-((i - radius) ** 2) / (2 * sigma * sigma)))
  const sum = taps.reduce((total, tap) => total + tap, 0)
  return taps.map((tap) => tap / sum)
}

/** A plane convolved with `taps` across and down; edges repeat. */
export function convolvePlane({ widthPx, heightPx, data }: Plane, taps: ArrayLike<number>): Plane {
  const across = convolveLines(data, widthPx, heightPx, 1, widthPx, taps)
  return { widthPx, heightPx, data: convolveLines(across, heightPx, widthPx, widthPx, 1, taps) }
}

function convolveLines(from: ArrayLike<number>, length: number, lines: number, step: number, lineStep: number, taps: ArrayLike<number>): Float64Array {
  const radius = (taps.length - 1) / 2
  const out = new Float64Array(length * lines)
  for (let line = 0; line < lines; line += 1) {
    const start = line * lineStep
    for (let i = 0; i < length; i += 1) {
      let sum = 0
      for (let k = -radius; k <= radius; k += 1) sum += taps[k + radius]! * from[start + Math.min(length - 1, Math.max(0, i + k)) * step]!
      out[start + i * step] = sum
    }
  }
  return out
}
