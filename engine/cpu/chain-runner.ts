// One chain on pictures of one size and coding: tables row by row, then work on the whole picture, and so on.
import type { Plane } from '../../core/picture/float-picture.ts'
import type { Picture, PixelRect } from '../../core/picture/picture.ts'
import type { PreparedChain, Run } from '../../core/steps/chain.ts'
import type { AlphaForm, CodeSpace } from './colour-memo.ts'
import type { Heap } from './heap.ts'
import type { RowTreater } from './row-treater.ts'
import { makeLiveWork } from './spatial/index.ts'
import type { LiveTools, LiveWork } from './spatial/live-work.ts'
import type { TableCache } from './table-cache.ts'

/** How the codes of a picture are read. */
export function spaceOf(picture: Picture): CodeSpace {
  return picture.format === 'rgba' ? 'rgb' : { matrix: picture.matrix, range: picture.range }
}

export interface RunnerParts {
  readonly heap: Heap
  readonly rows: RowTreater
  readonly tables: TableCache
  readonly allocate: LiveTools['allocate']
}

export class ChainRunner {
  readonly chain: PreparedChain
  readonly #parts: RunnerParts
  readonly #widthPx: number
  readonly #heightPx: number
  /** The live form of each run's `then`; made when it is first needed. */
  readonly #works: (LiveWork | undefined)[] = []

  constructor(parts: RunnerParts, chain: PreparedChain, widthPx: number, heightPx: number) {
    this.#parts = parts
    this.chain = chain
    this.#widthPx = widthPx
    this.#heightPx = heightPx
  }

  /** Whether the chain is one table and a rectangle, so that rows can be treated on their own. */
  get isSimple(): boolean {
    return this.chain.runs.length === 1
  }

  /** The one run of a simple chain. */
  get onlyRun(): Run {
    return this.chain.runs[0]!
  }

  /**
   * Treats a whole picture, whose bytes lie at `pictureAt`, into `out`. `first` and `second` are room for straight
   * pixels, used when the chain is not simple.
   */
  run(picture: Picture, pictureAt: number, out: number, first: number, second: number, person: Plane | null, form: AlphaForm): void {
    const { runs } = this.chain
    if (this.isSimple) return this.#fromPicture(picture, pictureAt, runs[0]!, out, form)
    // Opaque pixels are the same straight and premultiplied: the work is done where its result goes.
    const isOpaque = this.chain.keepsOpaque && picture.format === 'i420' && form === 'premultiplied'
    let at = isOpaque ? out : first
    let spare = second
    let mask = person
    this.#fromPicture(picture, pictureAt, runs[0]!, at, 'straight')
    for (let i = 0; i < runs.length - 1; i += 1) {
      const work = runs[i]!.then!
      if (i > 0) this.#again(runs[i]!, at, at, 'straight')
      this.#works[i] ??= makeLiveWork(this.#tools(), work)
      const result = this.#works[i]!.run(at, spare, work.needsPerson ? mask : null)
      if (mask !== null && work.moveMask !== undefined) mask = work.moveMask(mask)
      if (result === spare) [at, spare] = [spare, at]
    }
    this.#again(runs.at(-1)!, at, out, isOpaque ? 'straight' : form)
  }

  dispose(): void {
    for (const work of this.#works) work?.dispose()
    this.#works.length = 0
  }

  #tools(): LiveTools {
    const { heap, allocate, tables } = this.#parts
    return { heap, widthPx: this.#widthPx, heightPx: this.#heightPx, allocate, table: (key, points) => tables.table(key, points, 'rgb', 'straight') }
  }

  #fromPicture(picture: Picture, pictureAt: number, run: Run, out: number, form: AlphaForm): void {
    const { rows, tables } = this.#parts
    const memo = tables.tableOf(run, spaceOf(picture), form)
    // The last row may overshoot into the slack of its block; the others into the next row, which follows.
    for (let y = 0; y < this.#heightPx; y += 1) rows.treat(picture, pictureAt, memo, run.keep, y, out + y * this.#widthPx * 4, form)
  }

  /** A later run, on straight pixels in the heap. */
  #again(run: Run, from: number, out: number, form: AlphaForm): void {
    const { heap, rows, tables } = this.#parts
    const width = this.#widthPx
    const isWhole = coversAll(run.keep, width, this.#heightPx)
    if (run.points.length === 0 && isWhole) {
      if (form === 'premultiplied') heap.kernels.premultiplyRow(from, out, width * this.#heightPx)
      else if (from !== out) heap.bytes.copyWithin(out, from, from + width * this.#heightPx * 4)
      return
    }
    const memo = tables.tableOf(run, 'rgb', form)
    for (let y = 0; y < this.#heightPx; y += 1) rows.treatStraight(from + y * width * 4, width, memo, run.keep, y, out + y * width * 4, form)
  }
}

function coversAll(rect: PixelRect, widthPx: number, heightPx: number): boolean {
  return rect.left === 0 && rect.top === 0 && rect.right === widthPx && rect.bottom === heightPx
}
