// Every source that has a picture now, and what the planner needs to know of it.
import { inputKindOf } from '../../core/inputs/index.ts'
import type { SourceId, SourceInfo } from '../../core/picture/source.ts'
import { outlinePicture } from '../../core/outline/outline-picture.ts'
import type { FramePlan, TextJob } from '../../core/plan/frame-plan.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { Show } from '../../core/show/show.ts'
import type { SourceFrame } from '../executor.ts'
import type { LoadedStill } from '../still/still-protocol.ts'
import { textPicture } from '../text/text-picture.ts'
import { clearPicture, colourPicture, openTextCanvas, stillFrame } from './still-sources.ts'

/** Pictures of texts and outlines that are kept: some 25 as large as a 720p canvas, or hundreds of usual ones. */
export const RASTER_BYTES = 96 * 1024 * 1024
/** What a plan asked for this long ago may be on air still: plans stand while nothing changes. */
const IN_USE_MS = 2000
const CARD_FAMILY = 'Bricolage Grotesque'

/** The typefaces that texts are set in. */
export interface TextFonts {
  readonly isReady: (family: string, text: string) => boolean
  readonly load: (family: string, text: string) => Promise<void>
  /** The CSS font-family list for a text whose letters are there. */
  readonly stackFor: (family: string, text: string) => string
}

export interface SourceBookEvents {
  /** Sizes or presence of sources changed: plans are stale. */
  readonly onChange: () => void
  readonly onAssetFailed: (asset: string, reason: string) => void
}

/** The picture of a text or an outline. */
interface Raster {
  /** Whether it is its own, and not one that holds its place. */
  readonly isOwn: boolean
  readonly byteLength: number
  /** When a plan last asked for it. */
  readonly usedMs: number
}

export class SourceBook {
  readonly frames = new Map<SourceId, SourceFrame>()
  readonly infos = new Map<SourceId, SourceInfo>()
  /** Texts and outlines that have a picture; those that were asked for longest ago come first. */
  readonly #rasters = new Map<SourceId, Raster>()
  #rasterBytes = 0
  /** The newest picture of each text, whatever it said. */
  readonly #lastOf = new Map<string, RgbaPicture>()
  readonly #assets = new Map<string, Promise<LoadedStill>>()
  /** Which asset an input's source shows or is loading. */
  readonly #assetOf = new Map<SourceId, string>()
  readonly #loadAsset: (asset: string) => Promise<LoadedStill>
  readonly #events: SourceBookEvents
  readonly #fonts: TextFonts
  #versions = 0

  constructor(loadAsset: (asset: string) => Promise<LoadedStill>, fonts: TextFonts, events: SourceBookEvents) {
    this.#loadAsset = loadAsset
    this.#fonts = fonts
    this.#events = events
  }

