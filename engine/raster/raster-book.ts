// The rasters that plans refer to: made off the tick, kept within a byte budget, the one asked for longest ago goes first.
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { SourceId } from '../../core/picture/source.ts'
import type { FramePlan } from '../../core/plan/frame-plan.ts'
import type { SourceFrame } from '../executor.ts'
import type { Raster, RasterMaker, Urgency } from './raster.ts'

/** Some 25 as large as a 720p canvas, or hundreds of usual ones. */
export const RASTER_BYTES = 96 * 1024 * 1024
/** What was asked for this long ago may be shown still. */
const IN_USE_MS = 2000
/** One that could not be made is tried again after this long. */
const RETRY_MS = 5000

export type RasterPlan = Pick<FramePlan, 'texts' | 'outlines'>
type RasterOfPlan = Exclude<Raster, { type: 'card' }>

interface KeptRaster {
  readonly byteLength: number
  readonly usedMs: number
  /** `standIn`: something holds its place for now. `failed`: it cannot be made. */
  readonly state: 'own' | 'standIn' | 'failed'
}

export interface RasterEvents {
  /** One that was asked for is there. */
  readonly onMade?: () => void
  readonly onFailed?: (reason: string) => void
}

export class RasterBook {
  readonly #maker: RasterMaker
  readonly #frames: Map<SourceId, SourceFrame>
  readonly #events: RasterEvents
  /** Those that have a picture; what was asked for longest ago comes first. */
  readonly #kept = new Map<SourceId, KeptRaster>()
  readonly #making = new Set<SourceId>()
  /** The newest picture of each text, whatever it said. */
  readonly #lastOf = new Map<string, RgbaPicture>()
  #bytes = 0
  #spentMs = 0
  #versions = 0

  /** Puts its pictures into `frames`, where executors look for them. */
  constructor(maker: RasterMaker, frames: Map<SourceId, SourceFrame>, events: RasterEvents = {}) {
    this.#maker = maker
    this.#frames = frames
    this.#events = events
  }

  /** Has everything made that a plan needs and that is not there. */
  ask(plan: RasterPlan, urgency: Urgency): void {
    const startedMs = performance.now()
    for (const raster of rastersOf(plan)) if (!this.#isUsable(raster.job.sourceId)) this.#make(raster, urgency)
    this.#makeRoom()
    this.#spentMs += performance.now() - startedMs
  }

  /** Milliseconds that asking has taken since this was last called: for measurements. */
  takeSpentMs(): number {
    const spentMs = this.#spentMs
    this.#spentMs = 0
    return spentMs
  }

  /** Whether all that a plan needs is there; it is in use from now on. What cannot be made is not waited for. */
  hasAll(plan: RasterPlan): boolean {
    let isWhole = true
    for (const { job } of rastersOf(plan)) isWhole = this.#isUsable(job.sourceId) && isWhole
    return isWhole
  }

  /** Lets something hold the place of what is still being made: the last picture of the same text where it has the size, nothing otherwise. */
  standIn(plan: RasterPlan): void {
    for (const raster of rastersOf(plan)) if (!this.#kept.has(raster.job.sourceId)) this.#keep(raster.job.sourceId, this.#standInFor(raster), 'standIn')
  }

  /** Whether a raster is there itself, and nothing in its place. */
  isSet(id: SourceId): boolean {
    return this.#kept.get(id)?.state === 'own'
  }

  #isUsable(id: SourceId): boolean {
    const known = this.#kept.get(id)
    if (known === undefined || known.state === 'standIn') return false
    const nowMs = performance.now()
    if (known.state === 'failed') return nowMs - known.usedMs < RETRY_MS
    this.#kept.delete(id)
    this.#kept.set(id, { ...known, usedMs: nowMs })
    return true
  }

  #make(raster: RasterOfPlan, urgency: Urgency): void {
    const id = raster.job.sourceId
    if (this.#making.has(id)) return
    try {
      const made = this.#maker.make(raster, urgency)
      if (!(made instanceof Promise)) return this.#made(raster, made)
      this.#making.add(id)
      made
        .then((picture) => this.#made(raster, picture))
        .catch((error: unknown) => this.#failed(raster, error))
        .finally(() => this.#making.delete(id))
    } catch (error) {
      this.#failed(raster, error)
    }
  }

  #made(raster: RasterOfPlan, picture: RgbaPicture): void {
    this.#keep(raster.job.sourceId, picture, 'own')
    if (raster.type === 'text') this.#lastOf.set(raster.job.contentId, picture)
    this.#events.onMade?.()
  }

  #failed(raster: RasterOfPlan, error: unknown): void {
    this.#keep(raster.job.sourceId, this.#standInFor(raster), 'failed')
    this.#events.onFailed?.(error instanceof Error ? error.message : String(error))
  }

  #keep(id: SourceId, picture: RgbaPicture, state: KeptRaster['state']): void {
    this.#versions += 1
    this.#frames.set(id, { picture, version: this.#versions, isLive: false })
    this.#bytes += picture.data.length - (this.#kept.get(id)?.byteLength ?? 0)
    this.#kept.delete(id)
    this.#kept.set(id, { state, byteLength: picture.data.length, usedMs: performance.now() })
  }

  #makeRoom(): void {
    const nowMs = performance.now()
    let hasGone = false
    for (const [id, { byteLength, usedMs }] of this.#kept) {
      if (this.#bytes <= RASTER_BYTES || nowMs - usedMs < IN_USE_MS) break
      this.#bytes -= byteLength
      this.#kept.delete(id)
      this.#frames.delete(id)
      hasGone = true
    }
    // Stand-ins would hold on to what has just been let go.
    if (hasGone) this.#lastOf.clear()
  }

  #standInFor({ type, job }: RasterOfPlan): RgbaPicture {
    const last = type === 'text' ? this.#lastOf.get(job.contentId) : undefined
    if (last?.widthPx === job.widthPx && last.heightPx === job.heightPx) return last
    return { format: 'rgba', widthPx: job.widthPx, heightPx: job.heightPx, data: new Uint8Array(job.widthPx * job.heightPx * 4) }
  }
}

function* rastersOf({ texts, outlines }: RasterPlan): Generator<RasterOfPlan> {
  for (const job of texts) yield { type: 'text', job }
  for (const job of outlines) yield { type: 'outline', job }
}
