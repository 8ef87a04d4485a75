// Tables, uploaded pictures and treated pictures, shared by everything an engine draws.
import type { Picture } from '../../core/picture/picture.ts'
import type { Draw, SourceId } from '../../core/plan/frame-plan.ts'
import { prepareChain, type PreparedChain } from '../../core/steps/chain.ts'
import type { StepCall } from '../../core/steps/index.ts'
import type { SourceFrame } from '../executor.ts'
import { ColourMemo, type AlphaForm, type CodeSpace } from './colour-memo.ts'
import type { Block, Heap } from './heap.ts'
import { RowTreater } from './row-treater.ts'

const TABLES_KEPT = 5
const PICTURES_KEPT = 24
const UPLOADS_KEPT = 16
const NOTHING: PreparedChain = { keep: { left: 0, top: 0, right: 0, bottom: 0 }, points: [] }

/** A chain made ready for one kind of picture. */
export interface BakedChain {
  readonly chain: PreparedChain
  readonly memo: ColourMemo
}

/** Packed premultiplied pixels in the heap. */
export interface HeapPicture {
  readonly widthPx: number
  readonly heightPx: number
  readonly at: number
}

interface BakedEntry {
  key: string
  chain: PreparedChain
  /** A picture that the table fits. */
  like: Picture | null
  readonly memo: ColourMemo
  lastUse: number
}

interface Level extends HeapPicture {
  readonly block: Block
}

interface TreatedEntry {
  version: number
  /** How many levels belong to `version`. */
  current: number
  levels: Level[]
  lastUse: number
}

interface Upload {
  block: Block
  picture: Picture
  version: number
  lastUse: number
}

/** Least-recently-used caches around one heap. */
export class Treatments {
  readonly heap: Heap
  readonly rows: RowTreater
  readonly #baked: BakedEntry[] = []
  readonly #treated = new Map<string, TreatedEntry>()
  readonly #uploads = new Map<SourceId, Upload>()
  #uses = 0

  constructor(heap: Heap) {
    this.heap = heap
    this.rows = new RowTreater(heap)
  }

