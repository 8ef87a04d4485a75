// Where a clip is at a time: played, paused, at a rate, from one place to another, once or again and again. Media times are in µs of the
// file, other times in ms of any one clock.

/** The part that is played, and how. */
export interface ClipRange {
  readonly fromUs: number
  /** Later than `fromUs`. */
  readonly toUs: number
  /** 1: as fast as it was made. */
  readonly rate: number
  readonly loops: boolean
}

/** A place in a clip. Laps count from 0; the place is within the range. */
export interface ClipPlace {
  readonly lap: number
  readonly mediaUs: number
  /** Whether the end was reached and is held. */
  readonly isOver: boolean
}

export class ClipClock {
  #range: ClipRange
  /** Media time played since the beginning of lap 0, at `#sinceMs`. */
  #playedUs = 0
  /** Null while paused. */
  #sinceMs: number | null = null

  constructor(range: ClipRange) {
    this.#range = range
  }

  get range(): ClipRange {
    return this.#range
  }

  get isPlaying(): boolean {
    return this.#sinceMs !== null
  }

  /** Goes on from where it is; from the beginning when it is over. */
  play(nowMs: number): void {
    if (this.#sinceMs !== null) return
    if (this.at(nowMs).isOver) this.#playedUs = 0
    this.#sinceMs = nowMs
  }

  pause(nowMs: number): void {
    this.#playedUs = this.#playedAt(nowMs)
    this.#sinceMs = null
  }

  /** Back to the beginning; it plays on if it was playing. */
  restart(nowMs: number): void {
    this.#playedUs = 0
    if (this.#sinceMs !== null) this.#sinceMs = nowMs
  }

  /** Changes the range or the rate; the place stays as far as it is within. */
  setRange(range: ClipRange, nowMs: number): void {
    const { mediaUs } = this.at(nowMs)
    const within = Math.min(range.toUs - 1, Math.max(range.fromUs, mediaUs))
    this.#range = range
    this.#playedUs = within - range.fromUs
    if (this.#sinceMs !== null) this.#sinceMs = nowMs
  }

  /** The place at a time. */
  at(nowMs: number): ClipPlace {
    const { fromUs, toUs, loops } = this.#range
    const length = toUs - fromUs
    const played = this.#playedAt(nowMs)
    if (!loops && played >= length) return { lap: 0, mediaUs: toUs, isOver: true }
    const lap = Math.floor(played / length)
    return { lap, mediaUs: fromUs + played - lap * length, isOver: false }
  }

  /** When a place is due while it plays on; null while it is paused. */
  dueMs(lap: number, mediaUs: number): number | null {
    if (this.#sinceMs === null) return null
    const { fromUs, toUs, rate } = this.#range
    return this.#sinceMs + (lap * (toUs - fromUs) + mediaUs - fromUs - this.#playedUs) / 1000 / rate
  }

  #playedAt(nowMs: number): number {
    return this.#sinceMs === null ? this.#playedUs : this.#playedUs + (nowMs - this.#sinceMs) * 1000 * this.#range.rate
  }
}

/** The picture that is seen at a media time: the last that begins by then; the first before it. `startsUs` in order. */
export function pictureAt(startsUs: readonly number[], mediaUs: number): number {
  let low = 0
  let high = startsUs.length - 1
  while (low < high) {
    const middle = Math.ceil((low + high) / 2)
    if (startsUs[middle]! <= mediaUs) low = middle
    else high = middle - 1
  }
  return low
}
