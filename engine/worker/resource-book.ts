// Looks and pictures that steps refer to by name: loaded once, handed to whoever treats.
import { inputKindOf } from '../../core/inputs/index.ts'
import { parseHex } from '../../core/colour/hex.ts'
import { parseCube } from '../../core/lut/cube.ts'
import type { Lut } from '../../core/lut/lut.ts'
import { isOwnLook } from '../../core/lut/own-looks.ts'
import { lutFromPicture } from '../../core/lut/picture-lut.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { walkLayers } from '../../core/layers/tree.ts'
import type { Layer, Show, Step } from '../../core/show/show.ts'
import type { ChainResources } from '../cpu/treatments.ts'
import type { LoadedStill } from '../still/still-protocol.ts'

export interface ResourceBookEvents {
  readonly onChange: (resources: ChainResources) => void
  readonly onFailed: (reference: string, reason: string) => void
}

export class ResourceBook {
  readonly #assetUrl: (asset: string) => string
  readonly #loadAsset: (asset: string) => Promise<LoadedStill>
  readonly #events: ResourceBookEvents
  readonly #luts = new Map<string, Lut>()
  readonly #pictures = new Map<string, RgbaPicture>()
  /** What was asked for and came, is coming or failed. */
  readonly #asked = new Set<string>()
  /** Lists of layers whose steps were looked at, with the inputs of then. */
  #seen = new WeakSet<readonly Layer[]>()
  #inputs: Show['inputs'] | null = null

  constructor(assetUrl: (asset: string) => string, loadAsset: (asset: string) => Promise<LoadedStill>, events: ResourceBookEvents) {
    this.#assetUrl = assetUrl
    this.#loadAsset = loadAsset
    this.#events = events
  }

  get resources(): ChainResources {
    return { lut: (reference) => this.#luts.get(reference) ?? null, picture: (reference) => this.#pictures.get(reference) ?? null }
  }

  /** Loads what the steps of a show refer to and is not there yet. */
  follow(show: Show): void {
    // What a step refers to depends on itself and on the inputs.
    if (show.inputs !== this.#inputs) this.#seen = new WeakSet()
    this.#inputs = show.inputs
    for (const { treatment } of show.inputs) this.#wantAll(treatment, show)
    for (const { layers } of show.scenes) {
      if (this.#seen.has(layers)) continue
      this.#seen.add(layers)
      for (const { layer } of walkLayers(layers)) this.#wantAll(layer.treatment, show)
    }
  }

  #wantAll(steps: readonly Step[], show: Show): void {
    for (const step of steps) this.#want(step, show)
  }

  #want(step: Step, show: Show): void {
    if (step.kind === 'look' && !isOwnLook(step.params.look)) this.#load(step.params.look, () => this.#loadLut(step.params.look))
    if (step.kind === 'chromaKey' && step.params.plate !== '') this.#load(step.params.plate, () => this.#loadPicture(step.params.plate, step.params.plate))
    if (step.kind !== 'room' || step.params.input === '') return
    const input = show.inputs.find((candidate) => candidate.id === step.params.input)
    const still = input === undefined ? null : inputKindOf(input).still(input)
    if (input === undefined || still === null) return
    if (still.type === 'asset') return this.#load(`${input.id} ${still.asset}`, () => this.#loadPicture(input.id, still.asset))
    const [red, green, blue] = parseHex(still.colour)
    const known = this.#pictures.get(input.id)
    const data = Uint8Array.of(red * 255, green * 255, blue * 255, 255)
    if (known?.widthPx === 1 && known.data.every((value, i) => value === data[i])) return
    this.#pictures.set(input.id, { format: 'rgba', widthPx: 1, heightPx: 1, data })
    this.#events.onChange(this.resources)
  }

  #load(name: string, load: () => Promise<void>): void {
    if (name === '' || this.#asked.has(name)) return
    this.#asked.add(name)
    load().then(
      () => this.#events.onChange(this.resources),
      (error: unknown) => {
        // It may be there the next time the show changes.
        this.#asked.delete(name)
        this.#seen = new WeakSet()
        this.#events.onFailed(name, error instanceof Error ? error.message : String(error))
      },
    )
  }

  async #loadLut(asset: string): Promise<void> {
    const url = this.#assetUrl(asset)
    const response = await fetch(url)
    if (!response.ok) throw new Error(`the look could not be read (${response.status})`)
    const isText = response.headers.get('content-type')?.startsWith('application/x-cube') === true
    this.#luts.set(asset, isText ? parseCube(await response.text()) : lutFromPicture((await this.#loadAsset(asset)).picture))
  }

  async #loadPicture(name: string, asset: string): Promise<void> {
    this.#pictures.set(name, (await this.#loadAsset(asset)).picture)
  }
}
