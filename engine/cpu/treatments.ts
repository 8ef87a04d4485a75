// Tables, uploaded pictures and treated pictures, shared by everything an engine draws.
import type { SourceId } from '../../core/picture/source.ts'
import type { Picture } from '../../core/picture/picture.ts'
import type { TreatedNode } from '../../core/plan/frame-plan.ts'
import type { Plane } from '../../core/picture/float-picture.ts'
import { needsPerson, prepareChain } from '../../core/steps/chain.ts'
import type { StepCall } from '../../core/steps/index.ts'
import type { SourceFrame } from '../executor.ts'
import { CHAINS_KEPT, PICTURES_KEPT, UPLOADS_KEPT, WHILE_USED } from '../cache-limits.ts'
import { isAlike } from '../picture-cache.ts'
import type { StepContext } from '../../core/steps/step.ts'
import { LRUCache } from 'lru-cache'
import { ChainRunner } from './chain-runner.ts'
import type { AlphaForm } from './colour-memo.ts'
import { TableCache } from './table-cache.ts'
import type { Block, Heap } from './heap.ts'
import { RowTreater } from './row-treater.ts'
import { SurfaceStore } from './surface-store.ts'

/** Looks and still pictures that steps refer to. */
export type ChainResources = Pick<StepContext, 'lut' | 'picture'>

interface ChainEntry {
  readonly runner: ChainRunner
  readonly like: Picture
}

/** Packed premultiplied pixels in the heap. */
export interface HeapPicture {
  readonly widthPx: number
  readonly heightPx: number
  readonly at: number
}

interface Level extends HeapPicture {
  readonly block: Block
}

interface TreatedEntry {
  /** Source whose person mask the picture depends on; null for none. */
  readonly personIn: SourceId | null
  version: number
  /** How many levels belong to `version`. */
  current: number
  levels: Level[]
}

interface Upload {
  block: Block
  picture: Picture
  version: number
}

/** Least-recently-used caches around one heap. */
export class Treatments {
  readonly heap: Heap
  readonly rows: RowTreater
  readonly tables: TableCache
  /** What live executors keep from frame to frame. */
  readonly surfaces: SurfaceStore
  readonly #chains = new LRUCache<string, ChainEntry>({ ...WHILE_USED, max: CHAINS_KEPT, dispose: ({ runner }) => runner.dispose() })
  readonly #persons = new Map<SourceId, Plane>()
  #resources: ChainResources = { lut: () => null, picture: () => null }
  #straight: { readonly byteLength: number; readonly first: Block; readonly second: Block } | null = null
  readonly #treated = new LRUCache<string, TreatedEntry>({ ...WHILE_USED, max: PICTURES_KEPT, dispose: ({ levels }) => this.#freeLevels(levels) })
  readonly #uploads = new LRUCache<SourceId, Upload>({ ...WHILE_USED, max: UPLOADS_KEPT, dispose: ({ block }) => this.heap.free(block) })
  #generation = 0

  /** `budgetBytes`: size of the cache between frames; a default applies. */
  constructor(heap: Heap, budgetBytes?: number) {
    this.heap = heap
    this.rows = new RowTreater(heap)
    this.tables = new TableCache(heap)
    this.surfaces = new SurfaceStore(heap, (byteLength) => this.allocate(byteLength), budgetBytes)
  }

  /** Increases when looks or pictures that steps refer to change: earlier results are stale. */
  get generation(): number {
    return this.#generation
  }

