import type { Component } from 'vue'
import type { LayerKind, LayerOf } from '../../../core/layers/layer.ts'

/** How a kind of layer shows itself in the studio. */
export interface LayerFace<K extends LayerKind> {
  /** Its own part of the inspector, given the layer as `layer`; null for kinds that have none. */
  readonly section: Component<{ layer: LayerOf<K> }> | null
  /** How many layers it holds, for a layer that holds some. */
  readonly holds: (layer: LayerOf<K>) => number | null
  /** What opening a layer means: stepping into it, writing in it, or nothing. */
  readonly opens: 'layers' | 'words' | null
}
