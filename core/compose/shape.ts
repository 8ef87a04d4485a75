import { callsOf, NO_STEPS } from '../steps/treatment.ts'
import { shapeOf } from '../layers/shape.ts'
import { parseHex } from '../colour/hex.ts'
import { boxToCanvas } from '../box/placement.ts'
import type { OutlineFill } from '../outline/outline-picture.ts'
import { MITRE_LIMIT } from '../outline/stroked-contours.ts'
import { gradientOf } from '../paint/fill.ts'
import type { Gradient } from '../paint/gradient.ts'
import { keyOf } from '../plan/plan-builder.ts'
import type { ShapeLayer } from '../layers/shape.ts'
import type { Outline } from '../outline/outline.ts'
import type { Fill } from '../paint/fill.ts'
import { putFramed } from './frame.ts'
import { putSource } from './picture.ts'
import { scaledPlacement, type PutLayer, type Place } from './place.ts'
import { outlineSourceId } from '../inputs/source-ids.ts'

/** Of the picture of an outline. */
const MOST_PIXELS = 2_500_000

/** A form of a colour or a gradient: a box, an ellipse, or one that is drawn. */
export const putShape: PutLayer<'shape'> = (place, layer) => {
  const { fill, outline } = shapeOf(place.show, layer)
  if (outline !== null) return putOutline(place, layer, fill, outline)
  const { width, height, ...rest } = scaledPlacement(layer.placement, place.scale)
  putFramed(place, layer, boxToCanvas({ ...rest, width, height }), width, height, (toFrame) =>
    fill.kind === 'plain'
      ? { kind: 'plain', colour: parseHex(fill.colour), opacity: fill.opacity }
      : { kind: 'gradient', gradient: gradientOf(fill, width, height), toGradient: toFrame },
  )
}

/** A drawn form is a picture of its own, as large as it is seen; while it moves, as large as it rests. The half of its stroke that lies outside has room. */
function putOutline(place: Place, layer: ShapeLayer, fill: Fill, { path, width: boxWidth, height: boxHeight, stroke }: Outline): void {
  const { scale, motion, builder } = place
  const placement = scaledPlacement(layer.placement, scale)
  const rest = motion === null ? placement : scaledPlacement(motion.rest, scale)
  // One that reaches far beyond the canvas is drawn coarser.
  const share = Math.min(1, Math.sqrt(MOST_PIXELS / (rest.width * rest.height)))
  const width = Math.max(1, Math.round(rest.width * share))
  const height = Math.max(1, Math.round(rest.height * share))
  const strokePx = stroke === null ? 0 : stroke.widthPx * scale * share
  // A mitre reaches that far beyond the line.
  const padPx = stroke === null ? 0 : Math.ceil((strokePx / 2) * MITRE_LIMIT) + 1
  const size = { widthPx: width + 2 * padPx, heightPx: height + 2 * padPx }
  const inPicture: OutlineFill = fill.kind === 'plain' ? fill : { kind: 'gradient', gradient: moved(gradientOf(fill, width, height), padPx) }
  const outline = { data: path, boxWidth, boxHeight, padPx, fill: inPicture, stroke: stroke === null ? null : { ...stroke, widthPx: strokePx } }
  const sourceId = outlineSourceId(`${keyOf(outline)} ${size.widthPx}×${size.heightPx}`)
  builder.outlines.set(sourceId, { sourceId, outline, ...size })
  const padX = (padPx * placement.width) / width
  const padY = (padPx * placement.height) / height
  const wide = {
    ...placement,
    x: placement.x - padX,
    y: placement.y - padY,
    width: placement.width + 2 * padX,
    height: placement.height + 2 * padY,
    fit: 'stretch' as const,
  }
  putSource(place, layer, wide, sourceId, { ...size, isOpaque: false }, callsOf(NO_STEPS, layer.treatment))
}

function moved(gradient: Gradient, px: number): Gradient {
  if (gradient.kind === 'radial') return { ...gradient, centreX: gradient.centreX + px, centreY: gradient.centreY + px }
  return { ...gradient, fromX: gradient.fromX + px, fromY: gradient.fromY + px, toX: gradient.toX + px, toY: gradient.toY + px }
}
