// The page's handle on the engine's worker.
import { DocumentSender } from '../../core/patch/document-sync.ts'
import { isSameRef, type SceneRef } from '../../core/programme/programme.ts'
import { usualTransitions } from '../../core/transitions/index.ts'
import type { SourceId, SourceInfo } from '../../core/picture/source.ts'
import type { Show } from '../../core/show/show.ts'
import type { FaceFile } from '../../core/text/typefaces.ts'
import type { SeenPicture } from '../../core/sync/clap-picture.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { OutputId } from '../../core/plan/frame-plan.ts'
import type { ExecutorPin, ExecutorState } from '../executors.ts'
import type { OutputOrder } from '../output-order.ts'
import type { LiveSupply, EngineStats, FromEngine, LayerPlace, PersonFiles, Scopes, ToEngine, ViewRequest } from '../protocol.ts'

export interface StudioEngineEvents {
  readonly onReady?: () => void
  readonly onExecutor?: (state: ExecutorState) => void
  readonly onFirstPicture?: () => void
  readonly onSources?: (infos: ReadonlyMap<SourceId, SourceInfo>) => void
  readonly onStats?: (stats: EngineStats) => void
  readonly onScopes?: (inputId: string, scopes: Scopes) => void
  readonly onMotion?: (sample: SeenPicture) => void
  /** People can't be found in pictures; the reason is for the log. */
  readonly onPersonFailed?: (reason: string) => void
  readonly onAssetFailed?: (asset: string, reason: string) => void
  readonly onSupplyEnded?: (inputId: string, fault: string | null) => void
  /** A frame could not be made; the engine goes on. */
  readonly onFaulted?: (reason: string) => void
  /** The worker is gone without a word: another must be made. */
  readonly onGone?: () => void
  /** The worker died; `start` may be called again. */
  readonly onFailed?: (reason: string) => void
}

/** A show under its id. */
export interface KnownShow {
  readonly showId: string
  readonly show: Show
}

export interface StudioShows {
  readonly open: KnownShow
  /** What is on air instead of the open show; null when that is on air, or nothing. */
  readonly held: KnownShow | null
  readonly onAir: SceneRef | null
}

export interface EngineFiles {
  readonly makeWorker: () => Worker
  readonly wasmUrl: string
  readonly loadFonts: () => Promise<readonly FaceFile[]>
  readonly assetUrlPrefix: string
  readonly personFiles: PersonFiles
}

export class StudioEngine {
  readonly #files: EngineFiles
  readonly #events: StudioEngineEvents
  readonly #picks = new Map<number, (colour: string | null) => void>()
  readonly #covers = new Map<number, (picture: RgbaPicture | null) => void>()
  readonly #grabs = new Map<number, (picture: RgbaPicture | null) => void>()
  readonly #documents = new Map<string, DocumentSender<Show>>()
  #openId: string | null = null
  #onAir: SceneRef | null = null
  #worker: Worker
  #nextId = 1
  readonly #tracks = new Map<OutputId, MediaStreamTrack>()
  readonly #lifeLock = `green-room-engine ${crypto.randomUUID()}`
  readonly #disposal = new AbortController()

  constructor(files: EngineFiles, pin: ExecutorPin, events: StudioEngineEvents) {
    this.#files = files
    this.#events = events
    this.#worker = this.#start(pin)
  }

