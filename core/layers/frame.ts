// A layer in its frame: its shadow, itself and its border, each an item.
import { followedBy, inverse, translation, type Affine } from '../composite/affine.ts'
import { plainCoverage } from '../composite/coverage.ts'
import { sigmaOfBlur } from '../composite/shadow.ts'
import type { Shape } from '../composite/shape.ts'
import { parseHex } from '../colour/hex.ts'
import { mappedBounds } from '../layout/placement.ts'
import { isEmptyRect, unionOf } from '../picture/pixel-rect.ts'
import type { Item, Paint } from '../plan/frame-plan.ts'
import { StackItems, type ItemParts } from '../plan/plan-builder.ts'
import type { Frame, Layer } from '../show/show.ts'
import type { Place } from './place.ts'

/** How full a soft square is: between an ellipse (2) and a box. */
const SOFT_SQUARE_EXPONENT = 4
/** Of what lies further away eight bits show nothing: a seven-hundredth. */
const SHADOW_REACH_SIGMAS = 3

/** The form that a frame has at a size; `scale` is that of its corners. */
export function frameShape({ form, cornerRadiusPx }: Frame, width: number, height: number, scale: number): Shape {
  if (form === 'box') return { kind: 'roundedRect', width, height, cornerRadius: cornerRadiusPx * scale }
  return { kind: 'superellipse', width, height, exponent: form === 'ellipse' ? 2 : SOFT_SQUARE_EXPONENT }
}

/**
 * Puts a layer whose frame spans 0..width × 0..height; `paintOf` is given the way from the stack to the frame. Says as which item, where it is
 * one: nothing goes round it, and something of it is inside the stack.
 */
export function putFramed(place: Place, layer: Layer, frameToStack: Affine, width: number, height: number, paintOf: (toFrame: Affine) => Paint): Item | null {
  const { builder, stack, scale, widthPx, heightPx, culls } = place
  const reveal = place.motion?.reveal ?? null
  const shape = frameShape(layer.frame, width, height, scale)
  const itself = { ...itemFor(place, layer, frameToStack, shape), coverage: plainCoverage(shape) }
  if (layer.frame.shadow === null && layer.frame.border === null) {
    if (isEmptyRect(itself.bounds)) return null
    const coverage = reveal === null ? itself.coverage : { ...itself.coverage, reveal }
    return stack.put({ ...itself, paint: paintOf(itself.toCoverage), coverage, opacity: layer.opacity, blend: layer.blend })
  }
  const shadow = shadowItem(place, layer, frameToStack, shape)
  const border = borderItem(place, layer, frameToStack, shape)
  const around = [shadow, border].filter((item) => item !== null)
  if ([itself, ...around].every(({ bounds }) => isEmptyRect(bounds))) return null
  const parts: ItemParts[] = [
    ...(shadow === null ? [] : [shadow]),
    ...(isEmptyRect(itself.bounds) ? [] : [{ ...itself, paint: paintOf(itself.toCoverage) }]),
    ...(border === null ? [] : [border]),
  ]
  const isOnItsOwn = around.length === 0
  if (isOnItsOwn || (layer.opacity === 1 && layer.blend === 'normal')) {
    for (const part of parts) {
      stack.put({ ...part, coverage: reveal === null ? part.coverage : { ...part.coverage, reveal }, opacity: layer.opacity, blend: layer.blend })
    }
    return null
  }
  // Faint or blended, they are one picture: nothing of one shows through another.
  const inner = new StackItems(builder, widthPx, heightPx, culls)
  for (const part of parts) inner.put(part)
  stack.put({
    layerId: layer.id,
    paint: { kind: 'node', node: builder.stack('clear', widthPx, heightPx, inner.items), toNode: translation(0, 0) },
    coverage: { ...plainCoverage({ kind: 'roundedRect', width: widthPx, height: heightPx, cornerRadius: 0 }), reveal },
    toCoverage: translation(0, 0),
    bounds: unionOf(inner.items.map((item) => item.bounds)),
    opacity: layer.opacity,
    blend: layer.blend,
  })
  return null
}

function itemFor({ widthPx, heightPx }: Place, layer: Layer, shapeToStack: Affine, shape: Shape, reachPx = 0) {
  const grown = followedBy(translation(-reachPx, -reachPx), shapeToStack)
  return {
    layerId: layer.id,
    toCoverage: inverse(shapeToStack),
    bounds: mappedBounds(grown, shape.width + 2 * reachPx, shape.height + 2 * reachPx, widthPx, heightPx),
    opacity: 1,
    blend: 'normal' as const,
  }
}

function shadowItem(place: Place, layer: Layer, frameToStack: Affine, shape: Shape): ItemParts | null {
  const { shadow } = layer.frame
  if (shadow === null || shadow.opacity === 0) return null
  const dx = shadow.dx * place.scale
  const dy = shadow.dy * place.scale
  const sigmaPx = sigmaOfBlur(shadow.blurPx * place.scale)
  return {
    ...itemFor(place, layer, followedBy(translation(dx, dy), frameToStack), shape, Math.ceil(sigmaPx * SHADOW_REACH_SIGMAS)),
    paint: { kind: 'plain', colour: parseHex(shadow.colour), opacity: shadow.opacity },
    // Never behind the layer itself, which may be see-through.
    coverage: { ...plainCoverage(shape), sigmaPx, hole: { dx: -dx, dy: -dy } },
  }
}

function borderItem(place: Place, layer: Layer, frameToStack: Affine, shape: Shape): ItemParts | null {
  const { border } = layer.frame
  if (border === null || border.opacity === 0) return null
  const strokePx = border.widthPx * place.scale
  const outer = border.side === 'inside' ? shape : grownShape(shape, strokePx)
  const shapeToStack = border.side === 'inside' ? frameToStack : followedBy(translation(-strokePx, -strokePx), frameToStack)
  return {
    ...itemFor(place, layer, shapeToStack, outer),
    paint: { kind: 'plain', colour: parseHex(border.colour), opacity: border.opacity },
    coverage: { ...plainCoverage(outer), strokePx },
  }
}

/** A shape with as much more on every side; a sharp corner stays sharp. */
function grownShape(shape: Shape, px: number): Shape {
  const size = { width: shape.width + 2 * px, height: shape.height + 2 * px }
  if (shape.kind === 'superellipse') return { ...shape, ...size }
  return { ...shape, ...size, cornerRadius: shape.cornerRadius === 0 ? 0 : shape.cornerRadius + px }
}

/** A frame of another size; `at` is told each length, and by which range it is held. */
export function scaledFrame(frame: Frame, at: (px: number, range: 'cornerRadiusPx' | 'borderPx' | 'shadowOffsetPx' | 'blurPx') => number): Frame {
  const { border, shadow } = frame
  return {
    ...frame,
    cornerRadiusPx: at(frame.cornerRadiusPx, 'cornerRadiusPx'),
    border: border === null ? null : { ...border, widthPx: at(border.widthPx, 'borderPx') },
    shadow:
      shadow === null ? null : { ...shadow, dx: at(shadow.dx, 'shadowOffsetPx'), dy: at(shadow.dy, 'shadowOffsetPx'), blurPx: at(shadow.blurPx, 'blurPx') },
  }
}
