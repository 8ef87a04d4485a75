// Notices an engine that died or hangs without a word.

export interface WatchdogClock {
  readonly setInterval: (run: () => void, everyMs: number) => number
  readonly clearInterval: (timer: number) => void
}

/** Looks are counted, not milliseconds: a page that slept, or whose timers are slowed, does not take its engine for dead. */
const LOOK_EVERY_MS = 700
/** Looks without a sign of life that are one too many: two seconds where timers are not slowed. */
const SILENT_LOOKS = 3
/** The first sign may take long on a busy machine. */
const SILENT_LOOKS_AT_START = 30

export class Watchdog {
  readonly #clock: WatchdogClock
  readonly #onSilent: () => void
  #timer: number | null = null
  #looks = 0
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
    this.#looks += 1
    if (this.#looks < (this.#hasSigned ? SILENT_LOOKS : SILENT_LOOKS_AT_START)) return
    this.stop()
    this.#onSilent()
  }
}
