// Owns one live thing: opens it, closes it, says what it is doing, and tries again after a failure that may pass.
import type { LiveFailure, LivePhase, LiveState } from './live-state.ts'

/** What was opened: a track, a worker, a port. Its owner stops it exactly once. */
export interface Opened {
  readonly stop: () => void
  /** What it is doing once it is open; 'live' if not said. */
  readonly phase?: 'starting' | 'live'
}

export interface Timers {
  readonly setTimer: (run: () => void, delayMs: number) => number
  readonly clearTimer: (timer: number) => void
}

export interface LiveEvents<T extends Opened> {
  readonly onState: (state: LiveState) => void
  /** Pictures or sound can be had from here from now on. */
  readonly onOpened: (opened: T) => void
  /** What was opened is stopped, and nothing takes its place for now. */
  readonly onGone: () => void
  /** What an error of opening means. */
  readonly failureOf: (error: unknown, before: LiveState) => LiveFailure | Promise<LiveFailure>
}

/** How something is opened. One that answers at once is live at once. */
export type Open<T extends Opened> = () => T | Promise<T>

const RETRY_AFTER_MS = 2000
/** These wait for the presenter. */
const FINAL: ReadonlySet<LiveFailure> = new Set(['refused', 'unsupported'])

export class LiveOwner<T extends Opened> {
  readonly #events: LiveEvents<T>
  readonly #timers: Timers | null
  #state: LiveState = { phase: 'off' }
  #opened: T | null = null
  #open: Open<T> | null = null
  /** Grows with every start and stop, so that a late answer to an earlier one is recognised. */
  #turn = 0
  /** Whether an answer of `open` is still awaited. */
  #isOpening = false
  #retryTimer: number | null = null

  /** `timers`: null for what is never tried again by itself. */
  constructor(events: LiveEvents<T>, timers: Timers | null) {
    this.#events = events
    this.#timers = timers
  }

  get state(): LiveState {
    return this.#state
  }

  /** What is open now; null while nothing is. */
  get opened(): T | null {
    return this.#opened
  }

  /**
   * Opens it in place of what was open. `phase` is told until it is. With `keepsOpened` the old one goes on until the new one is there, and stays if
   * there is none. Resolves with the state that came of it, or of a later call that took its place.
   */
  async start(open: Open<T>, { phase = 'starting', keepsOpened = false }: { phase?: 'asked' | 'starting'; keepsOpened?: boolean } = {}): Promise<LiveState> {
    this.#open = open
    const keeps = keepsOpened && this.#opened !== null
    if (!keeps) this.#tell({ phase })
    return this.#run(open, keeps)
  }

  /** Opens it anew as it was opened last. A failure stays on show until the answer is there. */
  async retry(): Promise<LiveState> {
    return this.#open === null ? this.#state : this.#run(this.#open, false)
  }

  /** Says what an open one is doing. */
  tell(phase: Exclude<LivePhase, 'failed'>): void {
    this.#tell({ phase })
  }

  /** It is over, or can't go on: stops it, says why, and tries again if that may help. */
  fail(reason: LiveFailure, detail: string | null = null): void {
    this.#release()
    this.#tell({ phase: 'failed', reason, detail })
    if (this.#timers !== null && !FINAL.has(reason)) this.#retryTimer = this.#timers.setTimer(() => void this.retry(), RETRY_AFTER_MS)
  }

  /**
   * What was open came to its end (null), or cannot be used any more. Nothing happens where nothing is open: that is the end of something that was
   * already stopped. An opening that is under way goes on.
   */
  lost(reason: LiveFailure | null, detail: string | null = null): void {
    if (this.#opened === null) return
    if (this.#isOpening) {
      this.#stopOpened()
      this.#events.onGone()
      this.#tell({ phase: 'asked' })
    } else if (reason === null) this.stop('ended')
    else this.fail(reason, detail)
  }

  /** Stops it and says what it is from now on. */
  stop(phase: 'off' | 'paused' | 'ended'): void {
    this.#release()
    this.#tell({ phase })
  }

  /** Stops it without a word: there is nobody left to tell of it. */
  dispose(): void {
    this.#release()
    this.#open = null
  }

  async #run(open: Open<T>, keeps: boolean): Promise<LiveState> {
    this.#turn += 1
    const turn = this.#turn
    this.#clearRetry()
    if (!keeps) this.#stopOpened()
    this.#isOpening = true
    let opened: T
    try {
      const answer = open()
      opened = answer instanceof Promise ? await answer : answer
    } catch (error) {
      if (turn !== this.#turn) return this.#state
      this.#isOpening = false
      if (this.#opened !== null) return this.#state
      const reason = await this.#events.failureOf(error, this.#state)
      if (turn === this.#turn) this.fail(reason, wordsOf(error))
      return this.#state
    }
    if (turn !== this.#turn) opened.stop()
    else this.#take(opened)
    return this.#state
  }

  /** Hands on what was opened. If nobody can use it, that is a failure like any other. */
  #take(opened: T): void {
    const turn = this.#turn
    this.#isOpening = false
    this.#stopOpened()
    this.#opened = opened
    try {
      this.#events.onOpened(opened)
    } catch (error) {
      return this.fail('broken', wordsOf(error))
    }
    if (turn === this.#turn) this.#tell({ phase: opened.phase ?? 'live' })
  }

  #release(): void {
    this.#turn += 1
    this.#isOpening = false
    this.#clearRetry()
    this.#stopOpened()
    this.#events.onGone()
  }

  #stopOpened(): void {
    const opened = this.#opened
    this.#opened = null
    opened?.stop()
  }

  #clearRetry(): void {
    if (this.#retryTimer !== null) this.#timers?.clearTimer(this.#retryTimer)
    this.#retryTimer = null
  }

  #tell(state: LiveState): void {
    this.#state = state
    this.#events.onState(state)
  }
}

function wordsOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error)
}
