import { parseHex } from '../colour/hex.ts'
import { boxToCanvas } from '../layout/placement.ts'
import type { OutlineFill } from '../outline/outline-picture.ts'
import { MITRE_LIMIT } from '../outline/stroked-contours.ts'
import type { Gradient, GradientStop } from '../paint/gradient.ts'
import { keyOf } from '../plan/plan-builder.ts'
import { shapeOf } from '../show/contents.ts'
import type { Fill, FillStop, Outline, ShapeLayer } from '../show/show.ts'
import { putFramed } from './frame.ts'
import { putSource } from './picture.ts'
import { callsOf, NO_STEPS, scaledPlacement, type LayerKindDefinition, type Place } from './place.ts'
import { outlineSourceId } from './sources.ts'

/** Of the picture of an outline. */
const MOST_PIXELS = 2_500_000

/** A form of a colour or a gradient: a box, an ellipse, or one that is drawn. */
export const shapeLayer: LayerKindDefinition<'shape'> = {
  kind: 'shape',
  put: (place, layer) => {
    const { fill, outline } = shapeOf(place.show, layer)
    if (outline !== null) return putOutline(place, layer, fill, outline)
    const { width, height, ...rest } = scaledPlacement(layer.placement, place.scale)
    putFramed(place, layer, boxToCanvas({ ...rest, width, height }), width, height, (toFrame) =>
      fill.kind === 'plain'
        ? { kind: 'plain', colour: parseHex(fill.colour), opacity: fill.opacity }
        : { kind: 'gradient', gradient: gradientOf(fill, width, height), toGradient: toFrame },
    )
  },
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

/** The gradient of a box: CSS Images Level 3 §3.1.1 for the length of a linear one, farthest-side for a radial one (§3.2.2), as a circle. */
export function gradientOf(fill: Exclude<Fill, { kind: 'plain' }>, width: number, height: number): Gradient {
  const stops = fill.stops.map(stopOf)
  if (fill.kind === 'radial') return { kind: 'radial', centreX: width / 2, centreY: height / 2, radius: Math.max(width, height) / 2, stops }
  const angle = (fill.angleDeg * Math.PI) / 180
  const half = (Math.abs(width * Math.sin(angle)) + Math.abs(height * Math.cos(angle))) / 2
  const alongX = Math.sin(angle) * half
  const alongY = -Math.cos(angle) * half
  return { kind: 'linear', fromX: width / 2 - alongX, fromY: height / 2 - alongY, toX: width / 2 + alongX, toY: height / 2 + alongY, stops }
}

function moved(gradient: Gradient, px: number): Gradient {
  if (gradient.kind === 'radial') return { ...gradient, centreX: gradient.centreX + px, centreY: gradient.centreY + px }
  return { ...gradient, fromX: gradient.fromX + px, fromY: gradient.fromY + px, toX: gradient.toX + px, toY: gradient.toY + px }
}

function stopOf({ at, colour, opacity }: FillStop): GradientStop {
  return { at, colour: parseHex(colour), opacity }
}
