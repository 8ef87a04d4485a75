// The programme as pictures: planned once for all outputs, drawn for those that are due, judged by each for itself.
import { drawHoldingCard } from '../../core/card/holding-card.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { SourceId } from '../../core/picture/source.ts'
import type { FramePlan, OutputId } from '../../core/plan/frame-plan.ts'
import { outputPlan, placedLayers } from '../../core/plan/read-plan.ts'
import {
  EMPTY_PROGRAMME,
  programmeAfter,
  sceneOnAir,
  settledProgramme,
  type Programme,
  type ProgrammeMessage,
  type SceneRef,
} from '../../core/programme/programme.ts'
import { outputStageOf, programmeParts, withoutGoneGraphics } from '../../core/programme/programme-stage.ts'
import type { Show } from '../../core/show/show.ts'
import { planOutputs } from '../../core/stage/plan-frame.ts'
import type { OutputStage } from '../../core/stage/stage.ts'
import type { WallClock } from '../../core/text/fields.ts'
import type { Executor } from '../executor.ts'
import { WEBCAM, type OutputOrder } from '../output-order.ts'
import { openRasterCanvas } from '../raster/open-canvas.ts'
import { URGENCY, type RasterMaker } from '../raster/raster.ts'
import type { SourceBook } from '../sources/source-book.ts'
import { wallAt } from '../sources/wall-clock.ts'
import { KeptPlan } from './kept-plan.ts'
import { cameraVersions, Output, type OutputStats, type Sink } from './output.ts'
import type { ShowBook } from './show-book.ts'

/** What the pictures of a source are. */
export interface SourceKinds {
  /** They come from outside, and may stay away. */
  readonly isLive: (sourceId: SourceId) => boolean
  /** They come one after the other, whatever happens in front of it. */
  readonly isCamera: (sourceId: SourceId) => boolean
}

export class OnAir {
  readonly #executor: Executor
  readonly #book: SourceBook
  readonly #maker: RasterMaker
  readonly #shows: ShowBook
  readonly #kinds: SourceKinds
  readonly #plan: KeptPlan<Programme>
  readonly #webcam = new Output(WEBCAM)
  readonly #outputs = new Map<OutputId, Output>([[WEBCAM.id, this.#webcam]])
  #programme = EMPTY_PROGRAMME
  #card: RgbaPicture | null = null
  /** Which card was asked for last. */
  #cardAsked: string | null = null
  #ticks = 0

  constructor(executor: Executor, book: SourceBook, maker: RasterMaker, shows: ShowBook, kinds: SourceKinds) {
    this.#executor = executor
    this.#book = book
    this.#maker = maker
    this.#shows = shows
    this.#kinds = kinds
    this.#plan = new KeptPlan(book.rasters, URGENCY.air)
  }

  /** Whether meetings get pictures. */
  get isFeedOpen(): boolean {
    return this.#webcam.isOpen
  }

