// The engine: owns the loop, the sources, the on-air picture and everything drawn from them.
import { inputSourceId } from '../../core/inputs/source-ids.ts'
import type { SourceId } from '../../core/picture/source.ts'
import { formatHex } from '../../core/colour/hex.ts'
import type { InputKind, Show } from '../../core/show/show.ts'
import { blockMeans } from '../../core/sync/clap-picture.ts'
import { Heap } from '../cpu/heap.ts'
import { Treatments } from '../cpu/treatments.ts'
import { Executors, type ExecutorPin } from '../executors.ts'
import type { EngineStats, FromEngine, PersonFiles, ToEngine } from '../protocol.ts'
import { StillLoader } from '../still/still-loader.ts'
import type { LiveSource } from './live-source.ts'
import { LiveSources } from './live-sources.ts'
import { FeedPace } from './feed-pace.ts'
import { FrameLedger } from './frame-ledger.ts'
import { LoadBudget } from './load-budget.ts'
import { Pacer } from './pacer.ts'
import { grabPicture } from './grab-picture.ts'
import { GrabQueue } from './grab-queue.ts'
import { FeedWriter } from './feed-writer.ts'
import { WEBCAM, type OutputOrder } from '../output-order.ts'
import { OnAir } from './on-air.ts'
import { ShowBook } from './show-book.ts'
import { PersonFinder } from './person-finder.ts'
import { pickColour } from './pick-colour.ts'
import { ResourceBook } from './resource-book.ts'
import { ScopeWatch } from './scope-watch.ts'
import { treatmentOf } from './steps-of.ts'
import { RasterClient } from '../raster-worker/raster-client.ts'
import type { RasterFiles } from '../raster-worker/protocol.ts'
import { SourceBook } from '../sources/source-book.ts'
import { View } from './view.ts'
import { Views, type AirState } from './views.ts'
import { openContext } from './open-context.ts'

