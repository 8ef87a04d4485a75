import type { SourceId } from '../core/picture/source.ts'
import type { Picture, RgbaPicture } from '../core/picture/picture.ts'
import type { FramePlan, OutputId } from '../core/plan/frame-plan.ts'

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
 * Runs frame plans in real time. Pictures are the executor's own, and overwritten with its next call. A source without a frame is
 * left out. What is equal to the plan before, by its keys, is where an executor may save work.
 */
export interface Executor {
  readonly name: 'cpu' | 'gl'
  /** The picture of a plan's only output, or of its first. */
  render(plan: FramePlan, sources: SourceFrames): RgbaPicture
  /** The pictures of some outputs; of all without `ids`. */
  renderOutputs(plan: FramePlan, sources: SourceFrames, ids?: readonly OutputId[]): ReadonlyMap<OutputId, RgbaPicture>
  dispose(): void
}
