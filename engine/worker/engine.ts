// The engine: owns the loop, the sources, the on-air picture and everything drawn from them.
import { formatHex } from '../../core/colour/hex.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { SourceId } from '../../core/plan/frame-plan.ts'
import { inputSourceId } from '../../core/plan/plan-frame.ts'
import { withHeld } from '../../core/show/held.ts'
import type { Show } from '../../core/show/show.ts'
import { blockMeans } from '../../core/sync/clap-picture.ts'
import { Heap } from '../cpu/heap.ts'
import { Treatments } from '../cpu/treatments.ts'
import { Executors, type ExecutorPin } from '../executors.ts'
import type { CameraSupply, EngineStats, FromEngine, PersonFiles, ToEngine } from '../protocol.ts'
import { StillLoader } from '../still/still-loader.ts'
import { CameraSource } from './camera-source.ts'
import { FrameLedger } from './frame-ledger.ts'
import { Pacer } from './pacer.ts'
import { grabPicture } from './grab-picture.ts'
import { GrabQueue } from './grab-queue.ts'
import { OnAir } from './on-air.ts'
import { PersonFinder } from './person-finder.ts'
import { pickColour } from './pick-colour.ts'
import { ResourceBook } from './resource-book.ts'
import { ScopeWatch } from './scope-watch.ts'
import { treatmentOf } from './steps-of.ts'
import { SourceBook, type TextFonts } from './source-book.ts'
import { View } from './view.ts'
import { openContext } from './open-context.ts'

const STATS_EVERY_MS = 500
/** Small views are drawn this often, and this many in one tick. */
const SMALL_VIEW_EVERY_MS = 160
const SMALL_VIEWS_PER_TICK = 2
/** While the feed runs it comes first: what the presenter sees is drawn at half the rate. */
const TICKS_PER_VIEW_ON_AIR = 2
const SMALL_VIEW_EVERY_MS_ON_AIR = 400
/** A mean frame that takes longer leaves too little of a thirtieth of a second to others. */
const SHORT_OF_TIME_MS = 22
const MOST_TOLD_FAULTS = 20
const SCOPES_EVERY_MS = 220
const SCOPES_EVERY_MS_ON_AIR = 600

export class Engine {
  readonly #post: (message: FromEngine, transfer?: Transferable[]) => void
  readonly #executors: Executors
  readonly #air: OnAir
  readonly #book: SourceBook
  readonly #ledger = new FrameLedger()
  readonly #resources: ResourceBook
  readonly #persons: PersonFinder
  #scopes: ScopeWatch | null = null
  readonly #pacer: Pacer
  readonly #cameras = new Map<string, CameraSource>()
  readonly #views = new Map<string, View>()
  #motionInputId: string | null = null
  #show: Show | null = null
  /** The show on air when it is not the open one. */
  #held: Show | null = null
  #isPageHidden = false
  #hasShownPicture = false
  #cameraIds: ReadonlySet<SourceId> = new Set()
  readonly #toldFaults = new Set<string>()
  readonly #grabs: GrabQueue
  #lastStatsMs = 0
  #ticks = 0
  #frameMs = 0
  /** Of it, what the picture on air takes. */
  #airMs = 0

