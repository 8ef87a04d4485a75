// Whether the feed keeps its full rate. A machine that cannot hold it sends every second picture, evenly: fifteen regular pictures a
// second look calmer than twenty that stumble.

/** Pictures are counted over this long. */
const WINDOW_MS = 2000
/** With fewer than this share of the pictures that were due, the rate is halved. */
const TOO_FEW = 0.65
/** With this share of half the rate the machine keeps up: the full rate is tried again after a while, each time after a longer one. */
const ENOUGH = 0.75
const FIRST_TRY_MS = 5000
const MOST_TRY_MS = 80_000

export class FeedPace {
  #isHalved = false
  #sinceMs: number | null = null
  #made = 0
  #tryMs = FIRST_TRY_MS
  #halvedMs = 0
  #fullMs = 0

  /** 1, or 2 while only every second picture is made. */
  get divider(): 1 | 2 {
    return this.#isHalved ? 2 : 1
  }

  /** A feed begins: at its full rate. */
  reset(): void {
    this.#isHalved = false
    this.#sinceMs = null
    this.#tryMs = FIRST_TRY_MS
  }

  /** A picture of the feed was made; `periodMs` is the time between two at the full rate. */
  note(nowMs: number, periodMs: number): void {
    if (this.#sinceMs === null) {
      this.#restart(nowMs)
      this.#fullMs = nowMs
      return
    }
    this.#made += 1
    const passedMs = nowMs - this.#sinceMs
    if (passedMs < WINDOW_MS) return
    const share = this.#made / (passedMs / (periodMs * this.divider))
    this.#restart(nowMs)
    if (!this.#isHalved) {
      // What has held for as long as the last wait is no relapse.
      if (nowMs - this.#fullMs > this.#tryMs * 2) this.#tryMs = FIRST_TRY_MS
      if (share >= TOO_FEW) return
      this.#isHalved = true
      this.#halvedMs = nowMs
      return
    }
    if (share < ENOUGH) {
      this.#halvedMs = nowMs
      return
    }
    if (nowMs - this.#halvedMs < this.#tryMs) return
    this.#isHalved = false
    this.#fullMs = nowMs
    this.#tryMs = Math.min(MOST_TRY_MS, this.#tryMs * 2)
  }

  #restart(nowMs: number): void {
    this.#sinceMs = nowMs
    this.#made = 0
  }
}
