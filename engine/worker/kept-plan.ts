import type { FramePlan } from '../../core/plan/frame-plan.ts'
import { areSameParts } from '../../core/stage/plan-parts.ts'
import type { RasterBook } from '../raster/raster-book.ts'
import type { Urgency } from '../raster/raster.ts'

/** How long a new plan waits for its rasters before it is drawn with placeholders. */
export const RASTER_PATIENCE_MS = 400
/** How early the next state of a clock is drawn. */
const AHEAD_MS = 400

/** A plan and what it is of. */
export interface Shown<S> {
  readonly subject: S
  readonly plan: FramePlan
}

interface Candidate<S> extends Shown<S> {
  readonly plannedMs: number
}

/** How plans of a subject (a scene, a request) are made. */
export interface Planning<S> {
  readonly subject: S
  /** What of the show the plan reads; it is asked after an edit only. */
  readonly partsOf: () => readonly unknown[]
  /** The plan at a time; null when there is nothing to plan yet. */
  readonly make: (timeMs: number) => FramePlan | null
}

/**
 * A plan that stands until its time is over, or an edit touches something that it reads. One that needs words or forms which are still being drawn
 * waits, and the one before it stands meanwhile: nothing is shown half made, and nothing is waited for.
 */
export class KeptPlan<S> {
  readonly #rasters: Pick<RasterBook, 'ask' | 'hasAll' | 'standIn'>
  readonly #urgency: Urgency
  #shown: Candidate<S> | null = null
  #next: Candidate<S> | null = null
  #document: object | null = null
  #subject: S | null = null
  #parts: readonly unknown[] = []
  /** Whether something changed that the newest plan does not have. */
  #isStale = true
  /** Whether what comes after the shown plan has been asked for. */
  #isAhead = false

  constructor(rasters: Pick<RasterBook, 'ask' | 'hasAll' | 'standIn'>, urgency: Urgency) {
    this.#rasters = rasters
    this.#urgency = urgency
  }

  /** What is to be shown at `nowMs`; null when there is nothing, or not yet. `document` is another object after every edit. */
  of(document: object, planning: Planning<S>, nowMs: number): Shown<S> | null {
    this.#noteChanges(document, planning)
    if (this.#next !== null) {
      if (!this.#isReady(this.#next, nowMs)) return this.#shown
      this.#take(this.#next)
    }
    if (this.#shown !== null && !this.#isStale && nowMs < this.#shown.plan.validUntilMs) {
      // In use: they are not let go, and asked for again should they have been.
      if (!this.#rasters.hasAll(this.#shown.plan)) this.#rasters.ask(this.#shown.plan, this.#urgency)
      this.#lookAhead(this.#shown, planning, nowMs)
      return this.#shown
    }
    this.#isStale = false
    const plan = planning.make(nowMs)
    if (plan === null) {
      this.#isStale = true
      return (this.#shown = null)
    }
    const candidate = { subject: planning.subject, plan, plannedMs: nowMs }
    this.#rasters.ask(plan, this.#urgency)
    if (this.#isReady(candidate, nowMs)) this.#take(candidate)
    else this.#next = candidate
    return this.#shown
  }

  /** The plan that is shown; null when there is none. */
  get shown(): FramePlan | null {
    return this.#shown?.plan ?? null
  }

  /** What the shown plan is of; null when there is none. */
  get shownSubject(): S | null {
    return this.#shown?.subject ?? null
  }

  /** A source changed: the next plan is made afresh. */
  invalidate(): void {
    this.#isStale = true
  }

  #noteChanges(document: object, { subject, partsOf }: Planning<S>): void {
    if (document === this.#document && subject === this.#subject) return
    // Nobody waits for what is not wanted any more.
    if (subject !== this.#subject) this.#next = null
    const parts = partsOf()
    this.#isStale ||= subject !== this.#subject || !areSameParts(parts, this.#parts)
    this.#parts = parts
    this.#document = document
    this.#subject = subject
  }

  #isReady({ plan, plannedMs }: Candidate<S>, nowMs: number): boolean {
    if (this.#rasters.hasAll(plan)) return true
    if (nowMs - plannedMs < RASTER_PATIENCE_MS) return false
    this.#rasters.standIn(plan)
    return true
  }

  #take(candidate: Candidate<S>): void {
    this.#shown = candidate
    this.#next = null
    this.#isAhead = false
  }

  /** Has what a clock says next drawn before it is due. What moves is planned anew each time anyway. */
  #lookAhead({ plan, plannedMs }: Candidate<S>, { make }: Planning<S>, nowMs: number): void {
    const { validUntilMs } = plan
    if (this.#isAhead || validUntilMs - nowMs > AHEAD_MS || validUntilMs <= plannedMs) return
    this.#isAhead = true
    const after = make(validUntilMs)
    if (after !== null) this.#rasters.ask(after, this.#urgency)
  }
}
