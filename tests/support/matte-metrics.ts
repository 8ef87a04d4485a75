// How far an estimated matte is from the true one. Definitions of Rhemann et al., "A Perceptually
// Motivated Online Benchmark for Image Matting", CVPR 2009, over the whole picture, without a trimap.

/** An opacity picture: one byte a pixel, 255 opaque. */
export interface Matte {
  readonly widthPx: number
  readonly heightPx: number
  readonly data: Uint8Array
}

/** Errors of a matte; all zero for a perfect one. */
export interface MatteErrors {
  /** Sum of absolute differences, opacity 0..1. */
  readonly sad: number
  /** Mean squared difference, opacity 0..1. */
  readonly mse: number
  /** Sum of squared differences of gradient magnitude (Gaussian derivative, σ 1.4). */
  readonly gradient: number
}

const GRADIENT_SIGMA = 1.4
const GRADIENT_EPSILON = 1e-2

/** Errors of `estimate` against `truth`. Throws a RangeError when the sizes differ. */
export function matteErrors(estimate: Matte, truth: Matte): MatteErrors {
  if (estimate.widthPx !== truth.widthPx || estimate.heightPx !== truth.heightPx) {
    throw new RangeError(`mattes must have one size, got ${estimate.widthPx}×${estimate.heightPx} and ${truth.widthPx}×${truth.heightPx}`)
  }
  let sad = 0
  let squares = 0
  for (let i = 0; i < truth.data.length; i += 1) {
    const difference = (estimate.data[i]! - truth.data[i]!) / 255
    sad += Math.abs(difference)
    squares += difference * difference
  }
  const first = gradientMagnitude(estimate)
  const second = gradientMagnitude(truth)
  let gradient = 0
  for (let i = 0; i < first.length; i += 1) gradient += (first[i]! - second[i]!) ** 2
  return { sad, mse: squares / truth.data.length, gradient }
}

/** Gradient magnitude of a matte; edges replicate. Filters are L2-normalised. */
function gradientMagnitude(matte: Matte): Float64Array {
  const { smooth, slope, radius } = gaussianDerivative(GRADIENT_SIGMA, GRADIENT_EPSILON)
  const { widthPx, heightPx } = matte
  const source = Float64Array.from(matte.data, (value) => value / 255)
  const across = convolve(convolve(source, widthPx, heightPx, slope, radius, 'x'), widthPx, heightPx, smooth, radius, 'y')
  const down = convolve(convolve(source, widthPx, heightPx, smooth, radius, 'x'), widthPx, heightPx, slope, radius, 'y')
  return across.map((value, i) => Math.hypot(value, down[i]!))
}

function gaussianDerivative(sigma: number, epsilon: number) {
  const radius = Math.ceil(sigma * Math.sqrt(-2 * Math.log(Math.sqrt(2 * Math.PI) * sigma * epsilon)))
  const taps = Array.from({ length: 2 * radius + 1 }, (_, i) => i - radius)
  const gauss = taps.map((x) => Math.exp((-x * x) / (2 * sigma * sigma)) / (sigma * Math.sqrt(2 * Math.PI)))
  const derivative = taps.map((x, i) => (-x * gauss[i]!) / (sigma * sigma))
  // The 2-D filter is gauss(y)·derivative(x); its L2 norm is the product of the two norms.
  const norm = Math.hypot(...gauss) * Math.hypot(...derivative)
  return { radius, smooth: gauss, slope: derivative.map((value) => value / norm) }
}

function convolve(source: Float64Array, width: number, height: number, taps: readonly number[], radius: number, axis: 'x' | 'y'): Float64Array {
  const out = new Float64Array(source.length)
  const limit = axis === 'x' ? width : height
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      let sum = 0
      for (let k = -radius; k <= radius; k += 1) {
        const at = Math.min(limit - 1, Math.max(0, (axis === 'x' ? x : y) + k))
        sum += taps[k + radius]! * source[axis === 'x' ? y * width + at : at * width + x]!
      }
      out[y * width + x] = sum
    }
  }
  return out
}
