import { keyOf } from '../plan/plan-builder.ts'
import type { TextContent } from '../text/text-content.ts'
import { callsOf, NO_STEPS, putSource, scaledPlacement, type LayerKindDefinition } from './place.ts'
import { textSourceId } from './sources.ts'

/** Words on a plate, set at the size they are seen at. */
export const textLayer: LayerKindDefinition<'text'> = {
  kind: 'text',
  put: (place, layer) => {
    const placement = scaledPlacement(layer.placement, place.scale)
    const size = { widthPx: Math.max(1, Math.round(placement.width)), heightPx: Math.max(1, Math.round(placement.height)) }
    const sourceId = textSourceId(layer.id, size.widthPx, size.heightPx, place.scale)
    const content = scaledText(layer.text, place.scale)
    place.builder.texts.set(sourceId, { sourceId, content, ...size, key: `${keyOf(content)} ${size.widthPx}×${size.heightPx}` })
    putSource(place, layer, placement, sourceId, { ...size, isOpaque: false }, callsOf(NO_STEPS, layer.treatment))
  },
}

const scaledTexts = new WeakMap<TextContent, { readonly scale: number; readonly content: TextContent }>()

/** A text with letters and plate of another size; the same object for the same text and scale as before. */
export function scaledText(content: TextContent, scale: number): TextContent {
  if (scale === 1) return content
  const known = scaledTexts.get(content)
  if (known?.scale === scale) return known.content
  const scaled: TextContent = {
    ...content,
    blocks: content.blocks.map((block) => ({ ...block, sizePx: block.sizePx * scale })),
    plate: content.plate === null ? null : { ...content.plate, paddingPx: content.plate.paddingPx * scale },
  }
  scaledTexts.set(content, { scale, content: scaled })
  return scaled
}
