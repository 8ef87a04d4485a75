import type { Affine } from '../../core/composite/affine.ts'
import { boxShares, footprintOf } from '../../core/picture/box-sample.ts'
import type { PixelRect } from '../../core/picture/picture.ts'
import type { Heap } from './heap.ts'
import type { Kept, SurfaceStore } from './surface-store.ts'

/** Shares become whole weights, this much together. */
const WHOLE = 256

/** Of each column of an item's bounds words lie in the heap: the bytes before its first pixel; then, two by two as half words, the weights (of 256). */
export interface ColumnTable {
  readonly sourceWidth: number
  /** Columns of the source that are read. */
  readonly first: number
  readonly last: number
  /** Words of weights; 1 where the picture isn't drawn smaller: left and right. */
  readonly pairs: number
}

/** What a column takes in a table. */
export function columnBytes({ pairs }: ColumnTable): number {
  return (pairs + 1) * 4
}

/** The table for the bounds' columns, kept under the name of what it holds. */
export function columnsFor(store: SurfaceStore, heap: Heap, { left, right }: PixelRect, toNode: Affine, sourceWidth: number): Kept<ColumnTable> {
  const { a, e } = toNode
  const { across } = footprintOf(toNode)
  const key = `columns ${left} ${right} ${a} ${e} of ${sourceWidth}`
  const known = store.find<ColumnTable>(key)
  if (known !== undefined) return known
  const columns = Array.from({ length: right - left }, (_, column) => weightsOf(a * (left + column + 0.5) + e, across, sourceWidth))
  let first = sourceWidth - 1
  let last = 0
  let most = 2
  for (const { first: near, weights } of columns) {
    first = Math.min(first, near)
    last = Math.max(last, near + weights.length - 1)
    most = Math.max(most, weights.length)
  }
  const about = { sourceWidth, first, last, pairs: Math.ceil(most / 2) }
  const kept = store.keep(key, columns.length * columnBytes(about), about)
  let word = kept.block.at >> 2
  for (const { first: near, weights } of columns) {
    heap.words[word++] = near * 4
    for (let pair = 0; pair < about.pairs; pair += 1) heap.words[word++] = (weights[pair * 2] ?? 0) | ((weights[pair * 2 + 1] ?? 0) << 16)
  }
  return kept
}

/** The weights of the pixels of a row that a box round `centre` covers; rounded together, so that none is lost. */
export function weightsOf(centre: number, width: number, size: number): { readonly first: number; readonly weights: readonly number[] } {
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
