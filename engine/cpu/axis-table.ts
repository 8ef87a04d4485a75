import { boxShares } from '../../core/picture/box-sample.ts'
import type { Heap } from './heap.ts'
import type { Kept, SurfaceStore } from './surface-store.ts'

/** Shares become whole weights, this much together. */
const WHOLE = 256

/** One axis of a picture that is drawn at another size: pixel `from`, up to `to`, reads at `scale · (pixel + ½) + offset`. */
export interface ScaledAxis {
  readonly from: number
  readonly to: number
  readonly scale: number
  readonly offset: number
  /** How many pixels of the picture fall on one, at least 1. */
  readonly footprint: number
}

/**
 * Of each drawn column (or row) words lie in the heap: the first pixel that it reads, times four (for columns, the bytes before it);
 * then, two by two as half words, the weights (of 256).
 */
export interface AxisTable {
  readonly sourceSize: number
  /** Pixels of the source that are read. */
  readonly first: number
  readonly last: number
  /** Words of weights; 1 where the picture isn't drawn smaller: the pixel and its neighbour. */
  readonly pairs: number
}

/** What a column (or row) takes in a table. */
export function entryBytes({ pairs }: AxisTable): number {
  return (pairs + 1) * 4
}

/** The table of an axis, cached by what it holds. */
export function axisTableFor(store: SurfaceStore, heap: Heap, axis: ScaledAxis, sourceSize: number): Kept<AxisTable> {
  const { from, to, scale, footprint } = axis
  const count = to - from
  // Where the first column reads, to a millionth of a pixel: what moves by whole pixels has one table wherever it is.
  const start = Math.round((scale * (from + 0.5) + axis.offset) * 1e6) / 1e6
  const key = `axis ${count} ${scale} from ${start} of ${sourceSize}`
  const known = store.find<AxisTable>(key)
  if (known !== undefined) return known
  const entries = Array.from({ length: count }, (_, i) => weightsOf(start + scale * i, footprint, sourceSize))
  let first = sourceSize - 1
  let last = 0
  let most = 2
  for (const { first: near, weights } of entries) {
    first = Math.min(first, near)
    last = Math.max(last, near + weights.length - 1)
    most = Math.max(most, weights.length)
  }
  const about = { sourceSize, first, last, pairs: Math.ceil(most / 2) }
  const kept = store.keep(key, entries.length * entryBytes(about), about)
  let word = kept.block.at >> 2
  for (const { first: near, weights } of entries) {
    heap.words[word++] = near * 4
    for (let pair = 0; pair < about.pairs; pair += 1) heap.words[word++] = (weights[pair * 2] ?? 0) | ((weights[pair * 2 + 1] ?? 0) << 16)
  }
  return kept
}

/** Weights of the pixels in a row that a box around `centre` covers, rounded so that they still add up. */
function weightsOf(centre: number, width: number, size: number): { readonly first: number; readonly weights: readonly number[] } {
  const { first, shares } = boxShares(centre, width, size)
  let sum = 0
  let before = 0
  const weights = shares.map((share) => {
    sum += share
    const upTo = Math.round(sum * WHOLE)
    const weight = upTo - before
    before = upTo
    return weight
  })
  return { first, weights }
}
