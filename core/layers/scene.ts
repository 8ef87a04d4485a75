import { z } from 'zod'
import type { MakeId } from '../random/make-id.ts'
import { id } from '../schema/values.ts'
import { newLayerBase, wholeCanvas, type Canvas, type Layer, type LayerBase, type LayerDefinition } from './layer.ts'
import { layerBase } from './schema.ts'

/** Another scene of the show, as a picture. */
export interface SceneLayer extends LayerBase {
  readonly kind: 'scene'
  readonly sceneId: string
}

export const scene: LayerDefinition<'scene'> = {
  kind: 'scene',
  schema: () => z.strictObject({ ...layerBase, kind: z.literal('scene'), sceneId: id }),
  content: null,
  inputId: () => null,
  pageId: () => null,
  sceneId: ({ sceneId }) => sceneId,
  contentId: () => null,
  children: null,
  role: () => 'page',
  weight: null,
  pageRank: () => 1,
  // What lies in another scene leaves gaps as often as not.
  coverage: () => 'partial',
  naturalSize: (_layer, { canvas }) => canvas,
  isEmpty: ({ sceneId }, { scenes }) => scenes.find(({ id }) => id === sceneId)?.layers.length === 0,
  isText: false,
  hasPicture: () => true,
  hasProportions: true,
}

/** Another scene as a picture, over the whole canvas. */
export function newSceneLayer(shown: { readonly id: string; readonly name: string }, canvas: Canvas, makeId: MakeId): SceneLayer {
  return { ...newLayerBase(shown.name, wholeCanvas(canvas, 'fit'), makeId), kind: 'scene', sceneId: shown.id }
}

export const isSceneLayer = (layer: Layer | null | undefined): layer is SceneLayer => layer?.kind === 'scene'
