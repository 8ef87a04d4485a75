import type { Plane } from '../../../core/picture/float-picture.ts'
import type { PointFunction, SpatialWork } from '../../../core/steps/step.ts'
import type { ColourMemo } from '../colour-memo.ts'
import type { Block, Heap } from '../heap.ts'

/** What a live work may use beside its own memory. */
export interface LiveTools {
  readonly heap: Heap
  readonly widthPx: number
  readonly heightPx: number
  /** Memory that the work frees itself. */
  readonly allocate: (byteLength: number) => Block
  /** The table of colour functions over RGB codes, straight; valid until the next call. */
  readonly table: (key: string, points: readonly PointFunction[]) => ColourMemo
}

/** One piece of spatial work on one stream of pictures, with what it remembers. Straight packed RGBA. */
export interface LiveWork {
  /**
   * Does the work on the pixels at `at`; `spare` is room for as many. Returns where the result lies: one of
   * the two.
   */
  run(at: number, spare: number, person: Plane | null): number
  /** Frees what it allocated, once. */
  dispose(): void
}

export type MakeLiveWork<W extends SpatialWork = SpatialWork> = (tools: LiveTools, work: W) => LiveWork