  constructor(
    heap: Heap,
    fonts: TextFonts,
    assetUrl: (asset: string) => string,
    personFiles: PersonFiles,
    pin: ExecutorPin,
    post: (message: FromEngine, transfer?: Transferable[]) => void,
  ) {
    this.#post = post
    this.#executors = new Executors(new Treatments(heap), openContext, (state) => post({ type: 'executor', state }))
    this.#executors.pin(pin)
    const stills = new StillLoader()
    const loadAsset = (asset: string) => stills.load(assetUrl(asset))
    this.#book = new SourceBook(loadAsset, fonts, {
      onChange: () => {
        this.#invalidate()
        post({ type: 'sources', infos: [...this.#book.infos] })
      },
      onAssetFailed: (asset, reason) => post({ type: 'assetFailed', asset, reason }),
    })
    this.#air = new OnAir(this.#executors.make(), this.#book, this.#ledger, (sourceId) => this.#cameraIds.has(sourceId))
    this.#resources = new ResourceBook(assetUrl, loadAsset, {
      onChange: (resources) => this.#executors.setResources(resources),
      onFailed: (asset, reason) => post({ type: 'assetFailed', asset, reason }),
    })
    this.#persons = new PersonFinder(personFiles, {
      onMask: (sourceId, mask) => this.#executors.setPerson(sourceId, mask),
      onFailed: (reason) => post({ type: 'personFailed', reason }),
      pictureOf: (sourceId) => this.#book.frames.get(sourceId)?.picture ?? null,
      isShortOfTime: () => this.#air.isFeedOpen && this.#frameMs > SHORT_OF_TIME_MS,
    })
    this.#grabs = new GrabQueue(
      ({ inputId, beforeStepId, layer }) => (this.#show === null ? null : grabPicture(this.#show, this.#book, this.#executors, inputId, beforeStepId, layer)),
      ({ requestId }, picture) => post({ type: 'grabbed', requestId, picture }, picture === null ? [] : [picture.data.buffer as ArrayBuffer]),
    )
    this.#pacer = new Pacer(
      { now: () => performance.now(), setTimer: (run, delay) => setTimeout(run, delay) as unknown as number, clearTimer: (timer) => clearTimeout(timer) },
      (nowMs) => this.#tick(nowMs),
      (error) => this.#faulted(error),
    )
  }

  /** Acts on one message of the page. */
  receive(message: Exclude<ToEngine, { type: 'start' }>): void {
    switch (message.type) {
      case 'show':
        return this.#setShow(message.show, message.held, message.onAirId)
      case 'watchMotion':
        this.#motionInputId = message.inputId
        return
      case 'card':
        this.#air.isCardWanted = message.isWanted
        return
      case 'camera':
        return this.#setCamera(message.inputId, message.supply)
      case 'cameraGone':
        return this.#dropCamera(message.inputId)
      case 'openView':
        this.#views.set(message.viewId, new View(message.canvas, message.request, this.#executors))
        return
      case 'changeView':
        return this.#changeView(message.viewId, message.request)
      case 'closeView':
        this.#views.get(message.viewId)?.dispose()
        this.#views.delete(message.viewId)
        return
      case 'pageHidden':
        this.#isPageHidden = message.isHidden
        return
      case 'freeze':
        this.#cameras.get(message.inputId)?.freeze(message.isFrozen)
        return
      case 'openFeed':
        return this.#air.openFeed(message.writable)
      case 'closeFeed':
        return this.#air.closeFeed()
      case 'pick':
        return this.#pick(message)
      case 'watch':
        this.#scopes?.dispose()
        this.#scopes = message.inputId === null ? null : new ScopeWatch(message.inputId, message.layer, this.#executors)
        return
      case 'grab':
        return this.#grabs.ask(message, performance.now())
      case 'pinExecutor':
        return this.#executors.pin(message.pin)
      case 'simulateLoss':
        return this.#executors.simulateLoss(message.isLost)
      default:
        message satisfies never
    }
  }

  #setShow(show: Show, held: Show | null, onAirId: string | null): void {
    this.#show = show
    this.#held = held
    this.#air.sceneId = onAirId
    const both = withHeld(show, held)
    this.#cameraIds = new Set(both.inputs.filter((input) => input.kind === 'camera').map((input) => inputSourceId(input.id)))
    this.#book.follow(both)
    this.#resources.follow(both)
    this.#persons.follow(both)
    for (const inputId of [...this.#cameras.keys()]) {
      if (!both.inputs.some((input) => input.id === inputId)) this.#dropCamera(inputId)
    }
    this.#invalidate()
    this.#pacer.start((held ?? show).canvas.frameRate)
  }

  #setCamera(inputId: string, supply: CameraSupply): void {
    this.#cameras.get(inputId)?.close()
    const id = inputSourceId(inputId)
    const events = {
      onFrame: () => {
        if (this.#cameras.get(inputId) !== source) return
        this.#book.setLive(id, source.frame!)
        this.#persons.look(id, source.frame!.picture)
        if (this.#motionInputId === inputId) this.#tellMotion(source)
        if (this.#beatInputId() === inputId) this.#pacer.beat()
      },
      onEnd: () => {
        if (this.#cameras.get(inputId) !== source) return
        this.#dropCamera(inputId)
        this.#post({ type: 'cameraEnded', inputId })
      },
    }
    const source: CameraSource =
      supply.type === 'stream' ? CameraSource.fromStream(supply.readable, this.#ledger, events) : CameraSource.fromPort(supply.port, events)
    this.#cameras.set(inputId, source)
  }

  /** When it came, on the clock that all threads share, and what it looks like in coarse. */
  #tellMotion({ frame, captureMs }: CameraSource): void {
    const sample = { arrivalMs: performance.timeOrigin + performance.now(), captureMs, blocks: blockMeans(frame!.picture) }
    this.#post({ type: 'motion', sample }, [sample.blocks.buffer as ArrayBuffer])
  }

  #dropCamera(inputId: string): void {
    this.#cameras.get(inputId)?.close()
    this.#cameras.delete(inputId)
    this.#book.remove(inputSourceId(inputId))
  }

  /** The camera whose frames set the beat: the frontmost one on air. */
  #beatInputId(): string | null {
    const drawn = this.#air.drawnSources
    for (let i = drawn.length - 1; i >= 0; i -= 1) {
      for (const inputId of this.#cameras.keys()) if (drawn[i] === inputSourceId(inputId)) return inputId
    }
    // Nothing on air moves: any camera will do for the views.
    for (const inputId of this.#cameras.keys()) return inputId
    return null
  }

  #changeView(viewId: string, request: View['request']): void {
    const view = this.#views.get(viewId)
    if (view === undefined) return
    view.request = request
    view.lastDrawnMs = -Infinity
    view.invalidate()
  }

  #invalidate(): void {
    this.#air.invalidate()
    this.#scopes?.invalidate()
    for (const view of this.#views.values()) view.invalidate()
  }

  #tick(nowMs: number): void {
    const show = this.#show
    if (show === null) return
    const started = performance.now()
    this.#ticks += 1
    const showsViews = !this.#isPageHidden && (!this.#air.isFeedOpen || this.#ticks % TICKS_PER_VIEW_ON_AIR === 0)
    const wantsAir = this.#air.isFeedOpen || (showsViews && this.#hasAirView())
    if (wantsAir) {
      const picture = this.#air.makePicture(this.#held ?? show, nowMs)
      this.#airMs = steady(this.#airMs, performance.now() - started)
      if (showsViews && picture !== null) {
        for (const view of this.#views.values()) if (this.#isAirView(view)) this.#showOnView(view, picture, nowMs)
      }
    }
    if (showsViews) this.#drawViews(show, nowMs)
    if (showsViews) this.#measureScopes(show, nowMs)
    this.#grabs.serve(nowMs)
    this.#frameMs = steady(this.#frameMs, performance.now() - started)
    this.#tellStats(nowMs)
  }

  #tellStats(nowMs: number): void {
    if (nowMs - this.#lastStatsMs < STATS_EVERY_MS) return
    this.#lastStatsMs = nowMs
    this.#post({ type: 'stats', stats: this.#stats(nowMs) })
  }

  #showOnView(view: View, picture: RgbaPicture, nowMs: number): void {
    view.show(picture)
    view.lastDrawnMs = nowMs
    if (!this.#air.showsCard) this.#noteFirstPicture()
  }

  /**
   * A throw in the middle of a frame. The audience gets the last whole picture again, and the card when that lasts; the loop goes on,
   * and the presenter is told once for each reason.
   */
  #faulted(error: unknown): void {
    const reason = error instanceof Error ? error.message : String(error)
    const nowMs = performance.now()
    try {
      this.#air.coverFault(this.#held ?? this.#show, nowMs)
      this.#tellStats(nowMs)
    } finally {
      if (!this.#toldFaults.has(reason) && this.#toldFaults.size < MOST_TOLD_FAULTS) {
        this.#toldFaults.add(reason)
        this.#post({ type: 'faulted', reason })
      }
    }
  }

  #isAirView(view: View): boolean {
    const { request } = view
    return request.kind === 'air' || (this.#isOfAirScene(request) && !this.#air.showsCard)
  }

  #hasAirView(): boolean {
    for (const view of this.#views.values()) {
      if (view.request.kind === 'air' || this.#isOfAirScene(view.request)) return true
    }
    return false
  }

  /** Whether it asks at full size for what is on air; an open copy of a held show is something else. */
  #isOfAirScene(request: View['request']): boolean {
    return request.kind === 'scene' && !request.isSmall && this.#held === null && request.sceneId === this.#air.sceneId
  }

  #drawViews(show: Show, nowMs: number): void {
    let smallDrawn = 0
    const smallEveryMs = this.#air.isFeedOpen ? SMALL_VIEW_EVERY_MS_ON_AIR : SMALL_VIEW_EVERY_MS
    for (const view of this.#views.values()) {
      if (this.#isAirView(view)) continue
      if (view.isSmall) {
        if (smallDrawn >= SMALL_VIEWS_PER_TICK || nowMs - view.lastDrawnMs < smallEveryMs) continue
        smallDrawn += 1
      }
      const isWhole = view.draw(show, this.#book)
      view.lastDrawnMs = nowMs
      if (isWhole && !view.isSmall) this.#noteFirstPicture()
    }
    if (smallDrawn > 0) this.#rotateViews()
  }

  /** Lets the view that waited longest be drawn first. */
  #rotateViews(): void {
    for (const [viewId, view] of this.#views) {
      if (!view.isSmall) continue
      this.#views.delete(viewId)
      this.#views.set(viewId, view)
      return
    }
  }

  #noteFirstPicture(): void {
    if (this.#hasShownPicture) return
    this.#hasShownPicture = true
    this.#post({ type: 'firstPicture' })
  }

  #measureScopes(show: Show, nowMs: number): void {
    const scopes = this.#scopes
    if (scopes === null || nowMs - scopes.lastMs < (this.#air.isFeedOpen ? SCOPES_EVERY_MS_ON_AIR : SCOPES_EVERY_MS)) return
    scopes.lastMs = nowMs
    const measured = scopes.measure(show, this.#book)
    if (measured !== null) this.#post({ type: 'scopes', inputId: scopes.inputId, scopes: measured })
  }

  #pick(message: Extract<ToEngine, { type: 'pick' }>): void {
    const frame = this.#book.frames.get(inputSourceId(message.inputId))
    const show = this.#show
    const input = show?.inputs.find((candidate) => candidate.id === message.inputId)
    const colour =
      frame === undefined || show === null || input === undefined
        ? null
        : formatHex(pickColour(frame.picture, treatmentOf(show, input, message.layer), message.beforeStepId, message.x, message.y))
    this.#post({ type: 'picked', requestId: message.requestId, colour })
  }

  #stats(nowMs: number): EngineStats {
    const inputs: Record<string, EngineStats['inputs'][string]> = {}
    for (const [inputId, camera] of this.#cameras) {
      inputs[inputId] = {
        fps: camera.meter.rate(nowMs),
        widthPx: camera.frame?.picture.widthPx ?? 0,
        heightPx: camera.frame?.picture.heightPx ?? 0,
        frameNumber: camera.frameNumber,
      }
    }
    return {
      feed: this.#air.stats((this.#held ?? this.#show)?.canvas, this.#pacer.missedTicks, nowMs),
      frameMs: this.#frameMs,
      airMs: this.#airMs,
      liveFrames: this.#ledger.open,
      inputs,
    }
  }
}

/** A mean that follows slowly. */
function steady(mean: number, next: number): number {
  return mean === 0 ? next : mean * 0.95 + next * 0.05
}
