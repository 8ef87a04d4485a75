// Notices an engine that died or hangs without a word.

export interface WatchdogClock {
  readonly setInterval: (run: () => void, everyMs: number) => number
  readonly clearInterval: (timer: number) => void
  readonly nowMs: () => number
}

/** Looks are counted, not milliseconds: a page that slept, or whose timers are slowed, does not take its engine for dead. */
const LOOK_EVERY_MS = 700
/** Looks without a sign of life that are one too many: ten seconds. On a busy machine an engine that lives may be silent for two and more. */
const SILENT_LOOKS = 15
/** The first sign may take long on a busy machine. */
const SILENT_LOOKS_AT_START = 30
/** A look that comes later than this was held up itself: the whole page waits, and says nothing of the engine. */
const LATE_LOOK_MS = 1400
/** Of looks that are all late, one in so many counts: a page whose timers are slowed for good still notices. */
const LATE_LOOKS_FOR_ONE = 3

export class Watchdog {
  readonly #clock: WatchdogClock
  readonly #onSilent: () => void
  #timer: number | null = null
  #looks = 0
  #lateLooks = 0
  #lastLookMs = 0
  #hasSigned = false

  /** `onSilent` is called once; then the watch is over until `start`. */
  constructor(clock: WatchdogClock, onSilent: () => void) {
    this.#clock = clock
    this.#onSilent = onSilent
  }

  /** Begins to watch an engine that was just told to work. */
  start(): void {
    this.stop()
    this.#looks = 0
    this.#lateLooks = 0
    this.#lastLookMs = this.#clock.nowMs()
    this.#hasSigned = false
    this.#timer = this.#clock.setInterval(() => this.#look(), LOOK_EVERY_MS)
  }

  /** A sign of life. */
  note(): void {
    this.#looks = 0
    this.#hasSigned = true
  }

  stop(): void {
    if (this.#timer !== null) this.#clock.clearInterval(this.#timer)
    this.#timer = null
  }

  #look(): void {
    const nowMs = this.#clock.nowMs()
    const isLate = nowMs - this.#lastLookMs > LATE_LOOK_MS
    this.#lastLookMs = nowMs
    if (isLate) {
      this.#lateLooks += 1
      if (this.#lateLooks % LATE_LOOKS_FOR_ONE !== 0) return
    }
    this.#looks += 1
    if (this.#looks < (this.#hasSigned ? SILENT_LOOKS : SILENT_LOOKS_AT_START)) return
    this.stop()
    this.#onSilent()
  }
}