  /** Brings still sources in line with the show; pictures load in the background. */
  follow(show: Show): void {
    const wanted = new Set<SourceId>()
    const assets = new Set<string>()
    for (const input of show.inputs) {
      const { sourceId, still } = inputKindOf(input)
      const id = sourceId(input)
      const known = still(input)
      wanted.add(id)
      if (known?.type === 'colour' && !this.frames.has(id)) this.setStill(id, { picture: colourPicture(known.colour), isOpaque: true })
      if (known?.type !== 'asset') continue
      assets.add(known.asset)
      if (this.#assetOf.get(id) !== known.asset) void this.#load(id, known.asset)
    }
    for (const asset of [...this.#assets.keys()]) if (!assets.has(asset)) this.#assets.delete(asset)
    // Of inputs, and of colours that an input had once.
    for (const id of [...this.infos.keys()]) if (!wanted.has(id)) this.remove(id)
  }

  /** Takes over the newest picture of a camera, a screen or a clip. */
  setLive(id: SourceId, frame: SourceFrame): void {
    this.frames.set(id, frame)
    const { widthPx, heightPx, format } = frame.picture
    const known = this.infos.get(id)
    if (known?.widthPx === widthPx && known.heightPx === heightPx) return
    this.infos.set(id, { widthPx, heightPx, isOpaque: format === 'i420' })
    this.#events.onChange()
  }

  /** Whether a text or an outline has its own picture, and not one that holds its place. */
  isSet(id: SourceId): boolean {
    return this.#rasters.get(id)?.isOwn === true
  }

  /** Forgets a source. */
  remove(id: SourceId): void {
    this.#assetOf.delete(id)
    this.frames.delete(id)
    if (this.infos.delete(id)) this.#events.onChange()
  }

  /** Makes sure that the texts and outlines of a plan have pictures. A text whose letters are still loading shows what there was of it, or nothing, until then. */
  layOut({ texts, outlines }: Pick<FramePlan, 'texts' | 'outlines'>): void {
    for (const { sourceId, outline, widthPx, heightPx } of outlines) {
      if (!this.#isKept(sourceId)) this.#keep(sourceId, outlinePicture(outline, widthPx, heightPx), true)
    }
    for (const job of texts) {
      if (this.#isKept(job.sourceId)) continue
      const isReady = this.#hasLetters(job)
      if (!isReady && this.#rasters.has(job.sourceId)) continue
      const picture = isReady ? textPicture(job, openTextCanvas, (family, text) => this.#fonts.stackFor(family, text)) : this.#placeholderFor(job)
      this.#keep(job.sourceId, picture, isReady)
      if (isReady) this.#lastOf.set(job.contentId, picture)
    }
    this.#makeRoom()
  }

  /** Whether a raster is there as it should be; then it is in use from now on. */
  #isKept(id: SourceId): boolean {
    const known = this.#rasters.get(id)
    if (known === undefined || !known.isOwn) return false
    this.#rasters.delete(id)
    this.#rasters.set(id, { ...known, usedMs: performance.now() })
    return true
  }

  #keep(id: SourceId, picture: RgbaPicture, isOwn: boolean): void {
    this.#versions += 1
    this.frames.set(id, stillFrame(picture, this.#versions))
    this.#rasterBytes += picture.data.length - (this.#rasters.get(id)?.byteLength ?? 0)
    this.#rasters.delete(id)
    this.#rasters.set(id, { isOwn, byteLength: picture.data.length, usedMs: performance.now() })
  }

  /** Lets go what was asked for longest ago, and what nobody asks for now; a plan that still shows it asks again. */
  #makeRoom(): void {
    const now = performance.now()
    let hasGone = false
    for (const [id, { byteLength, usedMs }] of this.#rasters) {
      if (this.#rasterBytes <= RASTER_BYTES || now - usedMs < IN_USE_MS) break
      this.#rasterBytes -= byteLength
      this.#rasters.delete(id)
      this.frames.delete(id)
      hasGone = true
    }
    if (!hasGone) return
    // Copies for placeholders would hold on to what has just been let go.
    this.#lastOf.clear()
    this.#events.onChange()
  }

  /** The last picture of the same text, where it has the size; clear otherwise. */
  #placeholderFor({ contentId, widthPx, heightPx }: TextJob): RgbaPicture {
    const last = this.#lastOf.get(contentId)
    return last?.widthPx === widthPx && last.heightPx === heightPx ? last : clearPicture(widthPx, heightPx)
  }

  /** The font-family list for words of the holding card, once their letters are there; null until then. */
  cardFont(words: string): string | null {
    if (this.#fonts.isReady(CARD_FAMILY, words)) return this.#fonts.stackFor(CARD_FAMILY, words)
    void this.#fonts.load(CARD_FAMILY, words).then(() => this.#events.onChange())
    return null
  }

  /** Whether a text's letters are there; if not, they are sent for, and the text is set when they come. */
  #hasLetters({ content }: TextJob): boolean {
    const text = content.blocks.map((block) => block.text).join('')
    if (this.#fonts.isReady(content.family, text)) return true
    void this.#fonts.load(content.family, text).then(() => this.#events.onChange())
    return false
  }

  /** Gives a source a picture that stays. */
  setStill(id: SourceId, { picture, isOpaque }: LoadedStill): void {
    this.#versions += 1
    this.frames.set(id, stillFrame(picture, this.#versions))
    this.infos.set(id, { widthPx: picture.widthPx, heightPx: picture.heightPx, isOpaque })
    this.#events.onChange()
  }

  async #load(id: SourceId, asset: string): Promise<void> {
    this.#assetOf.set(id, asset)
    const loading = this.#assets.get(asset) ?? this.#loadAsset(asset)
    this.#assets.set(asset, loading)
    try {
      const still = await loading
      if (this.#assetOf.get(id) === asset) this.setStill(id, still)
    } catch (error) {
      this.#assets.delete(asset)
      this.#assetOf.delete(id)
      this.#events.onAssetFailed(asset, error instanceof Error ? error.message : String(error))
    }
  }
}
