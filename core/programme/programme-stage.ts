// The programme as pictures are planned of it: its scenes looked up in the shows as they are now.
import type { Drawings } from '../drawing/surface.ts'
import { layersOf } from '../layers/tree.ts'
import { lastsMs } from '../motion/appearance.ts'
import type { Scene, Show } from '../show/show.ts'
import { planParts } from '../stage/plan-parts.ts'
import type { OutputStage, SceneStage, Stage } from '../stage/stage.ts'
import { isSameScene, sceneOnAir, scenesNeeded, type Programme, type SceneOnAir, type SceneRef, type StageOnAir } from './programme.ts'

/** A scene as it is now, with its show. */
export interface FoundScene {
  readonly show: Show
  readonly scene: Scene
  /** What is drawn on the show's pages and scenes. */
  readonly drawings?: Drawings
}

/** Finds a scene; null for one that never was. */
export type FindScene = (ref: SceneRef) => FoundScene | null

/** Which of the programme an output carries. */
export interface Routing {
  readonly graphics: boolean
}

/** What an output shows, with the show whose canvas it has; null while nothing can be found of it. */
export function outputStageOf(
  programme: Programme,
  find: FindScene,
  routing: Routing,
  scale: number,
): { readonly show: Show; readonly output: OutputStage } | null {
  if (programme.stage === null) return null
  const goal = find(programme.stage.type === 'scene' ? programme.stage.scene.ref : programme.stage.to.ref)
  const stage = stageOf(programme.stage, find)
  if (goal === null || stage === null) return null
  const over = routing.graphics ? programme.graphics.flatMap(({ scene }) => sceneStageOf(scene, find) ?? []) : []
  const goalRef = sceneOnAir(programme)
  const pointer = isSameScene(programme.pointer, goalRef) && programme.pointer !== null ? { pointer: programme.pointer } : {}
  return { show: goal.show, output: { stage, over, scale, ...pointer } }
}

/** Everything of the shows that the picture of the programme depends on, by identity. */
export function programmeParts(programme: Programme, find: FindScene): readonly unknown[] {
  return scenesNeeded(programme).flatMap((ref) => {
    const found = find(ref)
    return found === null ? [null] : [...planParts(found.show, found.scene), found.drawings]
  })
}

/** The programme without graphics whose last layer has gone; the same object where all are to be seen. */
export function withoutGoneGraphics(programme: Programme, find: FindScene, nowMs: number): Programme {
  const graphics = programme.graphics.filter(({ scene }) => {
    const found = find(scene.ref)
    return found !== null && (scene.leavesMs === null || nowMs < scene.leavesMs + longestExitMs(found.scene))
  })
  return graphics.length === programme.graphics.length ? programme : { ...programme, graphics }
}

function stageOf(stage: StageOnAir, find: FindScene): Stage | null {
  if (stage.type === 'scene') return sceneStageOf(stage.scene, find)
  const [from, to] = [stageOf(stage.from, find), sceneStageOf(stage.to, find)]
  // What came before is gone for good: then there is nothing to come from.
  if (from === null || to === null) return to
  return { from, to, transition: stage.transition, beganMs: stage.beganMs }
}

function sceneStageOf({ ref, enteredMs, leavesMs }: SceneOnAir, find: FindScene): SceneStage | null {
  const found = find(ref)
  if (found === null) return null
  const drawings = found.drawings === undefined ? {} : { drawings: found.drawings }
  return { scene: found.scene, show: found.show, ...drawings, ...(enteredMs === null ? {} : { enteredMs }), ...(leavesMs === null ? {} : { leavesMs }) }
}

function longestExitMs(scene: Scene): number {
  return Math.max(0, ...layersOf(scene).map(({ exit }) => (exit === null ? 0 : lastsMs(exit))))
}
