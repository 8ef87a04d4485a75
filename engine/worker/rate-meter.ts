/** Events a second over the last two seconds. */
export class RateMeter {
  readonly #times: number[] = []
  #total = 0

  /** Events since the start. */
  get total(): number {
    return this.#total
  }

  note(nowMs: number): void {
    this.#total += 1
    this.#times.push(nowMs)
    while (this.#times[0]! < nowMs - 2000) this.#times.shift()
  }

  /** Rate at `nowMs`; 0 before two events. */
  rate(nowMs: number): number {
    while (this.#times.length > 0 && this.#times[0]! < nowMs - 2000) this.#times.shift()
    const first = this.#times[0]
    const last = this.#times.at(-1)
    if (first === undefined || last === undefined || last === first) return 0
    return ((this.#times.length - 1) * 1000) / (last - first)
  }
}

/** A mean that follows new values slowly; it begins with the first. */
export function followed(mean: number, next: number): number {
  return mean === 0 ? next : mean * 0.95 + next * 0.05
}