const STATS_EVERY_MS = 500
/** While the feed runs it comes first: what the presenter sees is drawn at half the rate. */
const TICKS_PER_VIEW_ON_AIR = 2
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
  readonly #budget = new LoadBudget()
  readonly #pace = new FeedPace()
  readonly #live: LiveSources
  readonly #views: Views
  #motionInputId: string | null = null
  readonly #shows = new ShowBook()
  /** Inputs of the open show and of what is on air, as they were last followed. */
  #inputs: Show['inputs'] | null = null
  #isPageHidden = false
  #cameraIds: ReadonlySet<SourceId> = new Set()
  /** Of cameras, screens and clips: a scene that should have one and has none is not shown. */
  #liveIds: ReadonlySet<SourceId> = new Set()
  readonly #toldFaults = new Set<string>()
  readonly #grabs: GrabQueue
  readonly #rasters: RasterClient
  #lastStatsMs = 0
  #ticks = 0
  #frameMs = 0
  /** Of it, what the picture on air takes. */
  #airMs = 0
  #longestRasterMs = 0

  constructor(
    heap: Heap,
    rasterFiles: RasterFiles,
    personFiles: PersonFiles,
    pin: ExecutorPin,
    post: (message: FromEngine, transfer?: Transferable[]) => void,
  ) {
    this.#post = post
    this.#executors = new Executors(new Treatments(heap), openContext, (state) => post({ type: 'executor', state }))
    this.#executors.pin(pin)
    this.#views = new Views(() => post({ type: 'firstPicture' }))
    this.#live = new LiveSources(this.#ledger, {
      onFrame: (inputId, source) => this.#takeFrame(inputId, source),
      onGone: (inputId, ended) => {
        this.#book.remove(inputSourceId(inputId))
        if (ended !== null) this.#post({ type: 'supplyEnded', inputId, fault: ended.fault })
      },
    })
    const stills = new StillLoader()
    const assetUrl = (asset: string) => `${rasterFiles.assetUrlPrefix}${asset}`
    const loadAsset = (asset: string) => stills.load(assetUrl(asset))
    this.#rasters = new RasterClient(rasterFiles, openRasterWorker, (requestId, picture) =>
      post({ type: 'covered', requestId, picture }, picture === null ? [] : [picture.data.buffer as ArrayBuffer]),
    )
    this.#book = new SourceBook(loadAsset, this.#rasters, {
      onChange: () => {
        this.#invalidate()
        post({ type: 'sources', infos: [...this.#book.infos] })
      },
      onAssetFailed: (asset, reason) => post({ type: 'assetFailed', asset, reason }),
      onRaster: () => this.#showSoon(),
      onRasterFailed: (reason) => this.#tellFault(reason),
    })
    this.#air = new OnAir(this.#executors.make(), this.#book, this.#rasters, this.#shows, {
      isLive: (sourceId) => this.#liveIds.has(sourceId),
      isCamera: (sourceId) => this.#cameraIds.has(sourceId),
    })
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
      ({ inputId, beforeStepId, layer }) =>
        this.#shows.open === null ? null : grabPicture(this.#shows.open, this.#book, this.#executors, inputId, beforeStepId, layer),
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
      case 'document':
        this.#shows.take(message.showId, message.change)
        return this.#follow()
      case 'dropDocument':
        this.#shows.drop(message.showId)
        return this.#follow()
      case 'openShow':
        this.#shows.openId = message.showId
        return this.#follow()
      case 'programme':
        this.#air.receive(message.message, performance.now())
        return this.#follow()
      case 'watchMotion':
        this.#motionInputId = message.inputId
        return
      case 'supply':
        return this.#live.open(message.inputId, message.supply, message.setsBeat)
      case 'supplyGone':
        return this.#live.drop(message.inputId)
      case 'openView':
        return this.#views.open(message.viewId, new View(message.canvas, message.request, this.#executors, this.#book))
      case 'changeView':
        return this.#views.change(message.viewId, message.request)
      case 'closeView':
        return this.#views.close(message.viewId)
      case 'pageHidden':
        this.#isPageHidden = message.isHidden
        return
      case 'freeze':
        return this.#live.freeze(message.inputId, message.isFrozen)
      case 'openOutput':
        return this.#openOutput(message.order, message.writable)
      case 'closeOutput':
        if (message.id === WEBCAM.id) this.#pacer.divide(1)
        return this.#air.close(message.id)
      case 'pick':
        return this.#pick(message)
      case 'watch':
        this.#scopes?.dispose()
        this.#scopes = message.inputId === null ? null : new ScopeWatch(message.inputId, message.layer, this.#executors)
        return
      case 'cover':
        return this.#rasters.cover(message)
      case 'dropCover':
        return this.#rasters.dropCover(message.requestId)
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

  #openOutput(order: OutputOrder, writable: WritableStream<VideoFrame>): void {
    if (order.id === WEBCAM.id) {
      this.#pace.reset()
      this.#longestRasterMs = 0
    }
    this.#air.open(order, new FeedWriter(writable, this.#ledger))
  }

  /** Brings everything in line with the open show and what is on air. */
  #follow(): void {
    this.#shows.follow(this.#air.programme)
    const { open, together } = this.#shows
    if (open === null || together === null) return
    const idsOf = (kinds: readonly InputKind[]) => new Set(together.inputs.filter(({ kind }) => kinds.includes(kind)).map(({ id }) => inputSourceId(id)))
    if (together.inputs !== this.#inputs) {
      this.#inputs = together.inputs
      this.#cameraIds = idsOf(['camera'])
      this.#liveIds = idsOf(['camera', 'screen', 'clip'])
      this.#book.follow(together)
      this.#live.keepOnly(new Set(together.inputs.map((input) => input.id)))
    }
    this.#resources.follow(together)
    this.#persons.follow(together)
    const onAir = this.#air.show ?? open
    this.#pacer.start(onAir.canvas.frameRate)
    this.#air.prepareCard(onAir)
    this.#showSoon()
  }

  /** An edit is seen at once; the feed keeps its beat. */
  #showSoon(): void {
    if (!this.#air.isAnyOpen && this.#shows.open !== null) this.#pacer.soon()
  }

  #takeFrame(inputId: string, source: LiveSource): void {
    const id = inputSourceId(inputId)
    this.#book.setLive(id, source.frame!)
    this.#persons.look(id, source.frame!.picture)
    if (this.#motionInputId === inputId) this.#tellMotion(source)
    if (this.#live.beatInputId(this.#air.drawnSources) === inputId) this.#pacer.beat()
  }

  /** When it came, on the clock that all threads share, and what it looks like in coarse. */
  #tellMotion({ frame, captureMs }: LiveSource): void {
    const sample = { arrivalMs: performance.timeOrigin + performance.now(), captureMs, blocks: blockMeans(frame!.picture) }
    this.#post({ type: 'motion', sample }, [sample.blocks.buffer as ArrayBuffer])
  }

  #invalidate(): void {
    this.#air.invalidate()
    this.#scopes?.invalidate()
    this.#views.invalidate()
  }

  #tick(nowMs: number): void {
    const show = this.#shows.open
    if (show === null) return
    const started = performance.now()
    this.#ticks += 1
    this.#budget.begin(nowMs)
    const isViewTick = !this.#air.isFeedOpen || this.#pace.divider > 1 || this.#ticks % TICKS_PER_VIEW_ON_AIR === 0
    const showsViews = !this.#isPageHidden && isViewTick && this.#budget.takeLarge(nowMs)
    const wantsAir = this.#air.isAnyOpen || (showsViews && this.#views.wantsAir(this.#airState()))
    if (wantsAir) {
      const picture = this.#air.makePictures(nowMs)
      this.#airMs = steady(this.#airMs, performance.now() - started)
      if (showsViews && picture !== null) this.#views.showAir(picture, this.#airState(), nowMs)
    }
    if (showsViews) {
      const hasTime = this.#budget.takeSmall(nowMs)
      this.#views.draw(show, this.#airState(), nowMs, hasTime)
      if (hasTime) this.#measureScopes(show, nowMs)
    }
    this.#grabs.serve(nowMs)
    this.#longestRasterMs = Math.max(this.#longestRasterMs, this.#book.rasters.takeSpentMs())
    const tookMs = performance.now() - started
    this.#budget.spend(tookMs)
    this.#frameMs = steady(this.#frameMs, tookMs)
    if (this.#air.isFeedOpen) this.#keepPace(nowMs)
    this.#tellStats(nowMs)
  }

  /** On a machine that cannot hold the rate, every second picture goes out, evenly. */
  #keepPace(nowMs: number): void {
    this.#pace.note(nowMs, this.#pacer.fullPeriodMs)
    this.#pacer.divide(this.#pace.divider)
  }

  #tellStats(nowMs: number): void {
    if (nowMs - this.#lastStatsMs < STATS_EVERY_MS) return
    this.#lastStatsMs = nowMs
    this.#post({ type: 'stats', stats: this.#stats(nowMs) })
  }

  #airState(): AirState {
    const { isFeedOpen, showsCard, seenScene } = this.#air
    return { isFeedOpen, showsCard, sceneId: seenScene !== null && this.#shows.isOpen(seenScene) ? seenScene.sceneId : null }
  }

  /**
   * A throw in the middle of a frame. The audience gets the last whole picture again, and the card when that lasts; the loop goes on,
   * and the presenter is told once for each reason.
   */
  #faulted(error: unknown): void {
    const reason = error instanceof Error ? error.message : String(error)
    const nowMs = performance.now()
    try {
      this.#air.coverFault(nowMs)
      this.#tellStats(nowMs)
    } finally {
      this.#tellFault(reason)
    }
  }

  #tellFault(reason: string): void {
    if (this.#toldFaults.has(reason) || this.#toldFaults.size >= MOST_TOLD_FAULTS) return
    this.#toldFaults.add(reason)
    this.#post({ type: 'faulted', reason })
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
    const show = this.#shows.open
    const input = show?.inputs.find((candidate) => candidate.id === message.inputId)
    const colour =
      frame === undefined || show === null || input === undefined
        ? null
        : formatHex(pickColour(frame.picture, treatmentOf(show, input, message.layer), message.beforeStepId, message.x, message.y))
    this.#post({ type: 'picked', requestId: message.requestId, colour })
  }

  #stats(nowMs: number): EngineStats {
    const canvas = (this.#air.show ?? this.#shows.open)?.canvas
    return {
      feed: {
        ...this.#air.stats(WEBCAM.id, this.#pacer.missedTicks, nowMs)!,
        widthPx: canvas?.widthPx ?? 0,
        heightPx: canvas?.heightPx ?? 0,
        isHalved: this.#air.isFeedOpen && this.#pace.divider > 1,
      },
      outputs: this.#air.otherStats(this.#pacer.missedTicks, nowMs),
      frameMs: this.#frameMs,
      airMs: this.#airMs,
      longestRasterMs: this.#longestRasterMs,
      liveFrames: this.#ledger.open,
      inputs: this.#live.stats(nowMs),
    }
  }
}

/** A mean that follows slowly. */
function steady(mean: number, next: number): number {
  return mean === 0 ? next : mean * 0.95 + next * 0.05
}

function openRasterWorker(): Worker {
  return new Worker(new URL('../raster-worker/raster.worker.ts', import.meta.url), { type: 'module', name: 'rasters' })
}
