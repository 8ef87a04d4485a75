import type { FramePlan } from '../../core/plan/frame-plan.ts'
import { areSameParts } from '../../core/stage/plan-parts.ts'
import type { Show } from '../../core/show/show.ts'

/** A plan that stands until its time is over, or an edit touches something that it reads. */
export class KeptPlan {
  #plan: FramePlan | null = null
  #show: Show | null = null
  #subject: unknown = null
  #parts: readonly unknown[] = []

  /**
   * The plan of `subject` (a scene, a request) at `nowMs`: the last one, or what `make` makes. `partsOf` lists what of the show it reads; it is
   * asked after an edit only.
   */
  of(show: Show, subject: unknown, nowMs: number, partsOf: () => readonly unknown[], make: () => FramePlan | null): FramePlan | null {
    if (show !== this.#show || subject !== this.#subject) {
      const parts = partsOf()
      if (!areSameParts(parts, this.#parts)) this.#plan = null
      this.#parts = parts
      this.#show = show
      this.#subject = subject
    }
    if (this.#plan === null || nowMs >= this.#plan.validUntilMs) this.#plan = make()
    return this.#plan
  }

  /** The last plan; null when there is none that stands. */
  get last(): FramePlan | null {
    return this.#plan
  }

  /** A source or what is asked for changed. */
  drop(): void {
    this.#plan = null
    this.#show = null
    this.#parts = []
  }
}
