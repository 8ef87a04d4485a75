// Every kind of layer as the studio shows it: a folder with its part of the inspector for kinds that have one, and a line here.
import type { Component } from 'vue'
import type { LayerKind, LayerOf } from '../../../core/layers/layer.ts'
import type { LayerFace } from './face.ts'
import GroupSection from './group/GroupSection.vue'
import LinkedSceneSection from './scene/LinkedSceneSection.vue'
import ShapeSection from './shape/ShapeSection.vue'
import TextSection from './text/TextSection.vue'

export const layerFaces: { readonly [K in LayerKind]: LayerFace<K> } = {
  input: { section: null, holds: () => null, opens: null },
  text: { section: TextSection as Component, holds: () => null, opens: 'words' },
  shape: { section: ShapeSection as Component, holds: () => null, opens: null },
  group: { section: GroupSection as Component, holds: ({ layers }) => layers.length, opens: 'layers' },
  scene: { section: LinkedSceneSection, holds: () => null, opens: null },
}

/** How the kind of a layer shows itself. */
export function layerFaceOf<K extends LayerKind>(layer: LayerOf<K> & { readonly kind: K }): LayerFace<K> {
  return layerFaces[layer.kind]
}
