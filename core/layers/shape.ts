import { parseHex } from '../colour/hex.ts'
import { boxToCanvas } from '../layout/placement.ts'
import type { Gradient, GradientStop } from '../paint/gradient.ts'
import type { Paint } from '../plan/frame-plan.ts'
import { fillOf } from '../show/contents.ts'
import type { Fill, FillStop } from '../show/show.ts'
import type { Affine } from '../composite/affine.ts'
import { putFramed } from './frame.ts'
import { scaledPlacement, type LayerKindDefinition } from './place.ts'

/** A box or an ellipse of a colour or a gradient. */
export const shapeLayer: LayerKindDefinition<'shape'> = {
  kind: 'shape',
  put: (place, layer) => {
    const { width, height, ...rest } = scaledPlacement(layer.placement, place.scale)
    putFramed(place, layer, boxToCanvas({ ...rest, width, height }), width, height, (toFrame) => paintOf(fillOf(place.show, layer), width, height, toFrame))
  },
}

function paintOf(fill: Fill, width: number, height: number, toFrame: Affine): Paint {
  if (fill.kind === 'plain') return { kind: 'plain', colour: parseHex(fill.colour), opacity: fill.opacity }
  return { kind: 'gradient', gradient: gradientOf(fill, width, height), toGradient: toFrame }
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

function stopOf({ at, colour, opacity }: FillStop): GradientStop {
  return { at, colour: parseHex(colour), opacity }
}
