// What the audience sees while the scene on air lacks pictures: the scene without a layer, the last whole picture for a moment,
// or the holding card.
import type { SourceId } from '../../core/picture/source.ts'
import type { FramePlan } from '../../core/plan/frame-plan.ts'
import { placedLayers } from '../../core/plan/read-plan.ts'

/** How long the last picture stays when a layer loses its own. */
export const HOLD_MS = 1000

export type AirVerdict =
  /** The scene, without the layers that have no picture. */
  | 'show'
  /** Once more the last picture that was sent. */
  | 'hold'
  | 'card'

export class AirJudge {
  #sceneId: string | null = null
  /** Layers that have had a picture since the scene came on air. */
  readonly #had = new Set<string>()
  /** When a layer was first found without the picture that it had. */
  readonly #lostMs = new Map<string, number>()
  #isShown = false

  /**
   * Judges one frame. A layer that never had a picture is left out, so that adding something on air disturbs nobody; one that
   * lost it is waited for, then left out too. Only a scene that has nothing live left, though it should, gives way to the card.
   * `isLive` tells which sources are live pictures.
   */
  judge(sceneId: string, plan: FramePlan, isLive: (sourceId: SourceId) => boolean, nowMs: number): AirVerdict {
    if (sceneId !== this.#sceneId) this.#begin(sceneId)
    let hasLive = false
    const placed = placedLayers(plan)
    for (const { layerId, sourceId } of placed) {
      this.#had.add(layerId)
      this.#lostMs.delete(layerId)
      hasLive ||= sourceId !== null && isLive(sourceId)
    }
    let isWaiting = false
    let lacksLive = false
    for (const { layerId, sourceId } of plan.missing) {
      const had = this.#had.has(layerId)
      if (had) {
        if (!this.#lostMs.has(layerId)) this.#lostMs.set(layerId, nowMs)
        isWaiting ||= nowMs - this.#lostMs.get(layerId)! < HOLD_MS
      }
      // A camera that joined a scene on air is not missed before its first picture.
      lacksLive ||= isLive(sourceId) && (had || !this.#isShown)
    }
    if (isWaiting && this.#isShown) return 'hold'
    // Nothing is there yet, but its layers are about to come: the picture of before stays until the first of them does.
    if (placed.length === 0 && plan.missing.length === 0 && plan.validUntilMs !== Infinity) return 'hold'
    this.#isShown = placed.length > 0 && (hasLive || !lacksLive)
    return this.#isShown ? 'show' : 'card'
  }

  #begin(sceneId: string): void {
    this.#sceneId = sceneId
    this.#had.clear()
    this.#lostMs.clear()
    this.#isShown = false
  }
}
