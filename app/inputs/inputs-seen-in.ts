import { inputIdOf } from '../../core/layers/index.ts'
import { layersShownBy } from '../../core/layers/tree.ts'
import type { Layer, Show } from '../../core/show/show.ts'

/** Inputs that are seen in some scenes: on the stage, on air. Null among the ids stands for no scene. */
export function inputsSeenIn(show: Show, sceneIds: readonly (string | null)[]): ReadonlySet<string> {
  const seen = new Set<string>()
  const look = (layers: readonly Layer[]) => {
    for (const layer of layers) {
      if (!layer.visible) continue
      for (const each of [layer, ...layersShownBy(show, layer)]) {
        const inputId = inputIdOf(each)
        if (inputId !== null && each.visible) seen.add(inputId)
      }
    }
  }
  for (const scene of show.scenes) if (sceneIds.includes(scene.id)) look(scene.layers)
  return seen
}