  /** The table of a chain for pictures like `picture`: a camera may change its size or coding. */
  bake(steps: readonly StepCall[], stepsKey: string, picture: Picture, form: AlphaForm = 'premultiplied'): BakedChain {
    this.#uses += 1
    let entry: BakedEntry | null = null
    for (let i = 0; i < this.#baked.length; i += 1) if (this.#baked[i]!.key === stepsKey) entry = this.#baked[i]!
    if (entry !== null && isAlike(entry.like, picture)) {
      entry.lastUse = this.#uses
      return entry
    }
    const chain = prepareChain(steps, picture.widthPx, picture.heightPx)
    entry ??= this.#freeTable()
    entry.key = stepsKey
    entry.chain = chain
    entry.like = picture
    entry.lastUse = this.#uses
    entry.memo.reset(chain.points, spaceOf(picture), form)
    return entry
  }

  /** Where the bytes of a source's picture lie; copied once per version. */
  upload(sourceId: SourceId, frame: SourceFrame): number {
    this.#uses += 1
    const { picture, version } = frame
    let entry = this.#uploads.get(sourceId)
    if (entry !== undefined && entry.version === version && entry.picture === picture) {
      entry.lastUse = this.#uses
      return entry.block.at
    }
    if (entry !== undefined && entry.picture.data.length !== picture.data.length) {
      this.heap.free(entry.block)
      this.#uploads.delete(sourceId)
      entry = undefined
    }
    if (entry === undefined) {
      if (this.#uploads.size >= UPLOADS_KEPT) this.#dropOldestUpload()
      entry = { block: this.#allocate(picture.data.length), picture, version, lastUse: 0 }
      this.#uploads.set(sourceId, entry)
    }
    this.heap.bytes.set(picture.data, entry.block.at)
    entry.picture = picture
    entry.version = version
    entry.lastUse = this.#uses
    return entry.block.at
  }

  /** The treated, halved picture of a draw; computed once per source version. */
  treated(draw: Draw, frame: SourceFrame): HeapPicture {
    this.#uses += 1
    let entry = this.#treated.get(draw.treatedKey)
    if (entry === undefined) {
      if (this.#treated.size >= PICTURES_KEPT) this.#dropOldestPicture()
      entry = { version: -1, current: 0, levels: [], lastUse: 0 }
      this.#treated.set(draw.treatedKey, entry)
    }
    entry.lastUse = this.#uses
    if (entry.version !== frame.version) entry.current = 0
    if (entry.current === 0) {
      this.#treatWhole(draw, frame, this.#level(entry, 0, frame.picture.widthPx, frame.picture.heightPx))
      entry.current = 1
      entry.version = frame.version
    }
    for (; entry.current <= draw.halvings; entry.current += 1) {
      const source = entry.levels[entry.current - 1]!
      const level = this.#level(entry, entry.current, Math.max(1, source.widthPx >> 1), Math.max(1, source.heightPx >> 1))
      this.heap.kernels.halve(source.at, source.widthPx, level.at, level.widthPx, level.heightPx)
    }
    return entry.levels[draw.halvings]!
  }

  /** Forgets everything and gives all memory back. */
  dispose(): void {
    for (const entry of this.#baked) entry.memo.dispose()
    for (const entry of this.#treated.values()) for (const level of entry.levels) this.heap.free(level.block)
    for (const upload of this.#uploads.values()) this.heap.free(upload.block)
    this.#baked.length = 0
    this.#treated.clear()
    this.#uploads.clear()
    this.rows.dispose()
  }

  #treatWhole(draw: Draw, frame: SourceFrame, level: Level): void {
    const { picture } = frame
    const { chain, memo } = this.bake(draw.steps, draw.treatedKey, picture)
    const pictureAt = this.upload(draw.sourceId, frame)
    // The last row may overshoot into the slack of its block; the others into the next row, which follows.
    for (let y = 0; y < picture.heightPx; y += 1) {
      this.rows.treat(picture, pictureAt, memo, chain.keep, y, level.at + y * picture.widthPx * 4)
    }
  }

  #level(entry: TreatedEntry, index: number, widthPx: number, heightPx: number): Level {
    const known = entry.levels[index]
    if (known !== undefined && known.widthPx === widthPx && known.heightPx === heightPx) return known
    if (known !== undefined) this.heap.free(known.block)
    const block = this.#allocate(widthPx * heightPx * 4)
    const level = { widthPx, heightPx, at: block.at, block }
    entry.levels[index] = level
    return level
  }

  #freeTable(): BakedEntry {
    const memo = this.#baked.length < TABLES_KEPT ? this.#newTable() : null
    if (memo !== null) {
      const entry = { key: '', chain: NOTHING, like: null, memo, lastUse: 0 }
      this.#baked.push(entry)
      return entry
    }
    let oldest = this.#baked[0]!
    for (const entry of this.#baked) if (entry.lastUse < oldest.lastUse) oldest = entry
    return oldest
  }

  /** Another table; null when there is no room and an old one can serve. */
  #newTable(): ColourMemo | null {
    try {
      return new ColourMemo(this.heap)
    } catch (error) {
      if (this.#baked.length === 0) throw error
      return null
    }
  }

  /** Memory from the heap; when it is full, what was not used for longest makes room. */
  #allocate(byteLength: number): Block {
    for (;;) {
      try {
        return this.heap.allocate(byteLength)
      } catch (error) {
        // The newest of each may be in use by whoever asks.
        if (this.#treated.size > 1) this.#dropOldestPicture()
        else if (this.#uploads.size > 1) this.#dropOldestUpload()
        else throw error
      }
    }
  }

  #dropOldestPicture(): void {
    const key = oldestKey(this.#treated)
    for (const level of this.#treated.get(key)!.levels) this.heap.free(level.block)
    this.#treated.delete(key)
  }

  #dropOldestUpload(): void {
    const key = oldestKey(this.#uploads)
    this.heap.free(this.#uploads.get(key)!.block)
    this.#uploads.delete(key)
  }
}

function oldestKey(entries: ReadonlyMap<string, { readonly lastUse: number }>): string {
  let oldest = ''
  let oldestUse = Infinity
  for (const [key, entry] of entries) {
    if (entry.lastUse >= oldestUse) continue
    oldestUse = entry.lastUse
    oldest = key
  }
  return oldest
}

/** Whether two pictures have one size and one coding. */
function isAlike(first: Picture | null, second: Picture): boolean {
  if (first === null || first.widthPx !== second.widthPx || first.heightPx !== second.heightPx) return false
  if (first.format === 'rgba' || second.format === 'rgba') return first.format === second.format
  return first.matrix === second.matrix && first.range === second.range
}

/** How the codes of a picture are read. */
export function spaceOf(picture: Picture): CodeSpace {
  return picture.format === 'rgba' ? 'rgb' : { matrix: picture.matrix, range: picture.range }
}
