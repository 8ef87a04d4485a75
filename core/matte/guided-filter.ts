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
  const count = widthPx * heightPx
  const meanGuide = Float32Array.from(guide)
  const meanInput = Float32Array.from(input)
  const meanSquare = new Float32Array(count)
  const meanProduct = new Float32Array(count)
  for (let i = 0; i < count; i += 1) {
    const value = meanGuide[i]!
    meanSquare[i] = value * value
    meanProduct[i] = value * meanInput[i]!
  }
  const spare = new Float32Array(count)
  for (const plane of [meanGuide, meanInput, meanSquare, meanProduct]) boxMean(plane, spare, widthPx, heightPx, radius)
  const gain = meanSquare
  const offset = meanProduct
  for (let i = 0; i < count; i += 1) {
    const variance = meanSquare[i]! - meanGuide[i]! * meanGuide[i]!
    const covariance = meanProduct[i]! - meanGuide[i]! * meanInput[i]!
    const slope = covariance / (variance + epsilon)
    gain[i] = slope
    offset[i] = meanInput[i]! - slope * meanGuide[i]!
  }
  boxMean(gain, spare, widthPx, heightPx, radius)
  boxMean(offset, spare, widthPx, heightPx, radius)
  return { gain, offset }
}

/** Mean of a square of ±radius, cut off at the borders, in place; `spare` is room for as many values. */
export function boxMean(values: Float32Array, spare: Float32Array, widthPx: number, heightPx: number, radius: number): void {
  meanAcross(values, spare, widthPx, heightPx, radius)
  meanDown(spare, values, widthPx, heightPx, radius)
}

function meanAcross(from: Float32Array, to: Float32Array, widthPx: number, heightPx: number, radius: number): void {
  for (let y = 0; y < heightPx; y += 1) {
    const start = y * widthPx
    let sum = 0
    const ahead = Math.min(radius, widthPx - 1)
    for (let x = 0; x <= ahead; x += 1) sum += from[start + x]!
    for (let x = 0; x < widthPx; x += 1) {
      const first = x < radius ? 0 : x - radius
      const last = x + radius < widthPx ? x + radius : widthPx - 1
      to[start + x] = sum / (last - first + 1)
      if (x + radius + 1 < widthPx) sum += from[start + x + radius + 1]!
      if (x - radius >= 0) sum -= from[start + x - radius]!
    }
  }
}

/** Row by row, with a running sum for each column: memory is read in its own order. */
function meanDown(from: Float32Array, to: Float32Array, widthPx: number, heightPx: number, radius: number): void {
  const sums = new Float64Array(widthPx)
  const add = (y: number, sign: number) => {
    for (let x = 0; x < widthPx; x += 1) sums[x]! += sign * from[y * widthPx + x]!
  }
  for (let y = 0; y <= Math.min(radius, heightPx - 1); y += 1) add(y, 1)
  for (let y = 0; y < heightPx; y += 1) {
    const rows = Math.min(heightPx - 1, y + radius) - Math.max(0, y - radius) + 1
    for (let x = 0; x < widthPx; x += 1) to[y * widthPx + x] = sums[x]! / rows
    if (y + radius + 1 < heightPx) add(y + radius + 1, 1)
    if (y - radius >= 0) add(y - radius, -1)
  }
}
