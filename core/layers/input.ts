import { z } from 'zod'
import { inputKindOf } from '../inputs/index.ts'
import type { Input } from '../inputs/input.ts'
import type { MakeId } from '../random/make-id.ts'
import { id } from '../schema/values.ts'
import { makesMatte } from '../steps/chain.ts'
import { callsOf } from '../steps/treatment.ts'
import { newLayerBase, wholeCanvas, type Canvas, type Layer, type LayerBase, type LayerContext, type LayerDefinition } from './layer.ts'
import { coversCanvas, shareOfCanvas } from './on-canvas.ts'
import { layerBase } from './schema.ts'

/** A layer that shows an input. */
export interface InputLayer extends LayerBase {
  readonly kind: 'input'
  readonly inputId: string
  /** The page of a deck that it stays at; null: the one that the deck is at. */
  readonly pageId: string | null
}

/** A picture that takes less of the canvas is a mark: it stays over all. */
const MARK_SHARE = 0.05

const inputOf = ({ inputs }: LayerContext, { inputId }: InputLayer): Input | undefined => inputs.find(({ id }) => id === inputId)

export const input: LayerDefinition<'input'> = {
  kind: 'input',
  schema: () => z.strictObject({ ...layerBase, kind: z.literal('input'), inputId: id, pageId: id.nullable() }),
  content: null,
  inputId: ({ inputId }) => inputId,
  pageId: ({ pageId }) => pageId,
  sceneId: () => null,
  contentId: () => null,
  children: null,
  role: (layer, context) => {
    const shown = inputOf(context, layer)
    if (shown === undefined) return 'page'
    const { subject, canBeMark } = inputKindOf(shown)
    if (subject !== 'page') return subject === 'person' ? 'person' : 'ground'
    if (!canBeMark) return 'page'
    if (coversCanvas(context.canvas, layer.placement) && layer.placement.fit !== 'fit') return 'ground'
    return shareOfCanvas(context.canvas, layer.placement) < MARK_SHARE ? 'graphic' : 'page'
  },
  weight: (layer, context) => {
    const shown = inputOf(context, layer)
    const subject = shown === undefined ? 'page' : inputKindOf(shown).subject
    return subject === 'person' ? 'camera' : subject === 'wall' ? 'colour' : 'picture'
  },
  pageRank: (layer, context) => {
    const shown = inputOf(context, layer)
    return shown === undefined ? null : inputKindOf(shown).pageRank
  },
  coverage: (layer, context, infos) => {
    const shown = inputOf(context, layer)
    if (shown === undefined) return 'partial'
    const { hasPicture, sourceId } = inputKindOf(shown)
    const isOpaque = !hasPicture || infos.get(sourceId(shown, layer.pageId))?.isOpaque === true
    return isOpaque && !makesMatte(callsOf(shown.treatment, layer.treatment)) ? 'opaque' : 'partial'
  },
  naturalSize: (layer, context, infos) => {
    const shown = inputOf(context, layer)
    return shown === undefined || !inputKindOf(shown).hasPicture ? undefined : infos.get(inputKindOf(shown).sourceId(shown, layer.pageId))
  },
  isEmpty: () => false,
  isText: false,
  hasPicture: (layer, context) => {
    const shown = inputOf(context, layer)
    return shown === undefined || inputKindOf(shown).hasPicture
  },
  hasProportions: true,
}

export const isInputLayer = (layer: Layer | null | undefined): layer is InputLayer => layer?.kind === 'input'

/** A layer that shows an input over the whole canvas, fitted. */
export function newInputLayer(shown: Input, canvas: Canvas, makeId: MakeId): InputLayer {
  return { ...newLayerBase(shown.name, wholeCanvas(canvas, inputKindOf(shown).fit), makeId), kind: 'input', inputId: shown.id, pageId: null }
}
