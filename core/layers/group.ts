import type { LayerKindDefinition } from './place.ts'
import { putStacked } from './stacked.ts'

/** Layers that are moved, framed, cleaned and blended as one. */
export const groupLayer: LayerKindDefinition<'group'> = {
  kind: 'group',
  put: (place, layer) => putStacked(place, layer, layer.layers, place.within),
}
