// What the audience gets: the picture of the scene on air, the last one once more, or the holding card, written to the feed.
import { drawHoldingCard } from '../../core/card/holding-card.ts'
import type { SourceId } from '../../core/picture/source.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { FramePlan, MissingPicture } from '../../core/plan/frame-plan.ts'
import { planFrame } from '../../core/stage/plan-frame.ts'
import { planParts } from '../../core/stage/plan-parts.ts'
import { placedLayers } from '../../core/plan/read-plan.ts'
import type { Scene, Show } from '../../core/show/show.ts'
import type { Executor } from '../executor.ts'
import type { EngineStats } from '../protocol.ts'
import { AirJudge } from './air-judge.ts'
import { FeedWriter } from './feed-writer.ts'
import type { FrameLedger } from './frame-ledger.ts'
import { MinuteCount } from './minute-count.ts'
import { KeptPlan } from './kept-plan.ts'
import type { SourceBook } from '../sources/source-book.ts'
import { openRasterCanvas } from '../raster/open-canvas.ts'
import { URGENCY, type RasterMaker } from '../raster/raster.ts'
import { wallAt } from '../sources/wall.ts'

/** Frames that may fail one after the other, about a second, before the audience gets the card. */
const FAULTS_BEFORE_CARD = 30

/** What the pictures of a source are. */
export interface SourceKinds {
  /** They come from outside, and may stay away. */
  readonly isLive: (sourceId: SourceId) => boolean
  /** They come one after the other, whatever happens in front of it. */
  readonly isCamera: (sourceId: SourceId) => boolean
}

export class OnAir {
  /** The scene on air; null for the first one of the show. */
  sceneId: string | null = null
  /** Whether the presenter wants the holding card sent. */
  isCardWanted = false
  readonly #executor: Executor
  readonly #book: SourceBook
  readonly #maker: RasterMaker
  readonly #ledger: FrameLedger
  readonly #judge = new AirJudge()
  readonly #kinds: SourceKinds
  readonly #plan: KeptPlan<Scene>
  /** When the scene came on air; null for the one that there was at first. */
  #entered: { readonly sceneId: string | null; readonly atMs: number | null } = { sceneId: null, atMs: null }
  #feed: FeedWriter | null = null
  #card: RgbaPicture | null = null
  /** Which card was asked for last. */
  #cardAsked: string | null = null
  #showsCard = true
  #leftOut: readonly MissingPicture[] = []
  #faultsInARow = 0
  #cardsSent = 0
  #repeated = 0
  /** Which pictures of cameras the last frame showed. */
  #shownVersions = ''
  /** What the loop and the feed had missed when it was last asked; null before the first picture of a feed. */
  #missedUntilNow: number | null = null
  #lost = new MinuteCount()
  #lostInAll = 0

  constructor(executor: Executor, book: SourceBook, maker: RasterMaker, ledger: FrameLedger, kinds: SourceKinds) {
    this.#executor = executor
    this.#book = book
    this.#maker = maker
    this.#plan = new KeptPlan(book.rasters, URGENCY.air)
    this.#ledger = ledger
    this.#kinds = kinds
  }

  get isFeedOpen(): boolean {
    return this.#feed !== null
  }

  get showsCard(): boolean {
    return this.#showsCard
  }

  /** The scene that is seen: the one before, while words of the next are still being drawn. */
  get seenSceneId(): string | null {
    return this.#plan.shownSubject?.id ?? this.sceneId
  }

  /** The sources that are drawn on air, from back to front; empty until the first picture is planned. */
  get drawnSources(): readonly SourceId[] {
    return this.#plan.shown === null ? [] : placedLayers(this.#plan.shown).flatMap(({ sourceId }) => (sourceId === null ? [] : [sourceId]))
  }

  /** Opens the feed anew. What was missed before its first picture is nobody's loss. */
  openFeed(writable: WritableStream<VideoFrame>): void {
    this.#feed?.close()
    this.#feed = new FeedWriter(writable, this.#ledger)
    this.#missedUntilNow = null
    this.#lostInAll = 0
    this.#lost = new MinuteCount()
    this.#cardsSent = 0
    this.#repeated = 0
  }

  closeFeed(): void {
    this.#feed?.close()
    this.#feed = null
  }

  /** A source changed: the next picture is planned afresh. Another scene, or an edit of this one, is noticed. */
  invalidate(): void {
    this.#plan.invalidate()
  }

