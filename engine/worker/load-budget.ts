// Who gets the time of the engine's thread when there is too little of it. The feed comes first; large pictures on the page get what it
// leaves, and small ones what those leave.

/** Share of the time that all pictures may take together; the rest is for frames that come in and messages. */
const SHARE = 0.8
/** However busy: a large picture on the page at least this often, and a small one. */
const LARGE_AT_LEAST_MS = 400
const SMALL_AT_LEAST_MS = 2000
/** Time that was not used is kept up to this, and time that was overdrawn is owed up to that: one slow picture is soon forgotten. */
const MOST_SAVED_MS = 60
const MOST_OWED_MS = 250
/** Small pictures are drawn while this much is saved. */
const SMALL_NEED_MS = 20

export class LoadBudget {
  #leftMs = MOST_SAVED_MS
  #lastMs: number | null = null
  #largeMs = -Infinity
  #smallMs = -Infinity

  /** Begins a tick: what has passed since the last one is there to be spent. */
  begin(nowMs: number): void {
    const passedMs = this.#lastMs === null ? 0 : nowMs - this.#lastMs
    this.#lastMs = nowMs
    this.#leftMs = Math.min(MOST_SAVED_MS, this.#leftMs + passedMs * SHARE)
  }

  /** Whether the large pictures on the page are drawn in this tick. Asked once a tick. */
  takeLarge(nowMs: number): boolean {
    if (this.#leftMs <= 0 && nowMs - this.#largeMs < LARGE_AT_LEAST_MS) return false
    this.#largeMs = nowMs
    return true
  }

  /** Whether small pictures and scopes are drawn in this tick. Asked once a tick. */
  takeSmall(nowMs: number): boolean {
    if (this.#leftMs < SMALL_NEED_MS && nowMs - this.#smallMs < SMALL_AT_LEAST_MS) return false
    this.#smallMs = nowMs
    return true
  }

  /** What the tick took, in ms. */
  spend(ms: number): void {
    this.#leftMs = Math.max(-MOST_OWED_MS, this.#leftMs - ms)
  }
}
