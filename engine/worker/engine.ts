// The engine: owns the loop, the sources, the on-air picture and everything drawn from them.
import { inputSourceId } from '../../core/inputs/source-ids.ts'
import { Heap } from '../cpu/heap.ts'
import { Treatments } from '../cpu/treatments.ts'
import { DrawingBook } from './drawing-book.ts'
import { Executors, type ExecutorPin } from '../executors.ts'
import type { EngineStats, FromEngine, PersonFiles, ToEngine } from '../protocol.ts'
import { StillLoader } from '../still/still-loader.ts'
import { LiveIds } from './live-ids.ts'
import type { LiveSource } from './live-source.ts'
import { LiveSources } from './live-sources.ts'
import { EngineReports } from './engine-reports.ts'
import { FeedPace } from './feed-pace.ts'
import { Figures } from './figures.ts'
import { FrameLedger } from './frame-ledger.ts'
import { LoadBudget } from './load-budget.ts'
import { Pacer, WORKER_CLOCK } from './pacer.ts'
import { grabPicture } from './grab-picture.ts'
import { GrabQueue } from './grab-queue.ts'
import { FeedWriter } from './feed-writer.ts'
import { WEBCAM, type OutputOrder } from '../output-order.ts'
import { OnAir } from './on-air.ts'
import { ShowBook } from './show-book.ts'
import { PersonFinder } from './person-finder.ts'
import { followed } from './rate-meter.ts'
import { ResourceBook } from './resource-book.ts'
import { openRasterWorker } from '../raster-worker/open-raster-worker.ts'
import { RasterClient } from '../raster-worker/raster-client.ts'
import type { RasterFiles } from '../raster-worker/protocol.ts'
import { SourceBook } from '../sources/source-book.ts'
import { View } from './view.ts'
import { Views, type AirState } from './views.ts'
import { openContext } from './open-context.ts'

/** While the feed runs it comes first: what the presenter sees is drawn at half the rate. */
const TICKS_PER_VIEW_ON_AIR = 2
/** A mean frame that takes longer leaves too little of a thirtieth of a second to others. */
const SHORT_OF_TIME_MS = 22

