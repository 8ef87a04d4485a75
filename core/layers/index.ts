// Every kind of layer. A new one is a file here, its form in core/show, and a line in this list.
import type { Layer, LayerKind } from '../show/show.ts'
import { groupLayer } from './group.ts'
import { inputLayer } from './input.ts'
import type { LayerKindDefinition, Place } from './place.ts'
import { sceneLayer } from './scene.ts'
import { shapeLayer } from './shape.ts'
import { textLayer } from './text.ts'

export const layerKinds = [inputLayer, textLayer, shapeLayer, groupLayer, sceneLayer] as const

/** Puts layers into a stack, from back to front. */
export function putLayers(place: Place, layers: readonly Layer[]): void {
  for (const layer of layers) {
    if (layer.visible && layer.opacity > 0) kindOf(layer.kind).put(place, layer)
  }
}

function kindOf(kind: LayerKind): LayerKindDefinition<LayerKind> {
  return layerKinds.find((each) => each.kind === kind) as unknown as LayerKindDefinition<LayerKind>
}