  /**
   * Gives the open show, and what is on air: a scene of it, or of `held`, which is another show or an earlier state of this one that still has the
   * scene.
   */
  follow({ open, held, onAir }: StudioShows): void {
    const isNewOnAir = !isSameRef(onAir, this.#onAir)
    const isEarlierState = held?.showId === open.showId
    // The worker keeps what is on air by itself; an earlier state of the open show it needs only to begin with.
    if (held !== null && (!isEarlierState || isNewOnAir)) this.#sendDocument(held)
    if (isEarlierState) this.#take(onAir)
    this.#sendDocument(open)
    if (open.showId !== this.#openId) this.#post({ type: 'openShow', showId: open.showId })
    this.#openId = open.showId
    this.#take(onAir)
    for (const showId of this.#documents.keys()) {
      if (showId === open.showId || showId === held?.showId) continue
      this.#documents.delete(showId)
      this.#post({ type: 'dropDocument', showId })
    }
  }

  /** Sends the holding card in place of what is on air, or no longer. */
  setCard(isShown: boolean): void {
    this.#post({ type: 'programme', message: { type: 'card', isShown } })
  }

  #sendDocument({ showId, show }: KnownShow): void {
    const sender = this.#documents.get(showId) ?? new DocumentSender<Show>()
    this.#documents.set(showId, sender)
    const change = sender.changeTo(show)
    if (change.type === 'whole' || change.patch.length > 0) this.#post({ type: 'document', showId, change })
  }

  #take(onAir: SceneRef | null): void {
    if (onAir === null || isSameRef(onAir, this.#onAir)) return
    this.#onAir = onAir
    this.#post({ type: 'programme', message: { type: 'take', scene: onAir, transition: usualTransitions.cut } })
  }

  /** Gives an input's pictures to the worker, which owns them from now on. `setsBeat`: whether the feed may follow them. */
  setSupply(inputId: string, supply: LiveSupply, setsBeat: boolean): void {
    this.#post({ type: 'supply', inputId, supply, setsBeat }, [supply.type === 'stream' ? supply.readable : supply.port])
  }

  dropSupply(inputId: string): void {
    this.#post({ type: 'supplyGone', inputId })
  }

  /** Lets the engine draw into a canvas. Returns the view's id. */
  openView(canvas: OffscreenCanvas, request: ViewRequest): string {
    const viewId = `view-${this.#nextId++}`
    this.#post({ type: 'openView', viewId, canvas, request }, [canvas])
    return viewId
  }

  changeView(viewId: string, request: ViewRequest): void {
    this.#post({ type: 'changeView', viewId, request })
  }

  closeView(viewId: string): void {
    this.#post({ type: 'closeView', viewId })
  }

  /** Lets the processor or the graphics card make the pictures, or the faster one. */
  pinExecutor(pin: ExecutorPin): void {
    this.#post({ type: 'pinExecutor', pin })
  }

  /** Takes the graphics card away, or gives it back. */
  simulateLoss(isLost: boolean): void {
    this.#post({ type: 'simulateLoss', isLost })
  }

  setPageHidden(isHidden: boolean): void {
    this.#post({ type: 'pageHidden', isHidden })
  }

  freeze(inputId: string, isFrozen: boolean): void {
    this.#post({ type: 'freeze', inputId, isFrozen })
  }

  /** Starts an output, or goes on with it; the track lives until `closeOutput`. */
  openOutput(order: OutputOrder): MediaStreamTrack {
    const known = this.#tracks.get(order.id)
    if (known !== undefined) return known
    const generator = new MediaStreamTrackGenerator({ kind: 'video' })
    generator.contentHint = 'motion'
    this.#tracks.set(order.id, generator)
    this.#post({ type: 'openOutput', order, writable: generator.writable }, [generator.writable])
    return generator
  }

  /** The track of an output while it runs. */
  trackOf(id: OutputId): MediaStreamTrack | null {
    return this.#tracks.get(id) ?? null
  }

  closeOutput(id: OutputId): void {
    this.#post({ type: 'closeOutput', id })
    this.#tracks.get(id)?.stop()
    this.#tracks.delete(id)
  }

  /** The colour at (x, y) of an input, 0..1 across, as step `beforeStepId` meets it; null without a picture. */
  pick(inputId: string, x: number, y: number, beforeStepId: string | null, layer: LayerPlace | null): Promise<string | null> {
    const requestId = this.#nextId++
    return new Promise((resolve) => {
      this.#picks.set(requestId, resolve)
      this.#post({ type: 'pick', requestId, inputId, x, y, beforeStepId, layer })
    })
  }

  /** Tells what moves in a camera's pictures until told otherwise; null for none. */
  watchMotion(inputId: string | null): void {
    this.#post({ type: 'watchMotion', inputId })
  }

  /** Measures an input's scopes until told otherwise; null for none. */
  watch(inputId: string | null, layer: LayerPlace | null): void {
    this.#post({ type: 'watch', inputId, layer })
  }

  /** An input's picture as it reaches step `beforeStepId` (null: as it comes); null while there is none. */
  grab(inputId: string, beforeStepId: string | null, layer: LayerPlace | null): Promise<RgbaPicture | null> {
    const requestId = this.#nextId++
    return new Promise((resolve) => {
      this.#grabs.set(requestId, resolve)
      this.#post({ type: 'grab', requestId, inputId, beforeStepId, layer })
    })
  }

  /** A still of a scene of any show, `widthPx` wide; null where it cannot be drawn, or once the signal says that nobody waits. */
  cover(show: Show, sceneId: string, widthPx: number, signal: AbortSignal): Promise<RgbaPicture | null> {
    const requestId = this.#nextId++
    return new Promise((resolve) => {
      if (signal.aborted) return resolve(null)
      this.#covers.set(requestId, resolve)
      signal.addEventListener('abort', () => {
        if (!this.#covers.delete(requestId)) return
        this.#post({ type: 'dropCover', requestId })
        resolve(null)
      })
      return this.#post({ type: 'cover', requestId, show, sceneId, widthPx })
    })
  }

  dispose(): void {
    for (const resolve of this.#covers.values()) resolve(null)
    for (const resolve of this.#grabs.values()) resolve(null)
    for (const resolve of this.#picks.values()) resolve(null)
    for (const id of [...this.#tracks.keys()]) this.closeOutput(id)
    this.#disposal.abort()
    this.#worker.terminate()
  }

  /** Waits for the lock that the worker holds while it lives. A busy worker keeps it; a dead one does not. */
  #watchLife(): void {
    navigator.locks
      .request(this.#lifeLock, { signal: this.#disposal.signal }, () => this.#events.onGone?.())
      .catch((error: unknown) => {
        if (!this.#disposal.signal.aborted) this.#events.onFailed?.(error instanceof Error ? error.message : String(error))
      })
  }

  #start(pin: ExecutorPin): Worker {
    const worker = this.#files.makeWorker()
    worker.onmessage = ({ data }: MessageEvent<FromEngine>) => this.#receive(data)
    worker.onerror = (event) => this.#events.onFailed?.(event.message)
    const { wasmUrl, assetUrlPrefix, personFiles } = this.#files
    // Until then the worker keeps what it is told.
    this.#files.loadFonts().then(
      (fonts) => worker.postMessage({ type: 'start', wasmUrl, fonts, assetUrlPrefix, personFiles, pin, lifeLock: this.#lifeLock } satisfies ToEngine),
      (error: unknown) => this.#events.onFailed?.(error instanceof Error ? error.message : String(error)),
    )
    return worker
  }

  #post(message: ToEngine, transfer: Transferable[] = []): void {
    this.#worker.postMessage(message, transfer)
  }

  #receive(message: FromEngine): void {
    switch (message.type) {
      case 'ready':
        return this.#events.onReady?.()
      case 'executor':
        return this.#events.onExecutor?.(message.state)
      case 'firstPicture':
        return this.#events.onFirstPicture?.()
      case 'sources':
        return this.#events.onSources?.(new Map(message.infos))
      case 'stats':
        return this.#events.onStats?.(message.stats)
      case 'picked':
        this.#picks.get(message.requestId)?.(message.colour)
        this.#picks.delete(message.requestId)
        return
      case 'covered':
        this.#covers.get(message.requestId)?.(message.picture)
        this.#covers.delete(message.requestId)
        return
      case 'grabbed':
        this.#grabs.get(message.requestId)?.(message.picture)
        this.#grabs.delete(message.requestId)
        return
      case 'scopes':
        return this.#events.onScopes?.(message.inputId, message.scopes)
      case 'motion':
        return this.#events.onMotion?.(message.sample)
      case 'personFailed':
        return this.#events.onPersonFailed?.(message.reason)
      case 'assetFailed':
        return this.#events.onAssetFailed?.(message.asset, message.reason)
      case 'supplyEnded':
        return this.#events.onSupplyEnded?.(message.inputId, message.fault)
      case 'alive':
        return this.#watchLife()
      case 'faulted':
        return this.#events.onFaulted?.(message.reason)
      case 'failed':
        return this.#events.onFailed?.(message.reason)
      default:
        message satisfies never
    }
  }
}