export class Engine {
  readonly #post: (message: FromEngine, transfer?: Transferable[]) => void
  readonly #executors: Executors
  readonly #air: OnAir
  readonly #book: SourceBook
  readonly #ledger = new FrameLedger()
  readonly #resources: ResourceBook
  readonly #persons: PersonFinder
  readonly #figures: Figures
  readonly #pacer: Pacer
  readonly #budget = new LoadBudget()
  readonly #pace = new FeedPace()
  readonly #live: LiveSources
  readonly #views: Views
  readonly #drawings: DrawingBook
  readonly #shows = new ShowBook((showId) => this.#drawings.of(showId))
  readonly #liveIds = new LiveIds()
  #isPageHidden = false
  readonly #reports: EngineReports
  readonly #grabs: GrabQueue
  readonly #rasters: RasterClient
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
    this.#reports = new EngineReports(post)
    this.#executors = new Executors(new Treatments(heap), openContext, (state) => post({ type: 'executor', state }))
    this.#executors.pin(pin)
    this.#views = new Views(() => post({ type: 'firstPicture' }))
    this.#live = new LiveSources(this.#ledger, {
      onFrame: (inputId, source) => this.#takeFrame(inputId, source),
      onGone: (inputId, ended) => {
        this.#book.remove(inputSourceId(inputId))
        if (ended !== null) this.#post({ type: 'supplyEnded', inputId, ...ended })
      },
    })
    const stills = new StillLoader()
    const assetUrl = (asset: string) => `${rasterFiles.assetUrlPrefix}${asset}`
    const loadAsset = (asset: string) => stills.load(assetUrl(asset))
    this.#rasters = new RasterClient(
      rasterFiles,
      openRasterWorker,
      (requestId, picture) => post({ type: 'covered', requestId, picture }, picture === null ? [] : [picture.data.buffer as ArrayBuffer]),
      { onPainted: (answer) => this.#drawings.receive(answer), onLost: () => this.#drawings.startAgain() },
    )
    this.#book = new SourceBook(loadAsset, this.#rasters, {
      onChange: () => {
        this.#invalidate()
        post({ type: 'sources', infos: [...this.#book.infos] })
      },
      onAssetFailed: (asset, reason) => post({ type: 'assetFailed', asset, reason }),
      onRaster: () => this.#showSoon(),
      onRasterFailed: (reason) => this.#reports.tellFault(reason),
    })
    this.#drawings = new DrawingBook((request) => this.#rasters.paintStrokes(request), this.#book.frames, {
      onChange: () => this.#invalidate(),
      onPainted: () => this.#showSoon(),
    })
    this.#figures = new Figures(this.#executors, this.#book, post)
    this.#air = new OnAir(this.#executors.make(), this.#book, this.#rasters, this.#shows, this.#liveIds)
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
    const tick = (nowMs: number) => this.#tick(nowMs)
    this.#pacer = new Pacer(WORKER_CLOCK, tick, (error) => this.#faulted(error))
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
        return this.#figures.watchMotion(message.inputId)
      case 'supply':
        return this.#live.open(message.inputId, message)
      case 'supplyGone':
        return this.#live.drop(message.inputId)
      case 'openView':
        return this.#views.open(message.viewId, new View(message.canvas, message.request, this.#executors, this.#book, this.#shows.openDrawings))
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
        return this.#figures.pick(this.#shows.open, message)
      case 'watch':
        return this.#figures.watchScopes(message.inputId, message.layer)
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
    this.#book.follow(together)
    if (this.#liveIds.follow(together.inputs)) this.#live.keepOnly(new Set(together.inputs.map((input) => input.id)))
    this.#resources.follow(together)
    this.#persons.follow(together)
    this.#drawings.follow(this.#air.programme.drawings, this.#shows.all)
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
    this.#figures.takeFrame(inputId, source)
    if (this.#live.beatInputId(this.#air.drawnSources) === inputId) this.#pacer.beat()
  }

  #invalidate(): void {
    this.#air.invalidate()
    this.#figures.invalidate()
    this.#views.invalidate()
  }

  #tick(nowMs: number): void {
    const show = this.#shows.open
    if (show === null) return
    const started = performance.now()
    this.#ticks += 1
    this.#live.rest(this.#isPageHidden && !this.#air.isAnyOpen && !this.#figures.watchesMotion)
    this.#budget.begin(nowMs)
    const isViewTick = !this.#air.isFeedOpen || this.#pace.divider > 1 || this.#ticks % TICKS_PER_VIEW_ON_AIR === 0
    const showsViews = !this.#isPageHidden && isViewTick && this.#budget.takeLarge(nowMs)
    const wantsAir = this.#air.isAnyOpen || (showsViews && this.#views.wantsAir(this.#airState()))
    if (wantsAir) {
      const picture = this.#air.makePictures(nowMs)
      this.#airMs = followed(this.#airMs, performance.now() - started)
      if (showsViews && picture !== null) this.#views.showAir(picture, this.#airState(), nowMs)
    }
    if (showsViews) {
      const hasTime = this.#budget.takeSmall(nowMs)
      this.#views.draw(show, this.#airState(), nowMs, hasTime)
      if (hasTime) this.#figures.measureScopes(show, nowMs, this.#air.isFeedOpen)
    }
    this.#grabs.serve(nowMs)
    this.#longestRasterMs = Math.max(this.#longestRasterMs, this.#book.rasters.takeSpentMs())
    const tookMs = performance.now() - started
    this.#budget.spend(tookMs)
    this.#frameMs = followed(this.#frameMs, tookMs)
    if (this.#air.isFeedOpen) this.#keepPace(nowMs)
    this.#reports.tellStats(nowMs, () => this.#stats(nowMs))
  }

  /** On a machine that cannot hold the rate, every second picture goes out, evenly. */
  #keepPace(nowMs: number): void {
    this.#pace.note(nowMs, this.#pacer.fullPeriodMs)
    this.#pacer.divide(this.#pace.divider)
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
      this.#reports.tellStats(nowMs, () => this.#stats(nowMs))
    } finally {
      this.#reports.tellFault(reason)
    }
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
