// What the engine tells the page about itself: figures twice a second, and each fault once.
import type { EngineStats, FromEngine } from '../protocol.ts'

const STATS_EVERY_MS = 500
const MOST_TOLD_FAULTS = 20

export class EngineReports {
  readonly #post: (message: FromEngine) => void
  readonly #told = new Set<string>()
  #lastStatsMs = 0

  constructor(post: (message: FromEngine) => void) {
    this.#post = post
  }

  /** Tells the figures if they are due. */
  tellStats(nowMs: number, make: () => EngineStats): void {
    if (nowMs - this.#lastStatsMs < STATS_EVERY_MS) return
    this.#lastStatsMs = nowMs
    this.#post({ type: 'stats', stats: make() })
  }

  /** Tells a fault, each reason once and so many in all: one that comes with every frame must not flood the page. */
  tellFault(reason: string): void {
    if (this.#told.has(reason) || this.#told.size >= MOST_TOLD_FAULTS) return
    this.#told.add(reason)
    this.#post({ type: 'faulted', reason })
  }
}
