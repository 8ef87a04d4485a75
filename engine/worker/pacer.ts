// When to make the next frame. A live camera sets the beat, so that its frames leave at once and
// none is shown twice; without one, or when it stumbles, the clock does.

/** Time and timers, injected so that tests own them. */
export interface PacerClock {
  readonly now: () => number
  readonly setTimer: (run: () => void, delayMs: number) => number
  readonly clearTimer: (timer: number) => void
}

/** The clock of the thread that it runs on. */
export const WORKER_CLOCK: PacerClock = {
  now: () => performance.now(),
  setTimer: (run, delayMs) => setTimeout(run, delayMs) as unknown as number,
  clearTimer: (timer) => clearTimeout(timer),
}

/** A camera frame is taken at once if this share of a period has passed. */
const EARLIEST_SHARE = 0.3
/** At half the rate: every second frame of the camera, and not the one before it when that waited for the loop. */
const EARLIEST_SHARE_HALVED = 0.88
/** Something else than a camera may ask for a frame once this share of a period has passed: twice the rate at most. */
const SOON_SHARE = 0.5
/** How long past its time a camera may be before the clock steps in. */
const GRACE_SHARE = 0.7
/** Periods after which a silent camera no longer sets the beat. */
const SILENT_PERIODS = 4

export class Pacer {
  readonly #clock: PacerClock
  readonly #tick: (nowMs: number) => void
  readonly #onFault: (error: unknown) => void
  #fullPeriodMs = 1000 / 30
  #divider: 1 | 2 = 1
  #lastTickMs = -Infinity
  #lastBeatMs = -Infinity
  #timer: number | null = null
  #isRunning = false
  #missedTicks = 0

  /** A throw in a `tick` goes to `onFault`; the beat goes on. */
  constructor(clock: PacerClock, tick: (nowMs: number) => void, onFault: (error: unknown) => void) {
    this.#clock = clock
    this.#tick = tick
    this.#onFault = onFault
  }

  /** Time between two frames at the full rate. */
  get fullPeriodMs(): number {
    return this.#fullPeriodMs
  }

  get #periodMs(): number {
    return this.#fullPeriodMs * this.#divider
  }

  /** Makes every frame (1), or every second one (2). */
  divide(by: 1 | 2): void {
    this.#divider = by
  }

  /** Frames that were due at the full rate and never made, since the start. */
  get missedTicks(): number {
    return this.#missedTicks
  }

  /** Starts, or changes the rate of, the beat. */
  start(frameRate: number): void {
    this.#fullPeriodMs = 1000 / frameRate
    if (this.#isRunning) return
    this.#isRunning = true
    this.#run()
  }

  stop(): void {
    this.#isRunning = false
    if (this.#timer !== null) this.#clock.clearTimer(this.#timer)
    this.#timer = null
  }

  /** Tells that the camera that sets the beat has a new frame. */
  beat(): void {
    const now = this.#clock.now()
    this.#lastBeatMs = now
    const earliest = this.#divider === 1 ? EARLIEST_SHARE : EARLIEST_SHARE_HALVED
    if (this.#isRunning && now - this.#lastTickMs >= this.#periodMs * earliest) this.#run()
  }

  /** Asks for a frame at once, for something that is waited for; if one was just made, for the next as usual. */
  soon(): void {
    if (this.#isRunning && this.#clock.now() - this.#lastTickMs >= this.#periodMs * SOON_SHARE) this.#run()
  }

  #run(): void {
    const now = this.#clock.now()
    const since = now - this.#lastTickMs
    if (since < Infinity) this.#missedTicks += Math.max(0, Math.round(since / this.#fullPeriodMs) - 1)
    const isOnClock = !this.#hasBeat(now) && since < 2 * this.#periodMs
    // On the clock, ticks stay on their grid; a late one does not push the rest back.
    this.#lastTickMs = isOnClock ? this.#lastTickMs + this.#periodMs : now
    try {
      this.#tick(now)
    } catch (error) {
      this.#onFault(error)
    } finally {
      this.#arm()
    }
  }

  #arm(): void {
    if (this.#timer !== null) this.#clock.clearTimer(this.#timer)
    const now = this.#clock.now()
    const wait = this.#hasBeat(now) ? this.#periodMs * (1 + GRACE_SHARE) : this.#periodMs
    const due = Math.max(0, this.#lastTickMs + wait - now)
    this.#timer = this.#clock.setTimer(() => {
      this.#timer = null
      if (this.#isRunning) this.#run()
    }, due)
  }

  #hasBeat(now: number): boolean {
    return now - this.#lastBeatMs < this.#periodMs * SILENT_PERIODS
  }
}
