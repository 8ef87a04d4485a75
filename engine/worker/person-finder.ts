// Asks a worker of its own where the person is, for each camera whose treatment wants to know.
import { inputIdOf } from '../../core/layers/index.ts'
import { inputSourceId } from '../../core/inputs/source-ids.ts'
import { activeSteps } from '../../core/steps/treatment.ts'
import type { SourceId } from '../../core/picture/source.ts'
import type { Plane } from '../../core/picture/float-picture.ts'
import type { Picture } from '../../core/picture/picture.ts'
import { walkLayers } from '../../core/layers/tree.ts'
import type { Layer, Show } from '../../core/show/show.ts'
import { needsPerson } from '../../core/steps/chain.ts'
import { PERSON_HEIGHT_PX, PERSON_WIDTH_PX, type FromPerson, type ToPerson } from '../person/person-protocol.ts'
import { shrinkPicture } from '../person/shrink-picture.ts'
import type { PersonFiles } from '../protocol.ts'

/** Between two looks, at least: more masks would take the machine from the picture. While it is short of time anyway, fewer are made. */
const LOOK_EVERY_MS = 55
const LOOK_EVERY_MS_WHEN_SHORT = 95
/** A look without an answer for this long will not get one; the first may wait for the model to load. */
const ANSWER_MS = 20_000
/** Failures in a row that are told. */
const MISSES_TOLD = 10
const MOST_RESTARTS = 3

export interface PersonFinderEvents {
  readonly onMask: (sourceId: SourceId, mask: Plane | null) => void
  readonly onFailed: (reason: string) => void
  /** The newest picture of a source. */
  readonly pictureOf: (sourceId: SourceId) => Picture | null
  /** Whether pictures take so long that there is hardly time for anything else. */
  readonly isShortOfTime: () => boolean
}

export class PersonFinder {
  readonly #files: PersonFiles
  readonly #events: PersonFinderEvents
  #worker: Worker | null = null
  #wanted = new Set<SourceId>()
  readonly #byLayers = new WeakMap<readonly Layer[], readonly string[]>()
  /** Sources whose picture is being looked at. */
  readonly #busy = new Set<SourceId>()
  /** Sources with a newer picture than the one that is looked at: a held picture must not keep the mask of the one before. */
  readonly #overtaken = new Set<SourceId>()
  readonly #lastMs = new Map<SourceId, number>()
  #misses = 0
  #restarts = 0

  constructor(files: PersonFiles, events: PersonFinderEvents) {
    this.#files = files
    this.#events = events
  }

  /** Looks in the inputs whose treatment, or that of a layer, works on the room. */
  follow(show: Show): void {
    const wanted = new Set<SourceId>()
    for (const { id, treatment } of show.inputs) if (needsPerson(activeSteps(treatment))) wanted.add(inputSourceId(id))
    const inputIds = new Set(show.inputs.map(({ id }) => id))
    for (const { layers } of show.scenes) for (const id of this.#inputsWithPerson(layers)) if (inputIds.has(id)) wanted.add(inputSourceId(id))
    for (const sourceId of this.#wanted) if (!wanted.has(sourceId)) this.#events.onMask(sourceId, null)
    this.#wanted = wanted
    if (wanted.size === 0) this.#stop()
    else this.#worker ??= this.#start()
  }

  /** Inputs of layers whose own treatment works on the room; each list of layers is walked once. */
  #inputsWithPerson(layers: readonly Layer[]): readonly string[] {
    let known = this.#byLayers.get(layers)
    if (known === undefined) {
      known = [...walkLayers(layers)].flatMap(({ layer }) => (needsPerson(activeSteps(layer.treatment)) ? (inputIdOf(layer) ?? []) : []))
      this.#byLayers.set(layers, known)
    }
    return known
  }

  /** Offers a new picture; it is looked at if the last one is done and long enough ago. */
  look(sourceId: SourceId, picture: Picture): void {
    if (this.#worker === null || !this.#wanted.has(sourceId)) return
    const now = performance.now()
    if (this.#busy.has(sourceId) && now - this.#lastMs.get(sourceId)! > ANSWER_MS) this.#startAgain()
    if (this.#busy.has(sourceId) || now - (this.#lastMs.get(sourceId) ?? -Infinity) < this.#everyMs) {
      this.#overtaken.add(sourceId)
      return
    }
    if (this.#worker === null) return
    this.#overtaken.delete(sourceId)
    this.#lastMs.set(sourceId, now)
    this.#busy.add(sourceId)
    const small = shrinkPicture(picture, PERSON_WIDTH_PX, PERSON_HEIGHT_PX)
    this.#worker.postMessage({ type: 'look', sourceId, data: small } satisfies ToPerson, [small.buffer])
  }

  get #everyMs(): number {
    return this.#events.isShortOfTime() ? LOOK_EVERY_MS_WHEN_SHORT : LOOK_EVERY_MS
  }

  #start(): Worker {
    const worker = new Worker(new URL('../person/person.worker.ts', import.meta.url), { type: 'module', name: 'person' })
    worker.onmessage = ({ data }: MessageEvent<FromPerson>) => {
      if (data.type === 'failed') {
        this.#events.onFailed(data.reason)
        this.#stop()
        return
      }
      this.#busy.delete(data.sourceId)
      this.#catchUp(data.sourceId)
      if (data.type === 'lookFailed') return this.#missed(data.reason)
      this.#misses = 0
      if (this.#wanted.has(data.sourceId)) this.#events.onMask(data.sourceId, { widthPx: PERSON_WIDTH_PX, heightPx: PERSON_HEIGHT_PX, data: data.mask })
    }
    worker.onerror = (event) => {
      this.#events.onFailed(event.message)
      this.#stop()
    }
    worker.postMessage({ type: 'start', files: this.#files } satisfies ToPerson)
    return worker
  }

  /** Looks at the newest picture as soon as it may, if no other comes first. */
  #catchUp(sourceId: SourceId): void {
    const wait = this.#everyMs - (performance.now() - (this.#lastMs.get(sourceId) ?? -Infinity))
    setTimeout(
      () => {
        if (!this.#overtaken.has(sourceId) || this.#busy.has(sourceId)) return
        const picture = this.#events.pictureOf(sourceId)
        if (picture !== null) this.look(sourceId, picture)
      },
      Math.max(0, wait) + 1,
    )
  }

  /** Looks may fail now and then; if none succeeds the presenter is told. */
  #missed(reason: string): void {
    this.#misses += 1
    if (this.#misses === MISSES_TOLD) this.#events.onFailed(reason)
  }

  /** The worker gave no answer at all: another takes its place. */
  #startAgain(): void {
    this.#stop()
    this.#restarts += 1
    if (this.#restarts > MOST_RESTARTS) this.#events.onFailed('the person finder does not answer')
    else this.#worker = this.#start()
  }

  #stop(): void {
    this.#worker?.terminate()
    this.#worker = null
    this.#busy.clear()
  }
}
