// Where pixels lie between cells, in the heap, for kernels.
import type { Between } from '../../../core/filter/bilinear.ts'
import type { Block, Heap } from '../heap.ts'

export interface HeapPlaces {
  readonly cells: number
  readonly shares: number
  readonly blocks: readonly Block[]
}

/** Copies places into the heap; `blocks` are the caller's to free. */
export function heapPlaces(heap: Heap, allocate: (byteLength: number) => Block, places: Between): HeapPlaces {
  const cells = allocate(places.below.length * 4)
  const shares = allocate(places.share.length * 4)
  heap.words.set(places.below, cells.at >> 2)
  heap.floats.set(places.share, shares.at >> 2)
  return { cells: cells.at, shares: shares.at, blocks: [cells, shares] }
}
