// Every source that has a picture now, and what the planner needs to know of it.
import { outlinePicture } from '../../core/outline/outline-picture.ts'
import type { FramePlan, SourceId, SourceInfo, TextJob } from '../../core/plan/frame-plan.ts'
import { plainSourceId, inputSourceId } from '../../core/plan/plan-frame.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { Show } from '../../core/show/show.ts'
import type { SourceFrame } from '../executor.ts'
import type { LoadedStill } from '../still/still-protocol.ts'
import { textPicture } from '../text/text-picture.ts'
import { clearPicture, colourPicture, openTextCanvas, stillFrame } from './still-sources.ts'

const TEXTS_KEPT = 160
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

export class SourceBook {
  readonly frames = new Map<SourceId, SourceFrame>()
  readonly infos = new Map<SourceId, SourceInfo>()
  /** Texts and outlines that have a picture, and whether it is theirs. */
  readonly #texts = new Map<SourceId, boolean>()
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
    for (const input of show.inputs) {
      const id = input.kind === 'colour' ? plainSourceId(input.colour) : inputSourceId(input.id)
      wanted.add(id)
      if (input.kind === 'colour' && !this.frames.has(id)) this.setStill(id, { picture: colourPicture(input.colour), isOpaque: true })
      if (input.kind === 'picture' && this.#assetOf.get(id) !== input.asset) void this.#load(id, input.asset)
    }
    const assets = new Set(show.inputs.map((input) => (input.kind === 'picture' ? input.asset : '')))
    for (const asset of [...this.#assets.keys()]) if (!assets.has(asset)) this.#assets.delete(asset)
    for (const id of [...this.infos.keys()]) if (id.startsWith('input:') && !wanted.has(id)) this.remove(id)
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
    return this.#texts.get(id) === true
  }

  /** Forgets a source. */
  remove(id: SourceId): void {
    this.#assetOf.delete(id)
    this.frames.delete(id)
    if (this.infos.delete(id)) this.#events.onChange()
  }

  /** Makes sure that the texts and outlines of a plan have pictures. A text whose letters are still loading shows what there was of it, or nothing, until then. */
  layOut({ texts, outlines }: Pick<FramePlan, 'texts' | 'outlines'>): void {
    if (this.#texts.size > TEXTS_KEPT) {
      for (const id of this.#texts.keys()) this.frames.delete(id)
      this.#texts.clear()
      this.#lastOf.clear()
      this.#events.onChange()
    }
    for (const { sourceId, outline, widthPx, heightPx } of outlines) {
      if (this.#texts.has(sourceId)) continue
      this.#versions += 1
      this.frames.set(sourceId, stillFrame(outlinePicture(outline, widthPx, heightPx), this.#versions))
      this.#texts.set(sourceId, true)
    }
    for (const job of texts) {
      if (this.#texts.get(job.sourceId) === true) continue
      const isReady = this.#hasLetters(job)
      if (!isReady && this.#texts.has(job.sourceId)) continue
      this.#versions += 1
      const picture = isReady ? textPicture(job, openTextCanvas, (family, text) => this.#fonts.stackFor(family, text)) : this.#placeholderFor(job)
      this.frames.set(job.sourceId, stillFrame(picture, this.#versions))
      this.#texts.set(job.sourceId, isReady)
      if (isReady) this.#lastOf.set(job.contentId, picture)
    }
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
