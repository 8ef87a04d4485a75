// A layer in its frame: its shadow, itself and its border, each an item.
import { followedBy, inverse, translation, type Affine } from '../composite/affine.ts'
import { insetShape, plainCoverage } from '../composite/coverage.ts'
import { sigmaOfBlur } from '../composite/shadow.ts'
import type { Shape } from '../composite/shape.ts'
import { parseHex } from '../colour/hex.ts'
import { frameShape } from '../box/frame.ts'
import { mappedBounds } from '../box/placement.ts'
import { isEmptyRect, unionOf } from '../picture/pixel-rect.ts'
import type { Item, Paint } from '../plan/frame-plan.ts'
import { StackItems, type ItemParts } from '../plan/plan-builder.ts'
import type { Border, Shadow } from '../box/frame.ts'
import type { Layer } from '../layers/layer.ts'
import type { Place } from './place.ts'

/** Of what lies further away eight bits show nothing: a seven-hundredth. */
const SHADOW_REACH_SIGMAS = 3

/**
 * Puts a layer whose frame spans 0..width × 0..height; `paintOf` is given the way from the stack to the frame. Says as which item, where it is
 * one: nothing goes round it, and something of it is inside the stack.
 */
export function putFramed(place: Place, layer: Layer, frameToStack: Affine, width: number, height: number, paintOf: (toFrame: Affine) => Paint): Item | null {
  const { builder, stack, scale, widthPx, heightPx, culls } = place
  const reveal = place.motion?.reveal ?? null
  const shape = frameShape(layer.frame, width, height, scale)
  const border = visible(layer.frame.border)
  const shadow = visible(layer.frame.shadow)
  if (shadow === null && border === null) {
    const itself = itemFor(place, layer, frameToStack, shape)
    if (isEmptyRect(itself.bounds)) return null
    const coverage = { ...plainCoverage(shape), reveal }
    return stack.put({ ...itself, paint: paintOf(itself.toCoverage), coverage, opacity: layer.opacity, blend: layer.blend })
  }
  const framed: Framed = { place, layer, frameToStack, shape, border, shadow, paint: paintOf(inverse(frameToStack)) }
  const { parts, areOver } = partsOverEachOther(framed) ?? partsBesideEachOther(framed)
  const seen = parts.filter(({ bounds }) => !isEmptyRect(bounds))
  if (seen.length === 0) return null
  if (areOver && reveal === null && layer.opacity === 1 && layer.blend === 'normal') {
    for (const part of seen) stack.put(part)
    return null
  }
  // Faint, blended or half uncovered they are one picture: nothing of one shows through another.
  const inner = new StackItems(builder, widthPx, heightPx, culls)
  for (const part of seen) inner.put(part)
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

const visible = <T extends { readonly opacity: number }>(part: T | null): T | null => (part === null || part.opacity === 0 ? null : part)

interface Framed {
  readonly place: Place
  readonly layer: Layer
  readonly frameToStack: Affine
  readonly shape: Shape
  readonly border: Border | null
  readonly shadow: Shadow | null
  readonly paint: Paint
}

interface Parts {
  readonly parts: readonly ItemParts[]
  /** Whether each is put over those before it; otherwise they lie beside each other and are added up. */
  readonly areOver: boolean
}

/** A ring that is narrower has no middle to hide an edge under. */
const LEAST_HIDING_PX = 3

/**
 * Shadow, picture and ring over each other, with every edge that two of them share under the middle of an opaque one: no ground shows between
 * them. Null where something that is see-through would show such an edge.
 */
function partsOverEachOther(framed: Framed): Parts | null {
  const { place, border, shadow, paint } = framed
  const strokePx = (border?.widthPx ?? 0) * place.scale
  if (border !== null && (border.opacity < 1 || strokePx < LEAST_HIDING_PX)) return null
  if (shadow !== null && !place.builder.isOpaque(paint)) return null
  const inset = border === null ? 0 : border.side === 'inside' ? strokePx / 2 : -strokePx / 2
  const itself = pictureItem(framed, inset, 1)
  const ring = border === null ? null : ringItem(framed, border)
  // All of the shadow: what is over it is opaque.
  const below = shadow === null ? null : { ...shadowItem(framed, shadow), coverage: { ...shadowItem(framed, shadow).coverage, hole: null } }
  return { parts: [below, itself, ring].filter((part) => part !== null), areOver: true }
}

/** The same by shares that add up to the layer's own: shadow outside the outer edge, ring between the edges, picture inside, and under a see-through ring. */
function partsBesideEachOther(framed: Framed): Parts {
  const { place, border, shadow } = framed
  const strokePx = (border?.widthPx ?? 0) * place.scale
  const parts: (ItemParts | null)[] = [shadow === null ? null : shadowItem(framed, shadow)]
  if (border?.side === 'inside') {
    if (border.opacity < 1) parts.push(pictureItem(framed, 0, 1 - border.opacity))
    parts.push(pictureItem(framed, strokePx, border.opacity))
  } else parts.push(pictureItem(framed, 0, 1))
  if (border !== null) parts.push(ringItem(framed, border))
  return { parts: parts.filter((part) => part !== null).map((part) => ({ ...part, blend: 'plus-lighter' })), areOver: false }
}

/** The picture as far as `insetPx` inside the edge; null where nothing is left of it. */
function pictureItem({ place, layer, frameToStack, shape, paint }: Framed, insetPx: number, opacity: number): ItemParts | null {
  const seen = insetPx === 0 ? shape : insetPx > 0 ? insetShape(shape, insetPx) : grownShape(shape, -insetPx)
  if (seen === null) return null
  return { ...itemFor(place, layer, followedBy(translation(insetPx, insetPx), frameToStack), seen), paint, coverage: plainCoverage(seen), opacity }
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

/** The shape that casts the shadow, with a border that goes round it: CSS Backgrounds and Borders Level 3 §6.1.1, the border box. */
function outerShape({ place, frameToStack, shape, border }: Framed): { readonly outer: Shape; readonly outerToStack: Affine } {
  if (border?.side !== 'outside') return { outer: shape, outerToStack: frameToStack }
  const strokePx = border.widthPx * place.scale
  return { outer: grownShape(shape, strokePx), outerToStack: followedBy(translation(-strokePx, -strokePx), frameToStack) }
}

function shadowItem(framed: Framed, shadow: Shadow): ItemParts {
  const { place, layer } = framed
  const { outer, outerToStack } = outerShape(framed)
  const dx = shadow.dx * place.scale
  const dy = shadow.dy * place.scale
  const sigmaPx = sigmaOfBlur(shadow.blurPx * place.scale)
  return {
    ...itemFor(place, layer, followedBy(translation(dx, dy), outerToStack), outer, Math.ceil(sigmaPx * SHADOW_REACH_SIGMAS)),
    paint: { kind: 'plain', colour: parseHex(shadow.colour), opacity: shadow.opacity },
    // Never behind the layer itself, which may be see-through.
    coverage: { ...plainCoverage(outer), sigmaPx, hole: { dx: -dx, dy: -dy } },
  }
}

function ringItem(framed: Framed, border: Border): ItemParts {
  const { place, layer } = framed
  const { outer, outerToStack } = outerShape(framed)
  return {
    ...itemFor(place, layer, outerToStack, outer),
    paint: { kind: 'plain', colour: parseHex(border.colour), opacity: border.opacity },
    coverage: { ...plainCoverage(outer), strokePx: border.widthPx * place.scale },
  }
}

/** A shape with as much more on every side; a sharp corner stays sharp. */
function grownShape(shape: Shape, px: number): Shape {
  const size = { width: shape.width + 2 * px, height: shape.height + 2 * px }
  if (shape.kind === 'superellipse') return { ...shape, ...size }
  return { ...shape, ...size, cornerRadius: shape.cornerRadius === 0 ? 0 : shape.cornerRadius + px }
}