  /** Whether anything goes out at all. */
  get isAnyOpen(): boolean {
    return [...this.#outputs.values()].some(({ isOpen }) => isOpen)
  }

  /** Whether meetings get the card. */
  get showsCard(): boolean {
    return this.#webcam.showsCard
  }

  get programme(): Programme {
    return this.#programme
  }

  /** The scene that is seen by itself, as it is; null while a transition or a graphic is seen with it, or something of it is brought near. */
  get seenScene(): SceneRef | null {
    const { stage, graphics } = this.#plan.shownSubject ?? this.#programme
    return stage?.type === 'scene' && stage.scene.ref.focus === undefined && graphics.length === 0 ? stage.scene.ref : null
  }

  /** The show on air; null while there is none. */
  get show(): Show | null {
    const ref = sceneOnAir(this.#programme)
    return ref === null ? null : (this.#shows.find(ref)?.show ?? null)
  }

  /** The sources that are drawn on air, from back to front; empty until the first picture is planned. */
  get drawnSources(): readonly SourceId[] {
    return this.#plan.shown === null ? [] : placedLayers(this.#plan.shown).flatMap(({ sourceId }) => (sourceId === null ? [] : [sourceId]))
  }

  /** Acts on a message to the programme. */
  receive(message: ProgrammeMessage, nowMs: number): void {
    this.#programme = programmeAfter(this.#programme, message, nowMs)
    this.#shows.follow(this.#programme)
  }

  /** Opens an output anew, with a sink for its pictures. */
  open(order: OutputOrder, sink: Sink): void {
    let output = this.#outputs.get(order.id)
    if (output === undefined || output.order !== order) {
      output?.close()
      output = order.id === WEBCAM.id ? this.#webcam : new Output(order)
      this.#outputs.set(order.id, output)
      this.#plan.invalidate()
    }
    output.open(sink)
  }

  /** Ends an output; the others go on. */
  close(id: OutputId): void {
    this.#outputs.get(id)?.close()
    if (id === WEBCAM.id) return
    this.#outputs.delete(id)
    this.#plan.invalidate()
  }

  /** A source changed: the next picture is planned afresh. Messages and edits are noticed. */
  invalidate(): void {
    this.#plan.invalidate()
  }

  /** Makes the next picture of each output that is due, and sends it. The webcam's; null when the last one went out once more. */
  makePictures(nowMs: number): RgbaPicture | null {
    this.#settle(nowMs)
    this.#ticks += 1
    const due = [...this.#outputs.values()].filter(({ order }) => this.#ticks % order.everyTicks === 0)
    if (this.#programme.isCardShown) {
      for (const output of due) output.sendCard(this.#cardFor(output), nowMs)
      return this.#cardFor(this.#webcam)
    }
    const programme = this.#programme
    // A plan for a moment to come tells that moment's time: by the clock as it is now.
    const wall = wallAt(nowMs)
    const shown = this.#plan.of(
      this.#shows.version,
      { subject: programme, partsOf: () => programmeParts(programme, this.#shows.find), make: (timeMs) => this.#planAll(programme, timeMs, wall) },
      nowMs,
    )
    if (shown === null) {
      for (const output of due) output.hold(() => this.#cardFor(output), nowMs)
      return null
    }
    return this.#send(due, shown.plan, keyOf(sceneOnAir(shown.subject)), nowMs)
  }

  /** A picture failed: each audience gets the last whole one again, and the card when that lasts. */
  coverFault(nowMs: number): void {
    for (const output of this.#outputs.values()) output.coverFault(() => this.#cardFor(output), nowMs)
  }

  /** `missedTicks` is what the loop has missed since it began. Null for an output that is not open. */
  stats(id: OutputId, missedTicks: number, nowMs: number): OutputStats | null {
    return this.#outputs.get(id)?.stats(missedTicks, nowMs) ?? null
  }

  /** The same of every output but the webcam, by its id. */
  otherStats(missedTicks: number, nowMs: number): Readonly<Record<OutputId, OutputStats>> {
    const others = [...this.#outputs.values()].filter((output) => output !== this.#webcam)
    return Object.fromEntries(others.map((output) => [output.order.id, output.stats(missedTicks, nowMs)]))
  }

  #settle(nowMs: number): void {
    const settled = withoutGoneGraphics(settledProgramme(this.#programme, nowMs), this.#shows.find, nowMs)
    if (settled === this.#programme) return
    this.#programme = settled
    this.#shows.follow(settled)
  }

  #planAll(programme: Programme, timeMs: number, wall: WallClock): FramePlan | null {
    const stages: Record<OutputId, OutputStage> = {}
    let show: Show | null = null
    for (const { order } of this.#outputs.values()) {
      const found = outputStageOf(programme, this.#shows.find, order.routing, order.scale)
      if (found === null) return null
      show = found.show
      stages[order.id] = found.output
    }
    return show === null ? null : planOutputs(show, stages, timeMs, this.#book.infos, { wall })
  }

  #send(due: readonly Output[], plan: FramePlan, sceneKey: string, nowMs: number): RgbaPicture | null {
    const judged = due.flatMap((output) => {
      const own = outputPlan(plan, output.order.id)
      return own === null ? [] : [{ output, own, verdict: output.judge(sceneKey, own, this.#kinds.isLive, nowMs) }]
    })
    const ids = judged.flatMap(({ output, verdict }) => (verdict === 'show' ? [output.order.id] : []))
    const pictures = ids.length === 0 ? new Map<OutputId, RgbaPicture>() : this.#executor.renderOutputs(plan, this.#book.frames, ids)
    for (const { output, own, verdict } of judged) {
      const picture = pictures.get(output.order.id)
      if (verdict === 'hold') output.hold(() => this.#cardFor(output), nowMs)
      else if (picture === undefined) output.sendCard(this.#cardFor(output), nowMs)
      else
        output.send(
          picture,
          cameraVersions(placedLayers(own), this.#kinds.isCamera, (id) => this.#book.frames.get(id)?.version),
          nowMs,
        )
    }
    const webcam = judged.find(({ output }) => output === this.#webcam)
    if (webcam === undefined || webcam.verdict === 'hold') return null
    return pictures.get(WEBCAM.id) ?? this.#cardFor(this.#webcam)
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

  /** The card as large as the canvas on air; an output of another size has it as plain ground. */
  #cardFor({ order }: Output): RgbaPicture {
    const show = this.show ?? this.#shows.open
    const { widthPx, heightPx } = show?.canvas ?? FALLBACK_CANVAS
    if (show !== null) this.prepareCard(show)
    if (order.scale !== 1) return plainCard(Math.max(1, Math.round(widthPx * order.scale)), Math.max(1, Math.round(heightPx * order.scale)))
    if (this.#card?.widthPx !== widthPx || this.#card.heightPx !== heightPx) this.#card = plainCard(widthPx, heightPx)
    return this.#card
  }
}

/** The size of a card before any show is there. */
const FALLBACK_CANVAS = { widthPx: 1280, heightPx: 720 }

function keyOf(ref: SceneRef | null): string {
  return ref === null ? '' : `${ref.showId} ${ref.sceneId}`
}

/** The ground of the card, until its words are drawn. */
function plainCard(widthPx: number, heightPx: number): RgbaPicture {
  const { pen, read } = openRasterCanvas(widthPx, heightPx)
  drawHoldingCard(pen, widthPx, heightPx, '', '', 'sans-serif')
  return { format: 'rgba', widthPx, heightPx, data: read() }
}
