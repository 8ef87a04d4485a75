import { ref } from 'vue'
import { layersOf } from '../../../core/layers/tree.ts'
import { lastsMs } from '../../../core/motion/appearance.ts'
import type { Scene } from '../../../core/show/show.ts'

/** The scene on the stage that plays how its layers come in; a number more plays it again. */
export const stageCue = ref<{ readonly sceneId: string; readonly number: number } | null>(null)

let count = 0
/** The last picture of a slow machine comes late. */
const GRACE_MS = 1000

/** Plays how the layers of a scene come in, on the stage alone. When they rest, the stage shows again what the audience gets. */
export function playOnStage(scene: Scene): void {
  count += 1
  const number = count
  stageCue.value = { sceneId: scene.id, number }
  const longestMs = Math.max(0, ...layersOf(scene).map(({ entrance }) => lastsMs(entrance)))
  window.setTimeout(() => {
    if (stageCue.value?.number === number) stageCue.value = null
  }, longestMs + GRACE_MS)
}
