// One way out of the programme: a picture, the last one once more, or the holding card, and what became of each.
import type { PlacedLayer } from '../../core/plan/read-plan.ts'
import type { FramePlan } from '../../core/plan/frame-plan.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { SourceId } from '../../core/picture/source.ts'
import type { OutputOrder } from '../output-order.ts'
import { AirJudge, type AirVerdict } from './air-judge.ts'
import { MinuteCount } from './minute-count.ts'

/** Frames that may fail one after the other, about a second, before the audience gets the card. */
const FAULTS_BEFORE_CARD = 30

/** Where pictures go. Those that it is given are not its own: what it keeps it copies. */
export interface Sink {
  send(picture: RgbaPicture, nowMs: number): void
  /** Sends the last picture once more; false when none was sent yet. */
  repeat(nowMs: number): boolean
  close(): void
  /** Pictures that it could not take in time. */
  readonly dropped: number
  readonly meter: { rate(nowMs: number): number; readonly total: number }
}

export interface OutputStats {
  readonly isOpen: boolean
  readonly fps: number
  readonly sent: number
  /** Frames that were dropped or came too late, since the first picture. */
  readonly lost: number
  /** Those of the last minute. */
  readonly lostLastMinute: number
  readonly showsCard: boolean
  /** Holding cards sent since it began. */
  readonly cards: number
  /** Frames sent since it began in which no camera of the scene had a new picture: it came late, or not at all. */
  readonly repeated: number
  /** Layers of the scene that are left out for want of a picture. */
  readonly leftOut: readonly string[]
}

export class Output {
  readonly order: OutputOrder
  readonly #judge = new AirJudge()
  #sink: Sink | null = null
  #showsCard = true
  #leftOut: readonly string[] = []
  #faultsInARow = 0
  #cardsSent = 0
  #repeated = 0
  /** Which pictures of cameras the last frame showed. */
  #shownVersions = ''
  /** What the loop and the sink had missed when it was last asked; null before the first picture. */
  #missedUntilNow: number | null = null
  #lost = new MinuteCount()
  #lostInAll = 0

  constructor(order: OutputOrder) {
    this.order = order
  }

  get isOpen(): boolean {
    return this.#sink !== null
  }

  get showsCard(): boolean {
    return this.#showsCard
  }

  /** Sends to `sink` from now on. What was missed before its first picture is nobody's loss. */
  open(sink: Sink): void {
    this.#sink?.close()
    this.#sink = sink
    this.#missedUntilNow = null
    this.#lostInAll = 0
    this.#lost = new MinuteCount()
    this.#cardsSent = 0
    this.#repeated = 0
  }

  close(): void {
    this.#sink?.close()
    this.#sink = null
  }

  /** What is to be seen of a plan that shows the scene `sceneKey`. */
  judge(sceneKey: string, plan: FramePlan, isLive: (sourceId: SourceId) => boolean, nowMs: number): AirVerdict {
    const verdict = this.#judge.judge(sceneKey, plan, isLive, nowMs)
    this.#leftOut = verdict === 'show' ? plan.missing.map(({ layerId }) => layerId) : []
    if (verdict !== 'hold') this.#showsCard = verdict === 'card'
    return verdict
  }

  /** Sends a picture of the programme. `cameras` are the versions of the camera pictures in it. */
  send(picture: RgbaPicture, cameras: readonly string[], nowMs: number): void {
    this.#faultsInARow = 0
    this.#sink?.send(picture, nowMs)
    const versions = cameras.join()
    if (cameras.length > 0 && versions === this.#shownVersions) this.#repeated += 1
    this.#shownVersions = versions
  }

  sendCard(card: RgbaPicture, nowMs: number): void {
    this.#faultsInARow = 0
    this.#showsCard = true
    this.#leftOut = []
    this.#sink?.send(card, nowMs)
    this.#cardsSent += 1
  }

  /** Sends the last picture once more; the card when there was none. */
  hold(card: () => RgbaPicture, nowMs: number): void {
    this.#faultsInARow = 0
    this.#repeatOrCard(card, nowMs)
  }

  /** A picture failed: the audience gets the last whole one again, and the card when that lasts. */
  coverFault(card: () => RgbaPicture, nowMs: number): void {
    this.#faultsInARow += 1
    const isLasting = this.#faultsInARow > FAULTS_BEFORE_CARD
    if (isLasting) {
      this.#sink?.send(card(), nowMs)
      if (this.#sink !== null) this.#cardsSent += 1
    } else this.#repeatOrCard(card, nowMs)
    this.#showsCard ||= isLasting
  }

  /** `missedTicks` is what the loop has missed since it began. */
  stats(missedTicks: number, nowMs: number): OutputStats {
    const sink = this.#sink
    this.#countLost(missedTicks, nowMs)
    return {
      isOpen: sink !== null,
      fps: sink?.meter.rate(nowMs) ?? 0,
      sent: sink?.meter.total ?? 0,
      lost: sink === null ? 0 : this.#lostInAll,
      lostLastMinute: sink === null ? 0 : this.#lost.total(nowMs),
      showsCard: this.#showsCard,
      cards: this.#cardsSent,
      repeated: this.#repeated,
      leftOut: this.#leftOut,
    }
  }

  #repeatOrCard(card: () => RgbaPicture, nowMs: number): void {
    if (this.#sink === null || this.#sink.repeat(nowMs)) return
    this.#sink.send(card(), nowMs)
    this.#cardsSent += 1
  }

  #countLost(missedTicks: number, nowMs: number): void {
    if (this.#sink === null || this.#sink.meter.total === 0) return
    const missed = Math.floor(missedTicks / this.order.everyTicks) + this.#sink.dropped
    const lost = missed - (this.#missedUntilNow ?? missed)
    this.#lost.note(lost, nowMs)
    this.#lostInAll += lost
    this.#missedUntilNow = missed
  }
}

/** Versions of the camera pictures among layers, for telling whether anything new is in them. */
export function cameraVersions(
  placed: readonly PlacedLayer[],
  isCamera: (sourceId: SourceId) => boolean,
  versionOf: (sourceId: SourceId) => number | undefined,
): string[] {
  return placed.flatMap(({ sourceId }) => (sourceId !== null && isCamera(sourceId) ? [`${sourceId} ${versionOf(sourceId)}`] : []))
}