  /** Makes the next picture and sends it. Null when the last one went out once more, because its scene is not whole yet. */
  makePicture(show: Show, nowMs: number): RgbaPicture | null {
    const picture = this.#nextPicture(show, nowMs)
    if (picture === null) this.#repeatOrCard(show, nowMs)
    else {
      this.#feed?.send(picture, nowMs)
      if (this.#showsCard) this.#cardsSent += 1
      else this.#countRepeat()
    }
    this.#faultsInARow = 0
    return picture
  }

  /** A picture failed: the audience gets the last whole one again, and the card when that lasts. */
  coverFault(show: Show | null, nowMs: number): void {
    this.#faultsInARow += 1
    const isLasting = this.#faultsInARow > FAULTS_BEFORE_CARD
    if (show !== null && this.#feed !== null) {
      if (isLasting) this.#sendCard(this.#feed, show, nowMs)
      else this.#repeatOrCard(show, nowMs)
    }
    this.#showsCard ||= isLasting
  }

  /** What the page shows of the feed. `missedTicks` is what the loop has missed since it began, `isHalved` whether it makes every second frame. */
  stats(canvas: Show['canvas'] | undefined, { missedTicks, isHalved }: { missedTicks: number; isHalved: boolean }, nowMs: number): EngineStats['feed'] {
    const feed = this.#feed
    this.#countLost(missedTicks, nowMs)
    return {
      isOpen: feed !== null,
      fps: feed?.meter.rate(nowMs) ?? 0,
      sent: feed?.meter.total ?? 0,
      lost: feed === null ? 0 : this.#lostInAll,
      lostLastMinute: feed === null ? 0 : this.#lost.total(nowMs),
      widthPx: canvas?.widthPx ?? 0,
      heightPx: canvas?.heightPx ?? 0,
      showsCard: this.#showsCard,
      cards: this.#cardsSent,
      repeated: this.#repeated,
      isHalved: feed !== null && isHalved,
      leftOut: this.#leftOut.map((missing) => missing.layerId),
    }
  }

  /** Whether the cameras of the scene all show what they showed in the frame before. */
  #countRepeat(): void {
    const cameras = this.drawnSources.filter((sourceId) => this.#kinds.isCamera(sourceId))
    const versions = cameras.map((sourceId) => `${sourceId} ${this.#book.frames.get(sourceId)?.version}`).join()
    if (cameras.length > 0 && versions === this.#shownVersions) this.#repeated += 1
    this.#shownVersions = versions
  }

  #countLost(missedTicks: number, nowMs: number): void {
    if (this.#feed === null || this.#feed.meter.total === 0) return
    const missed = missedTicks + this.#feed.dropped
    const lost = missed - (this.#missedUntilNow ?? missed)
    this.#lost.note(lost, nowMs)
    this.#lostInAll += lost
    this.#missedUntilNow = missed
  }

  #nextPicture(show: Show, nowMs: number): RgbaPicture | null {
    if (this.isCardWanted) {
      this.#showsCard = true
      this.#leftOut = []
      return this.#cardPicture(show)
    }
    const scene = show.scenes.find((candidate) => candidate.id === this.sceneId) ?? show.scenes[0]!
    if (scene.id !== this.#entered.sceneId) this.#entered = { sceneId: scene.id, atMs: this.#entered.sceneId === null ? null : nowMs }
    const shown = this.#plan.of(show, { subject: scene, partsOf: () => planParts(show, scene), make: (timeMs) => this.#planScene(show, scene, timeMs) }, nowMs)
    if (shown === null) return null
    const { plan, subject } = shown
    const verdict = this.#judge.judge(subject.id, plan, this.#kinds.isLive, nowMs)
    this.#leftOut = verdict === 'show' ? plan.missing : []
    if (verdict === 'hold') return null
    this.#showsCard = verdict === 'card'
    return this.#showsCard ? this.#cardPicture(show) : this.#executor.render(plan, this.#book.frames)
  }

  #planScene(show: Show, scene: Scene, nowMs: number): FramePlan {
    const { atMs } = this.#entered
    const stage = atMs === null ? { scene } : { scene, enteredMs: atMs }
    return planFrame(show, stage, nowMs, this.#book.infos, { wall: wallAt(nowMs) })
  }

  /** The last picture once more; the card when there was none. */
  #repeatOrCard(show: Show, nowMs: number): void {
    if (this.#feed === null || this.#feed.repeat(nowMs)) return
    this.#sendCard(this.#feed, show, nowMs)
  }

  #sendCard(feed: FeedWriter, show: Show, nowMs: number): void {
    feed.send(this.#cardPicture(show), nowMs)
    this.#cardsSent += 1
  }

  /** Has the card drawn that a show would need. */
  prepareCard({ canvas, holdingCard }: Show): void {
    const job = { widthPx: canvas.widthPx, heightPx: canvas.heightPx, ...holdingCard }
    const key = JSON.stringify(job)
    if (key === this.#cardAsked) return
    this.#cardAsked = key
    // Without its words it is a card still; the next edit of them asks again.
    Promise.resolve(this.#maker.make({ type: 'card', job }, URGENCY.air)).then(
      (picture) => this.#cardAsked === key && (this.#card = picture),
      () => (this.#cardAsked = null),
    )
  }

  #cardPicture(show: Show): RgbaPicture {
    this.prepareCard(show)
    const { widthPx, heightPx } = show.canvas
    if (this.#card?.widthPx !== widthPx || this.#card.heightPx !== heightPx) this.#card = plainCard(widthPx, heightPx)
    return this.#card
  }
}

/** The ground of the card, until its words are drawn. */
function plainCard(widthPx: number, heightPx: number): RgbaPicture {
  const { pen, read } = openRasterCanvas(widthPx, heightPx)
  drawHoldingCard(pen, widthPx, heightPx, '', '', 'sans-serif')
  return { format: 'rgba', widthPx, heightPx, data: read() }
}