  /** A chain, ready for pictures like `picture`: a camera may change its size or coding. */
  runner(steps: readonly StepCall[], chainKey: string, picture: Picture): ChainRunner {
    const known = this.#chains.get(chainKey)
    if (known !== undefined && isAlike(known.like, picture)) return known.runner
    this.#chains.delete(chainKey)
    const { widthPx, heightPx } = picture
    const chain = prepareChain(steps, { widthPx, heightPx, ...this.#resources })
    const parts = { heap: this.heap, rows: this.rows, tables: this.tables, allocate: (byteLength: number) => this.allocate(byteLength) }
    const runner = new ChainRunner(parts, chain, widthPx, heightPx)
    this.#chains.purgeStale()
    this.#chains.set(chainKey, { runner, like: picture })
    return runner
  }

  /** Looks or pictures that steps refer to have changed: rebuilds the chains. */
  setResources(resources: ChainResources): void {
    this.#resources = resources
    this.#generation += 1
    this.#chains.clear()
    for (const entry of this.#treated.values()) entry.version = -1
  }

  /** Sets the person mask of a source; null while it is not needed. */
  setPerson(sourceId: SourceId, mask: Plane | null): void {
    if (mask === null) this.#persons.delete(sourceId)
    else this.#persons.set(sourceId, mask)
    // A held picture is treated again.
    for (const entry of this.#treated.values()) if (entry.personIn === sourceId) entry.version = -1
  }

  /** Where the bytes of a source's picture lie; copied once per version. */
  upload(sourceId: SourceId, frame: SourceFrame): number {
    const { picture, version } = frame
    let entry = this.#uploads.get(sourceId)
    if (entry !== undefined && entry.version === version && entry.picture === picture) return entry.block.at
    if (entry === undefined || entry.picture.data.length !== picture.data.length) {
      this.#uploads.delete(sourceId)
      entry = { block: this.allocate(picture.data.length), picture, version }
      this.#uploads.purgeStale()
      this.#uploads.set(sourceId, entry)
    }
    this.heap.bytes.set(picture.data, entry.block.at)
    entry.picture = picture
    entry.version = version
    return entry.block.at
  }

  /** The treated, halved picture of a node; computed once per source version. */
  treated(node: TreatedNode, frame: SourceFrame): HeapPicture {
    let entry = this.#treated.get(node.treatedKey)
    if (entry === undefined) {
      entry = { personIn: needsPerson(node.steps) ? node.sourceId : null, version: -1, current: 0, levels: [] }
      this.#treated.purgeStale()
      this.#treated.set(node.treatedKey, entry)
    }
    if (entry.version !== frame.version) entry.current = 0
    if (entry.current === 0) {
      this.#treatWhole(node, frame, this.#level(entry, 0, frame.picture.widthPx, frame.picture.heightPx))
      entry.current = 1
      entry.version = frame.version
    }
    for (; entry.current <= node.mipLevel; entry.current += 1) {
      const source = entry.levels[entry.current - 1]!
      const level = this.#level(entry, entry.current, Math.max(1, source.widthPx >> 1), Math.max(1, source.heightPx >> 1))
      this.heap.kernels.halve(source.at, source.widthPx, source.heightPx, level.at, level.widthPx, level.heightPx)
    }
    return entry.levels[node.mipLevel]!
  }

  /** Forgets everything and gives all memory back. */
  dispose(): void {
    this.surfaces.dispose()
    this.#chains.clear()
    this.tables.dispose()
    this.#freeStraight()
    this.#treated.clear()
    this.#uploads.clear()
    this.rows.dispose()
  }

  #treatWhole(node: TreatedNode, frame: SourceFrame, level: Level): void {
    const { picture } = frame
    const runner = this.runner(node.steps, node.treatedKey, picture)
    this.treatInto(runner, picture, this.upload(node.sourceId, frame), level.at, this.#persons.get(node.sourceId) ?? null, 'premultiplied')
  }

  /** Treats a whole picture whose bytes lie at `pictureAt` into `out`. */
  treatInto(runner: ChainRunner, picture: Picture, pictureAt: number, out: number, person: Plane | null, form: AlphaForm): void {
    if (runner.isSimple) return runner.run(picture, pictureAt, out, 0, 0, null, form)
    const byteLength = picture.widthPx * picture.heightPx * 4
    if (this.#straight === null || this.#straight.byteLength < byteLength) {
      this.#freeStraight()
      this.#straight = { byteLength, first: this.allocate(byteLength), second: this.allocate(byteLength) }
    }
    runner.run(picture, pictureAt, out, this.#straight.first.at, this.#straight.second.at, person, form)
  }

  #freeStraight(): void {
    if (this.#straight === null) return
    this.heap.free(this.#straight.first)
    this.heap.free(this.#straight.second)
    this.#straight = null
  }

  #level(entry: TreatedEntry, index: number, widthPx: number, heightPx: number): Level {
    const known = entry.levels[index]
    if (known !== undefined && known.widthPx === widthPx && known.heightPx === heightPx) return known
    if (known !== undefined) this.heap.free(known.block)
    const block = this.allocate(widthPx * heightPx * 4)
    const level = { widthPx, heightPx, at: block.at, block }
    entry.levels[index] = level
    return level
  }

  /** Allocates from the heap; when it is full, evicts least recently used surfaces. */
  allocate(byteLength: number): Block {
    for (;;) {
      try {
        return this.heap.allocate(byteLength)
      } catch (error) {
        // The newest of each may be in use by whoever asks.
        if (this.surfaces.evictOldest()) continue
        if (this.#treated.size > 1) this.#treated.pop()
        else if (this.#uploads.size > 1) this.#uploads.pop()
        else throw error
      }
    }
  }

  #freeLevels(levels: readonly Level[]): void {
    for (const level of levels) this.heap.free(level.block)
  }
}
