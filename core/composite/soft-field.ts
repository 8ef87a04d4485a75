// A softened shape, pixel by pixel, from values on a coarse grid: a gaussian is smooth, so few places tell the rest.
import { SHADOW_SIGMAS, ShadowRow } from './shadow.ts'
import type { Shape } from './shape.ts'

/** Places of the grid for each deviation. Cubics through four of them are then within 2e-4 of the exact value, a twentieth of a code. */
const PLACES_A_SIGMA = 3
/** Below this the grid would be about as fine as the pixels. */
const LEAST_SIGMA = 4

/** What is asked for along a row of a softened shape. */
export interface SoftRow {
  /** Goes to the row at y, in the shape's own pixels. */
  moveTo(y: number): void
  /** How much (0..1) of the softened shape lies at x of the row. */
  at(x: number): number
}

/** The softened shape row by row, exact or by a grid, whichever is quicker. */
export function softRowOf(shape: Shape, sigma: number): SoftRow {
  return sigma < LEAST_SIGMA ? new ShadowRow(shape, sigma) : new SoftField(shape, sigma)
}

class SoftField implements SoftRow {
  readonly #exact: ShadowRow
  readonly #step: number
  /** Where the grid begins, in the shape's own pixels, on both axes. */
  readonly #from: number
  readonly #columns: number
  /** Rows of the grid that were needed so far. */
  readonly #rows = new Map<number, Float64Array>()
  /** The four rows of the grid round the row that was moved to, and how much each counts. */
  #around: readonly [Float64Array, Float64Array, Float64Array, Float64Array]
  #weights: readonly [number, number, number, number] = [0, 0, 0, 0]
  /** The part of the row between two places of the grid that was asked for last, as a cubic of the way through it. */
  #cell = -1
  #c0 = 0
  #c1 = 0
  #c2 = 0
  #c3 = 0

  constructor(shape: Shape, sigma: number) {
    this.#exact = new ShadowRow(shape, sigma)
    this.#step = sigma / PLACES_A_SIGMA
    // Cubics take two places on either side.
    this.#from = -SHADOW_SIGMAS * sigma - 2 * this.#step
    this.#columns = Math.ceil((shape.width - 2 * this.#from) / this.#step) + 2
    const empty = new Float64Array(this.#columns)
    this.#around = [empty, empty, empty, empty]
  }

  moveTo(y: number): void {
    const place = (y - this.#from) / this.#step
    const first = Math.floor(place)
    this.#weights = cubicWeights(place - first)
    this.#around = [this.#rowAt(first - 1), this.#rowAt(first), this.#rowAt(first + 1), this.#rowAt(first + 2)]
    this.#cell = -1
    // Rows come from the top down.
    this.#rows.delete(first - 2)
  }

  at(x: number): number {
    const place = (x - this.#from) / this.#step
    const first = Math.floor(place)
    if (first < 1 || first + 2 >= this.#columns) return 0
    if (first !== this.#cell) this.#enter(first)
    const t = place - first
    const value = this.#c0 + t * (this.#c1 + t * (this.#c2 + t * this.#c3))
    return value < 0 ? 0 : value > 1 ? 1 : value
  }

  /** Lagrange's cubic through the places −1, 0, 1 and 2 round a part of the row, in powers of the way through it. */
  #enter(first: number): void {
    const [a, b, c, d] = [this.#column(first - 1), this.#column(first), this.#column(first + 1), this.#column(first + 2)]
    this.#cell = first
    this.#c0 = b
    this.#c1 = c - a / 3 - b / 2 - d / 6
    this.#c2 = (a + c) / 2 - b
    this.#c3 = (d - a) / 6 + (b - c) / 2
  }

  #column(index: number): number {
    const [above, upper, lower, below] = this.#around
    const [a, b, c, d] = this.#weights
    return a * above[index]! + b * upper[index]! + c * lower[index]! + d * below[index]!
  }

  #rowAt(index: number): Float64Array {
    const known = this.#rows.get(index)
    if (known !== undefined) return known
    const made = new Float64Array(this.#columns)
    this.#exact.moveTo(this.#from + index * this.#step)
    for (let i = 0; i < made.length; i += 1) made[i] = this.#exact.at(this.#from + i * this.#step)
    this.#rows.set(index, made)
    return made
  }
}

/** How much the places −1, 0, 1 and 2 count at t between the middle ones, by Lagrange's cubic. */
function cubicWeights(t: number): readonly [number, number, number, number] {
  const [u, v, w] = [t + 1, t - 1, t - 2]
  return [(-t * v * w) / 6, (u * v * w) / 2, (-u * t * w) / 2, (u * t * v) / 6]
}
