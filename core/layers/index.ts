// Every kind of layer. A new one is a file here, its form in core/show, and a line in this list.
import type { Layer, LayerKind, Placement } from '../show/show.ts'
import { groupLayer } from './group.ts'
import { inputLayer } from './input.ts'
import { inkAbove, putBetween } from './inside-page.ts'
import type { LayerKindDefinition, Place } from './place.ts'
import { moved } from './motion.ts'
import { sceneLayer } from './scene.ts'
import { shapeLayer } from './shape.ts'
import { textLayer } from './text.ts'

export const layerKinds = [inputLayer, textLayer, shapeLayer, groupLayer, sceneLayer] as const

/** Puts layers into a stack, from back to front. */
export function putLayers(place: Place, layers: readonly Layer[]): void {
  for (let index = 0; index < layers.length; index += 1) {
    const layer = layers[index]!
    putLayer(place, layer)
    const ink = inkAbove(layers, index)
    if (ink < 0) continue
    putBetween(place, layers.slice(index + 1, ink), layers[ink]!)
    index = ink
  }
}

function putLayer(place: Place, layer: Layer): void {
  if (!layer.visible || layer.opacity === 0) return
  const now = moved(place, layer)
  if (now !== null) kindOf(layer.kind).put(now.layer === layer ? place : { ...place, motion: now }, now.layer)
}

/** Puts one layer as it is at this moment; `rest` is where it is as large as its words are set. */
export function putLayerAt(place: Place, layer: Layer, rest: Placement): void {
  kindOf(layer.kind).put({ ...place, motion: { rest, reveal: null, typed: 1 } }, layer)
}

function kindOf(kind: LayerKind): LayerKindDefinition<LayerKind> {
  return layerKinds.find((each) => each.kind === kind) as unknown as LayerKindDefinition<LayerKind>
}
