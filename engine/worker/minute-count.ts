/** How many of something there were in the last minute. */
const MINUTE_MS = 60_000
const SLOT_MS = 1000

export class MinuteCount {
  /** Second, and how many came in it; oldest first. */
  readonly #slots: { readonly second: number; count: number }[] = []

  note(count: number, nowMs: number): void {
    if (count <= 0) return
    const second = Math.floor(nowMs / SLOT_MS)
    const last = this.#slots.at(-1)
    if (last?.second === second) last.count += count
    else this.#slots.push({ second, count })
  }

  /** The count of the 60 seconds before `nowMs`. */
  total(nowMs: number): number {
    while (this.#slots.length > 0 && this.#slots[0]!.second * SLOT_MS <= nowMs - MINUTE_MS) this.#slots.shift()
    return this.#slots.reduce((sum, slot) => sum + slot.count, 0)
  }
}
