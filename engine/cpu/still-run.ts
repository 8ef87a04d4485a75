// Still items next to each other, flattened once: over nothing, or over the ground they lie on.
import type { SourceId } from '../../core/picture/source.ts'
import type { PixelRect } from '../../core/picture/picture.ts'
import type { Item } from '../../core/plan/frame-plan.ts'
import { EMPTY_RECT, uniteRects } from '../../core/picture/pixel-rect.ts'
import { canvasOver, fillRect, type HeapCanvas } from './heap-canvas.ts'
import type { ItemJob, JobPicture, JobTools } from './item-job.ts'
import type { Kept } from './surface-store.ts'

/** Non-clear areas of a run: per row the index of its first span (one extra at the end), and first and last column of each span. */
interface Occupied {
  rowStarts: Int32Array
  spans: Int32Array
}

/** Fewer clear pixels are not worth a span of their own. */
const LEAST_GAP_PX = 24

/** What a run asks of whoever has it. */
export interface StillSupplies {
  /** A number for the picture that a source shows now. */
  readonly stampOf: (id: SourceId) => number
  readonly pictureFor: (item: Item, region: PixelRect) => JobPicture | null
}

export class StillRun {
  readonly kind = 'still'
  readonly bounds: PixelRect
  readonly #tools: JobTools
  readonly #jobs: readonly ItemJob[]
  readonly #ground: number | null
  readonly #sources: readonly SourceId[]
  /** Content key, without the state of its sources. */
  readonly #key: string
  /** How often resources had changed, then the sources' stamps, as they were when the surface was looked up. */
  readonly #stamps: Float64Array
  #kept: Kept<Occupied> | null = null

  /** `ground` is a packed pixel under all of `whole`; null: nothing, and only what the items cover is kept. */
  constructor(tools: JobTools, jobs: readonly ItemJob[], ground: number | null, whole: PixelRect, sources: readonly SourceId[]) {
    this.#tools = tools
    this.#jobs = jobs
    this.#ground = ground
    this.#sources = sources
    this.bounds = ground === null ? jobs.reduce((all, job) => uniteRects(all, job.item.bounds), EMPTY_RECT) : whole
    const { left, top, right, bottom } = this.bounds
    this.#key = `still ${left},${top},${right},${bottom} ${ground ?? ''} ${jobs.map(({ item }) => item.key).join('; ')}`
    this.#stamps = new Float64Array(sources.length + 1).fill(-1)
  }

  /** Where it lies, after a refresh. */
  get canvas(): HeapCanvas {
    return canvasOver(this.#kept!.block.at, this.bounds)
  }

  /** Makes sure that it is flattened as its sources are now; says whether that may look different from before. */
  refresh(supplies: StillSupplies): boolean {
    const { surfaces, generation } = this.#tools.treatments
    let isSame = this.#kept !== null && !this.#kept.isEvicted && this.#stamps[0] === generation
    this.#stamps[0] = generation
    for (let i = 0; i < this.#sources.length; i += 1) {
      const stamp = supplies.stampOf(this.#sources[i]!)
      if (this.#stamps[i + 1] !== stamp) isSame = false
      this.#stamps[i + 1] = stamp
    }
    if (isSame) {
      surfaces.touch(this.#kept!)
      return false
    }
    const key = `${this.#key} ${this.#stamps.join()}`
    this.#kept = surfaces.find<Occupied>(key) ?? this.#flatten(key, supplies)
    return true
  }

  /** Puts it over a canvas, inside a region. */
  overlay(out: HeapCanvas, region: PixelRect): void {
    const { bounds, canvas } = this
    const { about } = this.#kept!
    const { kernels } = this.#tools.heap
    const bottom = Math.min(bounds.bottom, region.bottom)
    for (let y = Math.max(bounds.top, region.top); y < bottom; y += 1) {
      const end = about.rowStarts[y - bounds.top + 1]!
      for (let span = about.rowStarts[y - bounds.top]!; span < end; span += 1) {
        const left = Math.max(about.spans[span * 2]!, region.left)
        const count = Math.min(about.spans[span * 2 + 1]!, region.right) - left
        if (count <= 0) continue
        const to = out.at + y * out.strideBytes + left * 4
        kernels.blendRow(canvas.at + y * canvas.strideBytes + left * 4, to, to, count)
      }
    }
  }

  #flatten(key: string, { pictureFor }: StillSupplies): Kept<Occupied> {
    const { left, top, right, bottom } = this.bounds
    const bytes = Math.max(4, (right - left) * Math.max(0, bottom - top) * 4)
    const kept = this.#tools.treatments.surfaces.keep<Occupied>(key, bytes, { rowStarts: new Int32Array(0), spans: new Int32Array(0) })
    const canvas = canvasOver(kept.block.at, this.bounds)
    fillRect(this.#tools.heap.kernels, canvas, this.bounds, this.#ground ?? 0)
    try {
      for (const job of this.#jobs) job.run(pictureFor(job.item, this.bounds), canvas, canvas, this.bounds)
    } catch (error) {
      // Half made, it must not be found again.
      this.#tools.treatments.surfaces.drop(kept)
      throw error
    }
    if (this.#ground === null) this.#measure(kept)
    return kept
  }

  #measure({ block, about }: Kept<Occupied>): void {
    const { words } = this.#tools.heap
    const { left, top, right, bottom } = this.bounds
    const width = right - left
    const rows = Math.max(0, bottom - top)
    const spans: number[] = []
    about.rowStarts = new Int32Array(rows + 1)
    for (let row = 0; row < rows; row += 1) {
      const from = (block.at >> 2) + row * width
      let end = -1
      for (let column = 0; column < width; column += 1) {
        if (words[from + column] === 0) continue
        if (end < 0 || column - end >= LEAST_GAP_PX) spans.push(left + column, left + column + 1)
        else spans[spans.length - 1] = left + column + 1
        end = column
      }
      about.rowStarts[row + 1] = spans.length / 2
    }
    about.spans = Int32Array.from(spans)
  }
}
