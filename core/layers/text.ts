import { z } from 'zod'
import { PLAIN_FRAME } from '../box/frame.ts'
import type { MakeId } from '../random/make-id.ts'
import { RANGES, withinRange } from '../schema/limits.ts'
import { id } from '../schema/values.ts'
import { scaledText } from '../text/scaled-text.ts'
import { textContentSchema } from '../text/schema.ts'
import { USUAL_LETTERS, type TextContent } from '../text/text-content.ts'
import { contentOf } from './content.ts'
import { HIDING_OPACITY } from './coverage.ts'
import { newLayerBase, type Canvas, type Content, type Layer, type LayerBase, type LayerContext, type LayerDefinition, type NewLayer } from './layer.ts'
import { layerBase } from './schema.ts'

/** Words, perhaps on a plate. */
export interface TextLayer extends LayerBase {
  readonly kind: 'text'
  readonly contentId: string
}

/** What a text layer says. */
export interface TextItem {
  readonly id: string
  readonly kind: 'text'
  readonly text: TextContent
}

export const text: LayerDefinition<'text'> = {
  kind: 'text',
  schema: () => z.strictObject({ ...layerBase, kind: z.literal('text'), contentId: id }),
  content: {
    schema: z.strictObject({ id, kind: z.literal('text'), text: textContentSchema }),
    scaled: (content, scale) => ({ ...content, text: scaledText(content.text, (px, range) => withinRange(RANGES[range], px * scale)) }),
  },
  inputId: () => null,
  pageId: () => null,
  sceneId: () => null,
  contentId: ({ contentId }) => contentId,
  children: null,
  role: () => 'words',
  weight: () => 'text',
  pageRank: () => null,
  coverage: (layer, context) => ((textOf(context, layer).plate?.opacity ?? 0) >= HIDING_OPACITY ? 'opaque' : 'partial'),
  naturalSize: (_layer, { canvas }) => canvas,
  isEmpty: (layer, context) => {
    const { plate, blocks } = textOf(context, layer)
    return plate === null && blocks.every((block) => block.text.trim() === '')
  },
  isText: true,
  hasPicture: () => false,
  hasProportions: false,
}

export const isText = (layer: Layer | null | undefined): layer is TextLayer => layer?.kind === 'text'

export const isTextItem = (content: Content): content is TextItem => content.kind === 'text'

/** What a text layer says. Throws a RangeError when the show has no such text. */
export function textOf({ contents }: Pick<LayerContext, 'contents'>, { contentId }: Pick<TextLayer, 'contentId'>): TextContent {
  const content = contentOf({ contents }, contentId)
  if (content?.kind !== 'text') throw new RangeError(`the show has no text "${contentId}"`)
  return content.text
}

/** A title on a plate in the lower left, inside the title-safe area. */
export function newTextLayer(name: string, words: string, canvas: Canvas, makeId: MakeId): NewLayer<TextLayer> {
  const unit = canvas.heightPx / 720
  const placement = {
    x: Math.round(canvas.widthPx * 0.05),
    y: Math.round(canvas.heightPx * 0.78),
    width: Math.round(560 * unit),
    height: Math.round(100 * unit),
    angleDeg: 0,
    fit: 'fit' as const,
  }
  const base = newLayerBase(name, placement, makeId)
  const content = {
    ...USUAL_LETTERS,
    family: 'Bricolage Grotesque' as const,
    align: 'start' as const,
    blocks: [{ text: words, weight: 700, sizePx: Math.round(40 * unit), colour: '#ffffff' }],
    plate: { colour: '#1e5b47', opacity: 0.96, paddingPx: Math.round(24 * unit), accent: '#e0b04b' },
  }
  return {
    layer: { ...base, kind: 'text', contentId: base.id, frame: { ...PLAIN_FRAME, cornerRadiusPx: Math.round(4 * unit) } },
    contents: [{ id: base.id, kind: 'text', text: content }],
  }
}
