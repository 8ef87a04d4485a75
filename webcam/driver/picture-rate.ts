// At which of the usual rates pictures arrive, seen over the last second or so.
const USUAL_RATES = [5, 10, 15, 24, 25, 30, 50, 60] as const
const WINDOW_MS = 1500
/** Fewer pictures say nothing. */
const LEAST_PICTURES = 5
/** A rate is left only for one that fits clearly better, so that a stumble changes nothing. */
const CLEARLY = 0.15

export class PictureRate {
  #rate = 30
  #startMs: number | null = null
  #count = 0

  /** Pictures a second: one of the usual rates. */
  get rate(): number {
    return this.#rate
  }

  /** A picture arrived at `nowMs`. */
  note(nowMs: number): void {
    if (this.#startMs === null || nowMs - this.#startMs > 2 * WINDOW_MS) {
      this.#startMs = nowMs
      this.#count = 0
      return
    }
    this.#count += 1
    const elapsedMs = nowMs - this.#startMs
    if (elapsedMs < WINDOW_MS || this.#count < LEAST_PICTURES) return
    const seen = (this.#count * 1000) / elapsedMs
    const distance = (rate: number) => Math.abs(Math.log(rate / seen))
    const nearest = USUAL_RATES.reduce((best, rate) => (distance(rate) < distance(best) ? rate : best))
    if (distance(this.#rate) - distance(nearest) > CLEARLY) this.#rate = nearest
    this.#startMs = nowMs
    this.#count = 0
  }
}
