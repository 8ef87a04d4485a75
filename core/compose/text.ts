import { callsOf, NO_STEPS } from '../steps/treatment.ts'
import { textOf } from '../layers/text.ts'
import { keyOf } from '../plan/plan-builder.ts'
import { filledText } from '../text/fields.ts'
import { scaledText } from '../text/scaled-text.ts'
import { lettersOf } from '../text/letters.ts'
import type { TextContent } from '../text/text-content.ts'
import { putSource } from './picture.ts'
import { scaledPlacement, type PutLayer } from './place.ts'
import { textSourceId } from '../inputs/source-ids.ts'

/** Words on a plate, set at the size they are seen at; while they move, at the size they rest at. */
export const putText: PutLayer<'text'> = (place, layer) => {
  const { show, scale, builder, motion, clock, wall } = place
  const placement = scaledPlacement(layer.placement, scale)
  const rest = motion === null ? placement : scaledPlacement(motion.rest, scale)
  const size = { widthPx: Math.max(1, Math.round(rest.width)), heightPx: Math.max(1, Math.round(rest.height)) }
  const filled = filledText(textOf(show, layer), show.presenter, wall, clock.timeMs)
  builder.changesAt(filled.untilMs)
  const content = textAt(filled.content, scale)
  const lettersShown = motion === null || motion.typed === 1 ? null : Math.round(motion.typed * letterCount(content))
  const sourceId = textSourceId(`${keyOf(content)} ${size.widthPx}×${size.heightPx} ${lettersShown ?? ''}`)
  builder.texts.set(sourceId, { sourceId, contentId: layer.contentId, content, lettersShown, ...size })
  putSource(place, layer, placement, sourceId, { ...size, isOpaque: false }, callsOf(NO_STEPS, layer.treatment))
}

const scaledTexts = new WeakMap<TextContent, { readonly scale: number; readonly content: TextContent }>()

/** A text at a scale; the same object for the same text and scale as before. */
function textAt(content: TextContent, scale: number): TextContent {
  if (scale === 1) return content
  const known = scaledTexts.get(content)
  if (known?.scale === scale) return known.content
  const scaled = scaledText(content, (px) => px * scale)
  scaledTexts.set(content, { scale, content: scaled })
  return scaled
}

function letterCount({ blocks }: TextContent): number {
  return blocks.reduce((sum, { text }) => sum + lettersOf(text).length, 0)
}
