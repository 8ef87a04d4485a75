// How every kind of layer is put into a plan. A new kind is a file here and a line in this list; what it is stands in core/layers.
import type { LayerKind, LayerOf } from '../layers/layer.ts'
import type { Placement } from '../box/placement.ts'
import type { Layer } from '../layers/layer.ts'
import { putPageDrawing } from './drawing.ts'
import { putGroup } from './group.ts'
import { putInput } from './input.ts'
import { inkAbove, putBetween } from './inside-page.ts'
import type { Place, PutLayer } from './place.ts'
import { moved } from './motion.ts'
import { putScene } from './scene.ts'
import { putShape } from './shape.ts'
import { putText } from './text.ts'

const putters: { readonly [K in LayerKind]: PutLayer<K> } = { input: putInput, text: putText, shape: putShape, group: putGroup, scene: putScene }

/** Puts layers into a stack, from back to front. */
export function putLayers(place: Place, layers: readonly Layer[]): void {
  for (let index = 0; index < layers.length; index += 1) {
    const layer = layers[index]!
    const ink = inkAbove(layers, index)
    if (ink < 0) {
      putLayer(place, layer)
      continue
    }
    // A page that somebody stands in is put twice; what is drawn on it lies over all of it, once.
    const bare = { ...place, drawings: null }
    putLayer(bare, layer)
    putBetween(bare, layers.slice(index + 1, ink), layers[ink]!)
    putPageDrawing(place, layers[ink]!)
    index = ink
  }
}

function putLayer(place: Place, layer: Layer): void {
  if (!layer.visible || layer.opacity === 0) return
  const now = moved(place, layer)
  if (now !== null) putKind(now.layer === layer ? place : { ...place, motion: now }, now.layer)
}

/** Puts one layer as it is at this moment; `rest` is where it is as large as its words are set. */
export function putLayerAt(place: Place, layer: Layer, rest: Placement): void {
  putKind({ ...place, motion: { rest, reveal: null, typed: 1 } }, layer)
}

function putKind<K extends LayerKind>(place: Place, layer: LayerOf<K> & { readonly kind: K }): void {
  putters[layer.kind](place, layer)
  putPageDrawing(place, layer)
}
