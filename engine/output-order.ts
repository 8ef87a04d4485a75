// What an output is asked to be. The page and the engine share it.
import type { OutputId } from '../core/plan/frame-plan.ts'
import type { Routing } from '../core/programme/programme-stage.ts'

export interface OutputOrder {
  readonly id: OutputId
  readonly routing: Routing
  /** Pixels of it for one of the canvas. */
  readonly scale: number
  /** One picture for so many of the show's frames. */
  readonly everyTicks: number
}

/** The feed that meetings get, the output window shows, and devices are given. Its picture is what the studio shows as "on air". */
export const WEBCAM: OutputOrder = { id: 'webcam', routing: { graphics: true }, scale: 1, everyTicks: 1 }
