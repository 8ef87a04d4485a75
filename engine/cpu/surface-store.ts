// Caches pieces of the heap between frames by content, not by owner: flattened layers,
// masks, groups. Within a byte budget; least recently used goes first.
import type { Block, Heap } from './heap.ts'

/** Room for about twenty pictures of 1920×1080. */
const BUDGET_BYTES = 192 << 20

/** A cached surface. It may be evicted between frames, never within a frame that uses it. */
export interface Kept<T = unknown> {
  readonly key: string
  readonly block: Block
  /** What belongs to the bytes and is not in the heap. */
  readonly about: T
  isEvicted: boolean
  /** The frame that used it last. */
  lastFrame: number
}

export class SurfaceStore {
  readonly #heap: Heap
  readonly #allocate: (byteLength: number) => Block
  readonly #budgetBytes: number
  /** From the one not used for longest to the newest. */
  readonly #kept = new Map<string, Kept>()
  #bytes = 0
  #frame = 0

  /** `allocate` makes room elsewhere when the heap is full. */
  constructor(heap: Heap, allocate: (byteLength: number) => Block, budgetBytes = BUDGET_BYTES) {
    this.#heap = heap
    this.#allocate = allocate
    this.#budgetBytes = budgetBytes
  }

  /** Bytes in the cache now. */
  get bytes(): number {
    return this.#bytes
  }

  get size(): number {
    return this.#kept.size
  }

  /** Starts a frame: surfaces used from now on stay until the next call. */
  beginFrame(): void {
    this.#frame += 1
  }

  /** The surface cached under a key, marked as used in this frame. */
  find<T>(key: string): Kept<T> | undefined {
    const kept = this.#kept.get(key)
    if (kept !== undefined) this.touch(kept)
    return kept as Kept<T> | undefined
  }

  /** Says that a piece is used in this frame. It must not have been evicted. */
  touch(kept: Kept): void {
    if (kept.lastFrame === this.#frame) return
    kept.lastFrame = this.#frame
    this.#kept.delete(kept.key)
    this.#kept.set(kept.key, kept)
  }

  /** Makes room and keeps it under a key that is free; its bytes are undefined. Throws a RangeError when the heap is full of what this frame needs. */
  keep<T>(key: string, byteLength: number, about: T): Kept<T> {
    while (this.#bytes + byteLength > this.#budgetBytes && this.evictOldest());
    const block = this.#allocate(byteLength)
    const kept = { key, block, about, isEvicted: false, lastFrame: this.#frame }
    this.#kept.set(key, kept)
    this.#bytes += block.byteLength
    return kept
  }

  /** Gives one piece back. */
  drop(kept: Kept): void {
    if (kept.isEvicted) return
    kept.isEvicted = true
    this.#kept.delete(kept.key)
    this.#bytes -= kept.block.byteLength
    this.#heap.free(kept.block)
  }

  /** Evicts the least recently used surface that this frame does not use; returns whether there was one. */
  evictOldest(): boolean {
    const oldest = this.#kept.values().next().value
    if (oldest === undefined || oldest.lastFrame === this.#frame) return false
    this.drop(oldest)
    return true
  }

  dispose(): void {
    for (const kept of [...this.#kept.values()]) this.drop(kept)
  }
}
