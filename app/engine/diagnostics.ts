// What measurements from outside may read of the running engine.
import type { Head } from '../../core/layout/arrange/head.ts'
import type { ExecutorState } from '../../engine/executors.ts'
import type { EngineStats, Scopes } from '../../engine/protocol.ts'

/** Figures of the running engine, for measurements from outside. */
export interface EngineFigures {
  readonly stats: () => EngineStats | null
  readonly hasPicture: () => boolean
  readonly scopes: () => Scopes | null
  /** Heads that were found, by the input's id, as shares of its picture. */
  readonly heads: () => readonly (readonly [string, Head])[]
  readonly executor: () => ExecutorState | null
  /** Asks the stand-ins to clap; when they were asked, in wall-clock ms. */
  readonly cueClaps: () => number
  /** Takes the graphics card away, or gives it back, as its driver may at any time. */
  readonly simulateLoss: (isLost: boolean) => void
}

declare global {
  interface Window {
    greenRoom?: EngineFigures
  }
}
