import type { Picture, RgbaPicture } from '../core/picture/picture.ts'
import type { FramePlan, SourceId } from '../core/plan/frame-plan.ts'

/** The picture that a source shows now. */
export interface SourceFrame {
  readonly picture: Picture
  /** Grows by one with each new picture of this source. */
  readonly version: number
  /** Whether new pictures are expected many times a second. */
  readonly isLive: boolean
}

export type SourceFrames = ReadonlyMap<SourceId, SourceFrame>

/**
 * Runs frame plans in real time. `render` returns a picture that the executor owns and overwrites
 * with the next call. A source without a frame is left out. The same plan object, rendered again,
 * is where an executor may save work.
 */
export interface Executor {
  readonly name: 'cpu' | 'gl'
  render(plan: FramePlan, sources: SourceFrames): RgbaPicture
  dispose(): void
}
