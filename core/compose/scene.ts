import type { PutLayer } from './place.ts'
import { putStacked } from './stacked.ts'

/** Another scene of the show. One that shows itself, by whatever way, ends there. */
export const putScene: PutLayer<'scene'> = (place, layer) => {
  const scene = place.show.scenes.find((candidate) => candidate.id === layer.sceneId)
  if (scene === undefined || place.within.includes(scene.id)) return
  putStacked(place, layer, scene.layers, [...place.within, scene.id])
}
