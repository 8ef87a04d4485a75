import type { SourceId } from '../../core/picture/source.ts'
import type { FramePlan } from '../../core/plan/frame-plan.ts'
import type { SourceFrames } from '../executor.ts'
import { pictureStamp } from '../picture-stamp.ts'

/** Remembers what a picture was drawn from, so that an equal one need not be drawn again. */
export class DrawnStamp {
  #plan: FramePlan | null = null
  #sourceIds: readonly SourceId[] = []
  #stamps: number[] = []

  /** Whether a plan would give another picture now than when this was last asked. `treatmentVersion` grows when what treats pictures changes. */
  isNew(plan: FramePlan, frames: SourceFrames, treatmentVersion: number): boolean {
    const isNewPlan = plan !== this.#plan
    if (isNewPlan) this.#sourceIds = [...new Set(plan.nodes.flatMap((node) => (node.kind === 'treated' ? [node.sourceId] : [])))]
    const stamps = [treatmentVersion, ...this.#sourceIds.map((id) => pictureStamp(frames.get(id)))]
    const isNew = isNewPlan || stamps.some((stamp, index) => stamp !== this.#stamps[index])
    this.#plan = plan
    this.#stamps = stamps
    return isNew
  }

  /** Something else is on the canvas. */
  forget(): void {
    this.#plan = null
  }
}
