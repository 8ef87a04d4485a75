// Shadows: a shape seen through a gaussian. Exact along x by the error function, summed along y.
import type { Shape } from './shape.ts'

/** Rows of the shape that are looked at for one pixel. */
const SAMPLES = 24
/** What lies further away adds nothing that eight bits could show. */
export const SHADOW_SIGMAS = 4

/** Deviation of the gaussian of a shadow with a blur radius, both in pixels: CSS Backgrounds and Borders Level 3 §6.1 (half). */
export function sigmaOfBlur(blurPx: number): number {
  return blurPx / 2
}

/**
 * How much (0..1) of a softened shape lies at (x, y), in the shape's own pixels; `sigma` > 0 is the gaussian's deviation. A turned
 * shape needs no more: a gaussian looks the same from everywhere.
 */
export function shadowCoverage(shape: Shape, x: number, y: number, sigma: number): number {
  const top = Math.max(0, y - SHADOW_SIGMAS * sigma)
  const bottom = Math.min(shape.height, y + SHADOW_SIGMAS * sigma)
  if (bottom <= top) return 0
  const fromCentre = x - shape.width / 2
  const scale = 1 / (Math.SQRT2 * sigma)
  let sum = 0
  for (let i = 0; i < SAMPLES; i += 1) {
    const from = rowAt(top, bottom, i / SAMPLES)
    const to = rowAt(top, bottom, (i + 1) / SAMPLES)
    const half = halfWidthAt(shape, rowAt(top, bottom, (i + 0.5) / SAMPLES))
    // The gaussian's own share of the strip is exact, too.
    const weight = erf((to - y) * scale) - erf((from - y) * scale)
    sum += weight * (erf((fromCentre + half) * scale) - erf((fromCentre - half) * scale))
  }
  return sum / 4
}

/** Rows lie closer towards both ends, where round shapes close quickest. */
function rowAt(top: number, bottom: number, share: number): number {
  return top + ((bottom - top) * (1 - Math.cos(Math.PI * share))) / 2
}

/** Half the width of a shape at a row of it, 0..height. */
export function halfWidthAt(shape: Shape, row: number): number {
  const half = shape.width / 2
  if (shape.kind === 'superellipse') {
    const down = Math.abs(row / (shape.height / 2) - 1)
    return down >= 1 ? 0 : half * (1 - down ** shape.exponent) ** (1 / shape.exponent)
  }
  const radius = Math.min(shape.cornerRadius, half, shape.height / 2)
  const intoCorner = radius - Math.min(row, shape.height - row)
  return intoCorner <= 0 ? half : half - radius + Math.sqrt(Math.max(0, radius * radius - intoCorner * intoCorner))
}

/** The error function, within 1.5e-7: Abramowitz and Stegun, Handbook of Mathematical Functions, 7.1.26 (coefficients from memory, held to a table in the test). */
export function erf(x: number): number {
  const t = 1 / (1 + 0.3275911 * Math.abs(x))
  const poly = ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t
  const value = 1 - poly * Math.exp(-x * x)
  return x < 0 ? -value : value
}

/** Places of the table of the error function for each unit; beyond its end the function is 1. */
const TABLE_PLACES = 1024
const TABLE_END = 4
const table = Float64Array.from({ length: TABLE_END * TABLE_PLACES + 2 }, (_, i) => erf(i / TABLE_PLACES))

/** The error function by a table, within 3e-7 of `erf`. */
function quickErf(x: number): number {
  const at = (x < 0 ? -x : x) * TABLE_PLACES
  if (at >= TABLE_END * TABLE_PLACES) return x < 0 ? -1 : 1
  const place = at | 0
  const value = table[place]! + (table[place + 1]! - table[place]!) * (at - place)
  return x < 0 ? -value : value
}

/** `shadowCoverage` for pixels that lie in a row of the shape: what depends on the row is worked out once. */
export class ShadowRow {
  readonly #shape: Shape
  readonly #scale: number
  readonly #sigma: number
  /** Widths that the shape has at the rows looked at, those that are equal next to each other once, and how much each counts. */
  readonly #halves = new Float64Array(SAMPLES)
  readonly #weights = new Float64Array(SAMPLES)
  #count = 0

  constructor(shape: Shape, sigma: number) {
    this.#shape = shape
    this.#sigma = sigma
    this.#scale = 1 / (Math.SQRT2 * sigma)
  }

  /** Goes to the row at y, in the shape's own pixels. */
  moveTo(y: number): void {
    const shape = this.#shape
    const top = Math.max(0, y - SHADOW_SIGMAS * this.#sigma)
    const bottom = Math.min(shape.height, y + SHADOW_SIGMAS * this.#sigma)
    this.#count = 0
    if (bottom <= top) return
    for (let i = 0; i < SAMPLES; i += 1) {
      const weight = quickErf((rowAt(top, bottom, (i + 1) / SAMPLES) - y) * this.#scale) - quickErf((rowAt(top, bottom, i / SAMPLES) - y) * this.#scale)
      const half = halfWidthAt(shape, rowAt(top, bottom, (i + 0.5) / SAMPLES))
      if (this.#count > 0 && this.#halves[this.#count - 1] === half) {
        this.#weights[this.#count - 1]! += weight
        continue
      }
      this.#halves[this.#count] = half
      this.#weights[this.#count] = weight
      this.#count += 1
    }
  }

  /** How much (0..1) lies at x of the row. */
  at(x: number): number {
    const fromCentre = (x - this.#shape.width / 2) * this.#scale
    let sum = 0
    for (let i = 0; i < this.#count; i += 1) {
      const half = this.#halves[i]! * this.#scale
      sum += this.#weights[i]! * (quickErf(fromCentre + half) - quickErf(fromCentre - half))
    }
    return sum / 4
  }
}
