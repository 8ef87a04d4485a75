// Pictures on the graphics card, chains and what they made, shared by everything an engine draws.
import type { SourceId } from '../../core/picture/source.ts'
import type { Plane } from '../../core/picture/float-picture.ts'
import type { Picture } from '../../core/picture/picture.ts'
import type { FilteredNode, TreatedNode } from '../../core/plan/frame-plan.ts'
import { needsPerson, prepareChain } from '../../core/steps/chain.ts'
import type { ChainResources } from '../cpu/treatments.ts'
import { CHAINS_KEPT, UPLOADS_KEPT, WHILE_USED } from '../cache-limits.ts'
import type { SourceFrame } from '../executor.ts'
import { LRUCache } from 'lru-cache'
import { isAlike } from '../picture-cache.ts'
import type { GlDevice, Pass, Surface } from './device.ts'
import { GlChain } from './gl-chain.ts'
import { halveGlsl } from './halve.ts'
import { LutBook } from './lut-book.ts'
import { NO_VALUES } from './spatial/gl-work.ts'

interface Upload {
  readonly planes: readonly Surface[]
  like: Picture
  version: number
}

interface Treated {
  /** Whose person the picture depends on; null for none. */
  readonly personIn: SourceId | null
  readonly chain: GlChain
  readonly like: Picture
  version: number
  /** The treated picture, then its halves; the first belongs to the chain. */
  readonly levels: Surface[]
  current: number
}

export class GlTreatments {
  readonly device: GlDevice
  readonly #luts: LutBook
  readonly #halve: Pass
  readonly #straighten: Pass
  readonly #uploads = new LRUCache<SourceId, Upload>({
    ...WHILE_USED,
    max: UPLOADS_KEPT,
    dispose: ({ planes }) => planes.forEach((plane) => this.device.free(plane)),
  })
  /** A chain on HD pictures holds some hundred megabytes of the graphics card's memory: none stays that is not used. */
  readonly #treated = new LRUCache<string, Treated>({ ...WHILE_USED, max: CHAINS_KEPT, dispose: (entry) => this.#discard(entry) })
  readonly #persons = new Map<SourceId, Plane>()
  #resources: ChainResources = { lut: () => null, picture: () => null }

  constructor(device: GlDevice) {
    this.device = device
    this.#luts = new LutBook(device)
    this.#halve = device.pass(halveGlsl, 1, 0)
    this.#straighten = device.pass('void main() { result = straight(texelFetch(t0, here, 0)); }', 1, 0)
  }

  /** Looks and pictures that steps refer to have come or gone: chains are made anew. */
  setResources(resources: ChainResources): void {
    this.#resources = resources
    this.#treated.clear()
    this.#luts.trim()
  }

  /** Says where the person is in a source's pictures; null when nobody looks. */
  setPerson(sourceId: SourceId, mask: Plane | null): void {
    if (mask === null) this.#persons.delete(sourceId)
    else this.#persons.set(sourceId, mask)
    // A held picture is treated again.
    for (const entry of this.#treated.values()) if (entry.personIn === sourceId) entry.version = -1
  }

  /** The treated, halved picture of a node, premultiplied; made once per source version. */
  treated(node: TreatedNode, frame: SourceFrame): Surface {
    const entry = this.#entry(node, frame.picture)
    if (entry.version !== frame.version || entry.current === 0) {
      entry.levels[0] = entry.chain.run(this.#upload(node.sourceId, frame), this.#persons.get(node.sourceId) ?? null)
      entry.version = frame.version
      entry.current = 1
    }
    for (; entry.current <= node.mipLevel; entry.current += 1) {
      const source = entry.levels[entry.current - 1]!
      entry.levels[entry.current] ??= this.device.surface('half', Math.max(1, source.widthPx >> 1), Math.max(1, source.heightPx >> 1))
      this.device.run(this.#halve, entry.levels[entry.current]!, [source], NO_VALUES)
    }
    return entry.levels[node.mipLevel]!
  }

  /** A picture of the plan, premultiplied, cleaned; valid until the same node is made again. */
  filtered({ key, steps, widthPx, heightPx }: FilteredNode, before: Surface): Surface {
    const entry = this.#entry({ treatedKey: key, sourceId: '', steps }, { format: 'rgba', widthPx, heightPx, data: new Uint8Array(0) })
    const straight = (entry.levels[1] ??= this.device.surface('half', widthPx, heightPx))
    this.device.run(this.#straighten, straight, [before], NO_VALUES)
    return entry.chain.run([straight], null)
  }

  /** Forgets everything. The device stays its owner's. */
  dispose(): void {
    this.#treated.clear()
    this.#uploads.clear()
    this.#luts.dispose()
  }

  #entry({ treatedKey, sourceId, steps }: Pick<TreatedNode, 'treatedKey' | 'sourceId' | 'steps'>, picture: Picture): Treated {
    const known = this.#treated.get(treatedKey)
    if (known !== undefined && isAlike(known.like, picture)) return known
    this.#treated.delete(treatedKey)
    const { widthPx, heightPx } = picture
    const chain = new GlChain(this.device, this.#luts, prepareChain(steps, { widthPx, heightPx, ...this.#resources }), picture)
    const entry: Treated = {
      personIn: needsPerson(steps) ? sourceId : null,
      chain,
      like: picture,
      version: -1,
      levels: [],
      current: 0,
    }
    this.#treated.purgeStale()
    this.#treated.set(treatedKey, entry)
    return entry
  }

  /** Y, Cb, Cr, or one surface of straight pixels; brought to the graphics card once per version. */
  #upload(sourceId: SourceId, { picture, version }: SourceFrame): readonly Surface[] {
    let entry = this.#uploads.get(sourceId)
    if (entry === undefined || !isAlike(entry.like, picture)) {
      this.#uploads.delete(sourceId)
      entry = { planes: this.#planesFor(picture), like: picture, version: -1 }
      this.#uploads.purgeStale()
      this.#uploads.set(sourceId, entry)
    }
    if (entry.version === version && entry.like === picture) return entry.planes
    let from = 0
    for (const plane of entry.planes) {
      const length = plane.widthPx * plane.heightPx * (plane.format === 'bytes' ? 4 : 1)
      this.device.upload(plane, picture.data.subarray(from, from + length))
      from += length
    }
    entry.like = picture
    entry.version = version
    return entry.planes
  }

  #planesFor({ format, widthPx, heightPx }: Picture): readonly Surface[] {
    if (format === 'rgba') return [this.device.surface('bytes', widthPx, heightPx)]
    const chromaWidth = (widthPx + 1) >> 1
    const chromaHeight = (heightPx + 1) >> 1
    return [
      this.device.surface('byteOne', widthPx, heightPx),
      this.device.surface('byteOne', chromaWidth, chromaHeight),
      this.device.surface('byteOne', chromaWidth, chromaHeight),
    ]
  }

  #discard({ levels, chain }: Treated): void {
    levels.slice(1).forEach((level) => this.device.free(level))
    chain.dispose()
  }
}
