import { shallowRef } from 'vue'
import { layersOf } from '../../../core/layers/tree.ts'
import { lastsMs } from '../../../core/motion/appearance.ts'
import type { Scene } from '../../../core/show/show.ts'
import type { Transition } from '../../../core/transitions/index.ts'
import type { ViewCue } from '../../../engine/protocol.ts'

/** What a scene on the stage plays, on the stage alone; the audience sees nothing of it. Null: it rests. */
export const stageCue = shallowRef<{ readonly sceneId: string; readonly cue: ViewCue } | null>(null)

let count = 0
/** The last picture of a slow machine comes late. */
const GRACE_MS = 1000

/** How long the layers of a scene take to come, or to go, in ms. */
export function longestMs(scene: Scene, way: 'enter' | 'leave'): number {
  return Math.max(0, ...layersOf(scene).map(({ entrance, exit }) => lastsMs(way === 'enter' ? entrance : exit)))
}

/** Plays how the layers of a scene come in, or leave. When they rest, the stage shows again what the audience gets. */
export function playOnStage(scene: Scene, way: 'enter' | 'leave' = 'enter'): void {
  start(scene, { way }, longestMs(scene, way))
}

/** Plays how a scene follows another. */
export function playTransition(from: Scene, scene: Scene, transition: Transition): void {
  start(scene, { way: 'enter', from: { sceneId: from.id, transition } }, Math.max(transition.durationMs, longestMs(scene, 'enter')))
}

/** Holds a moment of how the layers of a scene come in, or leave; null lets it rest. */
export function holdOnStage(scene: Scene, way: 'enter' | 'leave', atMs: number | null): void {
  count += 1
  stageCue.value = atMs === null ? null : { sceneId: scene.id, cue: { number: count, way, atMs } }
}

function start(scene: Scene, cue: Omit<ViewCue, 'number'>, playsMs: number): void {
  count += 1
  const number = count
  stageCue.value = { sceneId: scene.id, cue: { ...cue, number } }
  window.setTimeout(() => {
    if (stageCue.value?.cue.number === number) stageCue.value = null
  }, playsMs + GRACE_MS)
}
