// Guided filter (He, Sun & Tang, "Guided Image Filtering", ECCV 2010): in each window the input is fitted
// as a·guide + b; a and b are then averaged.

/** The averaged fit: filtered = gain · guide + offset. */
export interface GuidedFit {
  readonly gain: Float32Array
  readonly offset: Float32Array
}

/** Fits `input` to `guide` in windows of ±radius; `epsilon` is the variance below which a window counts as flat. */
export function guidedFilter(
  guide: ArrayLike<number>,
  input: ArrayLike<number>,
  widthPx: number,
  heightPx: number,
  radius: number,
  epsilon: number,
): GuidedFit {
  const mean = (of: (i: number) => number) =>
    boxMean(
      Float32Array.from({ length: widthPx * heightPx }, (_, i) => of(i)),
      widthPx,
      heightPx,
      radius,
    )
  const meanGuide = mean((i) => guide[i]!)
  const meanInput = mean((i) => input[i]!)
  const meanSquare = mean((i) => guide[i]! * guide[i]!)
  const meanProduct = mean((i) => guide[i]! * input[i]!)
  const gain = new Float32Array(widthPx * heightPx)
  const offset = new Float32Array(widthPx * heightPx)
  for (let i = 0; i < gain.length; i += 1) {
    const variance = meanSquare[i]! - meanGuide[i]! * meanGuide[i]!
    const covariance = meanProduct[i]! - meanGuide[i]! * meanInput[i]!
    gain[i] = covariance / (variance + epsilon)
    offset[i] = meanInput[i]! - gain[i]! * meanGuide[i]!
  }
  return { gain: boxMean(gain, widthPx, heightPx, radius), offset: boxMean(offset, widthPx, heightPx, radius) }
}

/** Mean of a square of ±radius, cut off at the borders. */
export function boxMean(values: Float32Array, widthPx: number, heightPx: number, radius: number): Float32Array {
  const across = new Float32Array(values.length)
  const out = new Float32Array(values.length)
  boxLines(values, across, widthPx, heightPx, 1, widthPx, radius)
  boxLines(across, out, heightPx, widthPx, widthPx, 1, radius)
  return out
}

function boxLines(from: Float32Array, to: Float32Array, length: number, lines: number, step: number, lineStep: number, radius: number): void {
  for (let line = 0; line < lines; line += 1) {
    const start = line * lineStep
    let sum = 0
    for (let i = 0; i <= Math.min(radius, length - 1); i += 1) sum += from[start + i * step]!
    for (let i = 0; i < length; i += 1) {
      const first = Math.max(0, i - radius)
      const last = Math.min(length - 1, i + radius)
      to[start + i * step] = sum / (last - first + 1)
      if (i + radius + 1 < length) sum += from[start + (i + radius + 1) * step]!
      if (i - radius >= 0) sum -= from[start + (i - radius) * step]!
    }
  }
}
