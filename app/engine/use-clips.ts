// The clips that play, and where each is, by its input.
import { inputIdOf } from '../../core/layers/index.ts'
import { shallowRef } from 'vue'
import { layersShownBy } from '../../core/layers/tree.ts'
import type { Layer, Show } from '../../core/show/show.ts'
import { ClipManager, type ClipState } from '../../engine/client/clip-manager.ts'
import type { StudioEngine } from '../../engine/client/studio-engine.ts'

/** `engine` gives the one that runs now: pictures go there. */
export function useClips(engine: () => StudioEngine) {
  const clipStates = shallowRef<Readonly<Record<string, ClipState>>>({})
  const clips = new ClipManager(
    {
      makeWorker: () => new Worker(new URL('../../engine/clip/clip.worker.ts', import.meta.url), { type: 'module', name: 'clip' }),
      assetUrl: (asset) => new URL(`/api/assets/${asset}`, location.href).href,
    },
    {
      onSupply: (inputId, supply) => engine().setSupply(inputId, supply, false),
      onGone: (inputId) => engine().dropSupply(inputId),
      onState: (inputId, state) => (clipStates.value = { ...clipStates.value, [inputId]: state }),
    },
  )
  return {
    clips,
    clipStates,
    playClip: (inputId: string) => clips.play(inputId),
    pauseClip: (inputId: string) => clips.pause(inputId),
    restartClip: (inputId: string) => clips.restart(inputId),
  }
}

/** Inputs that are seen in some scenes: on the stage, on air. */
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
