import { z } from 'zod'
import type { MakeId } from '../random/make-id.ts'
import { LIMITS } from '../schema/limits.ts'
import { newLayerBase, wholeCanvas, type Canvas, type Layer, type LayerBase, type LayerDefinition } from './layer.ts'
import { layerBase } from './schema.ts'

/** Layers on a canvas of their own, of the show's size, that is placed like a picture; as it is at first, they lie where they lay. */
export interface GroupLayer extends LayerBase {
  readonly kind: 'group'
  readonly layers: readonly Layer[]
}

export const group: LayerDefinition<'group'> = {
  kind: 'group',
  schema: (layer) =>
    z.strictObject({
      ...layerBase,
      kind: z.literal('group'),
      get layers(): z.ZodType<Layer[]> {
        return z.array(layer).max(LIMITS.layers)
      },
    }),
  content: null,
  inputId: () => null,
  pageId: () => null,
  sceneId: () => null,
  contentId: () => null,
  children: { of: ({ layers }) => layers, replaced: (layer, layers) => ({ ...layer, layers }) },
  role: null,
  weight: null,
  pageRank: () => null,
  // What lies in a group leaves gaps as often as not.
  coverage: () => 'partial',
  naturalSize: (_layer, { canvas }) => canvas,
  isEmpty: ({ layers }) => layers.length === 0,
  isText: false,
  hasPicture: () => true,
  hasProportions: false,
}

export const isGroup = (layer: Layer | null | undefined): layer is GroupLayer => layer?.kind === 'group'

/** Layers together, where they are. */
export function newGroupLayer(name: string, layers: readonly Layer[], canvas: Canvas, makeId: MakeId): GroupLayer {
  return { ...newLayerBase(name, wholeCanvas(canvas, 'stretch'), makeId), kind: 'group', layers }
}
