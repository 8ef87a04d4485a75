// Every source that has a picture now, and what the planner needs to know of it.
import { inputKindOf } from '../../core/inputs/index.ts'
import type { Input } from '../../core/inputs/input.ts'
import { inputIdOf, pageIdOf } from '../../core/layers/index.ts'
import { layersOf } from '../../core/layers/tree.ts'
import type { SourceId, SourceInfo } from '../../core/picture/source.ts'
import type { Show } from '../../core/show/show.ts'
import type { SourceFrame } from '../executor.ts'
import type { LoadedStill } from '../still/still-protocol.ts'
import { RasterBook } from '../raster/raster-book.ts'
import type { RasterMaker } from '../raster/raster.ts'
import { colourPicture, stillFrame } from './still-sources.ts'

export interface SourceBookEvents {
  /** Sizes or presence of sources changed: plans are stale. */
  readonly onChange: () => void
  readonly onAssetFailed: (asset: string, reason: string) => void
  /** A text or an outline that was asked for is there. */
  readonly onRaster?: () => void
  readonly onRasterFailed?: (reason: string) => void
}

export class SourceBook {
  readonly frames = new Map<SourceId, SourceFrame>()
  readonly infos = new Map<SourceId, SourceInfo>()
  /** Texts and outlines. */
  readonly rasters: RasterBook
  readonly #assets = new Map<string, Promise<LoadedStill>>()
  /** Which asset an input's source shows or is loading. */
  readonly #assetOf = new Map<SourceId, string>()
  readonly #loadAsset: (asset: string) => Promise<LoadedStill>
  readonly #events: SourceBookEvents
  #versions = 0

  constructor(loadAsset: (asset: string) => Promise<LoadedStill>, maker: RasterMaker, events: SourceBookEvents) {
    this.#loadAsset = loadAsset
    this.rasters = new RasterBook(maker, this.frames, { onMade: () => events.onRaster?.(), onFailed: (reason) => events.onRasterFailed?.(reason) })
    this.#events = events
  }

  /** Brings still sources in line with the show; pictures load in the background. */
  follow(show: Show): void {
    const wanted = new Set<SourceId>()
    const assets = new Set<string>()
    for (const { input, pageId } of shownInputs(show)) {
      const { sourceId, still } = inputKindOf(input)
      const id = sourceId(input, pageId)
      const known = still(input, pageId)
      wanted.add(id)
      if (known?.type === 'colour' && !this.frames.has(id)) this.setStill(id, { picture: colourPicture(known.colour), isOpaque: true })
      if (known?.type !== 'asset') continue
      assets.add(known.asset)
      if (this.#assetOf.get(id) !== known.asset) void this.#load(id, known.asset)
    }
    for (const asset of show.inputs.flatMap((input) => inputKindOf(input).ahead(input))) {
      assets.add(asset)
      this.#decodeAhead(asset)
    }
    for (const asset of [...this.#assets.keys()]) if (!assets.has(asset)) this.#assets.delete(asset)
    // Of inputs, and of colours that an input had once.
    for (const id of [...this.infos.keys(), ...this.#assetOf.keys()]) if (!wanted.has(id)) this.remove(id)
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

  /** Forgets a source. */
  remove(id: SourceId): void {
    this.#assetOf.delete(id)
    this.frames.delete(id)
    if (this.infos.delete(id)) this.#events.onChange()
  }

  /** Gives a source a picture that stays. */
  setStill(id: SourceId, { picture, isOpaque }: LoadedStill): void {
    this.#versions += 1
    this.frames.set(id, stillFrame(picture, this.#versions))
    const { widthPx, heightPx } = picture
    const known = this.infos.get(id)
    // A page like the one before it: plans hold, and the next picture has it.
    if (known?.widthPx === widthPx && known.heightPx === heightPx && known.isOpaque === isOpaque) return this.#events.onRaster?.()
    this.infos.set(id, { widthPx, heightPx, isOpaque })
    this.#events.onChange()
  }

  /** What cannot be decoded is told of when it is wanted. */
  #decodeAhead(asset: string): void {
    if (this.#assets.has(asset)) return
    const loading = this.#loadAsset(asset)
    this.#assets.set(asset, loading)
    loading.catch(() => this.#assets.get(asset) === loading && this.#assets.delete(asset))
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

/** Every input, and every page that some layer stays at. */
function* shownInputs(show: Show): Generator<{ readonly input: Input; readonly pageId: string | null }> {
  const byId = new Map(show.inputs.map((input) => [input.id, input]))
  for (const input of show.inputs) yield { input, pageId: null }
  for (const scene of show.scenes) {
    for (const layer of layersOf(scene)) {
      const pageId = pageIdOf(layer)
      const input = pageId === null ? undefined : byId.get(inputIdOf(layer) ?? '')
      if (input !== undefined) yield { input, pageId }
    }
  }
}
