// Where an input is used: the layers whose own treatment the bench can work on.
import { inputIdOf } from '../../core/layers/index.ts'
import { layersOf } from '../../core/layers/tree.ts'
import { computed } from 'vue'
import type { LayerPlace } from '../../engine/protocol.ts'
import { useShowStore } from '../show/show.store.ts'

export interface Place extends LayerPlace {
  readonly name: string
}

export function usePlaces(inputId: () => string | null) {
  const showStore = useShowStore()
  return computed<readonly Place[]>(() => {
    const scenes = showStore.show?.scenes ?? []
    return scenes.flatMap((scene) => {
      const layers = layersOf(scene).filter((layer) => inputIdOf(layer) === inputId())
      // Two layers of one input in a scene are told apart by the layer's name.
      return layers.map((layer) => ({ sceneId: scene.id, layerId: layer.id, name: layers.length > 1 ? `${scene.name}, ${layer.name}` : scene.name }))
    })
  })
}
