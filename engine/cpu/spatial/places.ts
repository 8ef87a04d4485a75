// Where pixels lie between cells, in the heap, for kernels.
import type { Between } from '../../../core/filter/bilinear.ts'
import type { Block, Heap } from '../heap.ts'

export interface HeapPlaces {
  /** The cell below each pixel, 32 bits. */
  readonly cells: number
  /** The share of the cell above: floats, and 16-bit numbers of 2⁻¹⁵. */
  readonly shares: number
  readonly fineShares: number
  /** The first pixel that lies above each cell, then how many pixels there are. */
  readonly starts: number
  readonly blocks: readonly Block[]
}

/** Copies places between `cellCount` cells into the heap; `blocks` are the caller's to free. */
export function heapPlaces(heap: Heap, allocate: (byteLength: number) => Block, places: Between, cellCount: number): HeapPlaces {
  const cells = allocate(places.below.length * 4)
  const shares = allocate(places.share.length * 4)
  const fineShares = allocate(places.share.length * 2)
  const starts = allocate((cellCount + 1) * 4)
  heap.words.set(places.below, cells.at >> 2)
  heap.floats.set(places.share, shares.at >> 2)
  const fine = new Int16Array(heap.bytes.buffer, fineShares.at, places.share.length)
  places.share.forEach((share, i) => (fine[i] = Math.round(share * 32767)))
  let pixel = 0
  for (let cell = 0; cell <= cellCount; cell += 1) {
    while (pixel < places.below.length && places.below[pixel]! < cell) pixel += 1
    heap.words[(starts.at >> 2) + cell] = pixel
  }
  return { cells: cells.at, shares: shares.at, fineShares: fineShares.at, starts: starts.at, blocks: [cells, shares, fineShares, starts] }
}
