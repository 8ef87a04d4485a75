import { z } from 'zod'
import { PLAIN_FRAME, type FrameForm } from '../box/frame.ts'
import { OUTLINE_BOX, usualOutlines, type OutlineName } from '../outline/usual-outlines.ts'
import { outlineSchema, type Outline } from '../outline/outline.ts'
import { fillSchema, leastOpacity, type Fill } from '../paint/fill.ts'
import type { MakeId } from '../random/make-id.ts'
import { id } from '../schema/values.ts'
import { contentOf } from './content.ts'
import { HIDING_OPACITY } from './coverage.ts'
import { newLayerBase, type Canvas, type Layer, type LayerBase, type LayerContext, type LayerDefinition, type NewLayer } from './layer.ts'
import { layerBase } from './schema.ts'

/** A form of a colour or a gradient. Without an outline of its own its frame gives it its form: a box or an ellipse. */
export interface ShapeLayer extends LayerBase {
  readonly kind: 'shape'
  readonly contentId: string
}

/** What a shape is: its fill, and its outline if it has one of its own. */
export interface ShapeContent {
  readonly id: string
  readonly kind: 'shape'
  readonly fill: Fill
  readonly outline: Outline | null
}

export const shape: LayerDefinition<'shape'> = {
  kind: 'shape',
  schema: () => z.strictObject({ ...layerBase, kind: z.literal('shape'), contentId: id }),
  content: {
    schema: z.strictObject({ id, kind: z.literal('shape'), fill: fillSchema, outline: outlineSchema.nullable() }),
    // Its outline is stretched over the layer's box.
    scaled: (content) => content,
  },
  inputId: () => null,
  pageId: () => null,
  sceneId: () => null,
  contentId: ({ contentId }) => contentId,
  children: null,
  role: () => 'graphic',
  weight: () => 'colour',
  pageRank: () => null,
  coverage: (layer, context) => (leastOpacity(shapeOf(context, layer).fill) >= HIDING_OPACITY ? 'opaque' : 'partial'),
  naturalSize: (_layer, { canvas }) => canvas,
  isEmpty: () => false,
  isText: false,
  hasPicture: () => false,
  hasProportions: true,
}

export const isShape = (layer: Layer | null | undefined): layer is ShapeLayer => layer?.kind === 'shape'

/** What a shape is. Throws a RangeError when the show has no such shape. */
export function shapeOf({ contents }: Pick<LayerContext, 'contents'>, { contentId }: Pick<ShapeLayer, 'contentId'>): ShapeContent {
  const content = contentOf({ contents }, contentId)
  if (content?.kind !== 'shape') throw new RangeError(`the show has no shape "${contentId}"`)
  return content
}

/** A coloured form in the middle of the canvas. */
export function newShapeLayer(name: string, form: FrameForm, canvas: Canvas, makeId: MakeId): NewLayer<ShapeLayer> {
  const side = Math.round(canvas.heightPx / 3)
  const width = form === 'box' ? side * 2 : side
  const placement = {
    x: Math.round((canvas.widthPx - width) / 2),
    y: Math.round((canvas.heightPx - side) / 2),
    width,
    height: side,
    angleDeg: 0,
    fit: 'stretch' as const,
  }
  const base = newLayerBase(name, placement, makeId)
  return {
    layer: { ...base, kind: 'shape', contentId: base.id, frame: { ...PLAIN_FRAME, form } },
    contents: [newShapeContent(base.id)],
  }
}

function newShapeContent(contentId: string, outline: Outline | null = null): ShapeContent {
  return { id: contentId, kind: 'shape', fill: { kind: 'plain', colour: '#1e5b47', opacity: 1 }, outline }
}

/** A drawn form in the middle of the canvas. */
export function newOutlineLayer(name: string, form: OutlineName, canvas: Canvas, makeId: MakeId): NewLayer<ShapeLayer> {
  const { layer } = newShapeLayer(name, 'softSquare', canvas, makeId)
  const outline = { path: usualOutlines[form], width: OUTLINE_BOX, height: OUTLINE_BOX, stroke: null }
  return { layer: { ...layer, frame: PLAIN_FRAME }, contents: [newShapeContent(layer.contentId, outline)] }
}

/** A line across the middle: a thin box with round ends. */
export function newLineLayer(name: string, canvas: Canvas, makeId: MakeId): NewLayer<ShapeLayer> {
  const { layer, contents } = newShapeLayer(name, 'box', canvas, makeId)
  const thick = Math.max(1, Math.round(canvas.heightPx / 120))
  const placement = { ...layer.placement, y: Math.round((canvas.heightPx - thick) / 2), height: thick }
  return { layer: { ...layer, placement, frame: { ...layer.frame, cornerRadiusPx: thick / 2 } }, contents }
}
