// When an engine that failed is started again: at once, and after longer and longer if it keeps failing.

export interface RecoveryClock {
  readonly nowMs: () => number
  readonly setTimer: (run: () => void, delayMs: number) => number
  readonly clearTimer: (timer: number) => void
}

const SOON_AGAIN_MS = 10_000
const FIRST_RETRY_MS = 2000
const LONGEST_RETRY_MS = 60_000

export class Recovery {
  readonly #clock: RecoveryClock
  readonly #restart: () => void
  readonly #tell: (reason: string) => void
  #lastFailureMs = -Infinity
  /** How long the engine that failed again is left alone; 0 while it runs well. */
  #retryMs = 0
  #timer: number | null = null

  /** `tell` hears why an engine failed again soon after it was started; the first failure is mended without a word. */
  constructor(clock: RecoveryClock, restart: () => void, tell: (reason: string) => void) {
    this.#clock = clock
    this.#restart = restart
    this.#tell = tell
  }

  failed(reason: string): void {
    const nowMs = this.#clock.nowMs()
    const isAgain = nowMs - this.#lastFailureMs < SOON_AGAIN_MS + this.#retryMs
    this.#lastFailureMs = nowMs
    this.cancel()
    if (!isAgain) {
      this.#retryMs = 0
      return this.#restart()
    }
    this.#tell(reason)
    this.#retryMs = Math.min(LONGEST_RETRY_MS, this.#retryMs === 0 ? FIRST_RETRY_MS : this.#retryMs * 2)
    this.#timer = this.#clock.setTimer(this.#restart, this.#retryMs)
  }

  /** Waits for no timer any more: somebody starts the engine by hand. */
  cancel(): void {
    if (this.#timer !== null) this.#clock.clearTimer(this.#timer)
    this.#timer = null
  }
}
