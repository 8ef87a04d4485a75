import type { PutLayer } from './place.ts'
import { putStacked } from './stacked.ts'

/** Layers that are moved, framed, cleaned and blended as one. */
export const putGroup: PutLayer<'group'> = (place, layer) => putStacked(place, layer, layer.layers, place.within)
