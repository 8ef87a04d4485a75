// Layers that both scenes have move from place to place; what only one of them has dissolves where it is.
import { layerKindOf, identityOf, childrenOf } from '../layers/index.ts'
import { formatHex, parseHex } from '../colour/hex.ts'
import { putLayerAt } from '../compose/index.ts'
import { putSceneDrawing } from '../compose/drawing.ts'
import { hasInkInside } from '../compose/inside-page.ts'
import type { Crop } from '../box/fit.ts'
import type { Place } from '../compose/place.ts'
import { keyOf, StackItems } from '../plan/plan-builder.ts'
import type { Border, Frame, Shadow } from '../box/frame.ts'
import type { Placement } from '../box/placement.ts'
import type { Layer } from '../layers/layer.ts'
import { mixed } from './dissolve.ts'
import { commonOrder } from './common-order.ts'
import type { SceneSide, TransitionBase, TransitionDefinition } from './definition.ts'
import { pictureOf, wholeItem } from './whole.ts'

interface SideLayers {
  readonly place: Place
  readonly layers: readonly Layer[]
}

export interface Glide extends TransitionBase {
  readonly kind: 'glide'
}

export const glide: TransitionDefinition<Glide> = {
  kind: 'glide',
  usual: {},
  stored: {},
  put: (between, _transition, progress) => {
    const { from, to, ground } = between
    if (progress === 0) return from.put()
    if (progress === 1) return to.put()
    // What is itself on its way somewhere has no layers to take along.
    if (from.scene === null || to.scene === null || ground !== 'black') return mixed(between, progress)
    // What two shows have under one name is not the same thing.
    if (from.scene.place.show !== to.scene.place.show) return mixed(between, progress)
    const fromLayers = from.scene.layers.filter(isSeen)
    const toLayers = to.scene.layers.filter(isSeen)
    // What a page's ink is on has to be drawn with it.
    if (hasInkInside(fromLayers) || hasInkInside(toLayers)) return mixed(between, progress)
    // Where one of the two covers the canvas, what the other has at the very back is there all the time: nobody sees the ground.
    const isHidden = { come: coversAll(from.scene.place, fromLayers), gone: coversAll(to.scene.place, toLayers) }
    let [fromAt, toAt] = [0, 0]
    for (const [fromIndex, toIndex] of [...commonOrder(fromLayers, toLayers, isSame), [fromLayers.length, toLayers.length] as const]) {
      const gone = { place: from.scene.place, layers: fromLayers.slice(fromAt, fromIndex) }
      const come = { place: to.scene.place, layers: toLayers.slice(toAt, toIndex) }
      const isAtBack = fromAt + toAt === 0
      if (isAtBack && gone.layers.length === 0 && isHidden.come) come.place.putLayers(come.place, come.layers)
      else if (isAtBack && come.layers.length === 0 && isHidden.gone) gone.place.putLayers(gone.place, gone.layers)
      else putDissolving(between.place, gone, come, progress)
      if (fromIndex < fromLayers.length) putOnItsWay(to.scene.place, fromLayers[fromIndex]!, toLayers[toIndex]!, progress)
      fromAt = fromIndex + 1
      toAt = toIndex + 1
    }
    putDrawings(from.scene, to.scene, progress)
  },
}

/** What is drawn over a scene goes and comes; of one that only changes its layers it stays. */
function putDrawings(from: SceneSide, to: SceneSide, progress: number): void {
  if (from.sceneId !== to.sceneId) putSceneDrawing(from.place, from.sceneId, 1 - progress)
  putSceneDrawing(to.place, to.sceneId, from.sceneId === to.sceneId ? 1 : progress)
}

/** Whether layers leave nothing of the canvas open. */
function coversAll(place: Place, layers: readonly Layer[]): boolean {
  const items = new StackItems(place.builder, place.widthPx, place.heightPx, false)
  place.putLayers({ ...place, stack: items }, layers)
  return items.coversAll
}

const isSeen = ({ visible, opacity }: Layer) => visible && opacity > 0

/** Whether two layers show the same thing, such that one can become the other by moving. */
function isSame(one: Layer, other: Layer): boolean {
  if (thingOf(one) !== thingOf(other) || one.blend !== other.blend || one.frame.form !== other.frame.form) return false
  if (one.placement.fit !== other.placement.fit || treatmentKey(one) !== treatmentKey(other)) return false
  const [border, otherBorder] = [one.frame.border, other.frame.border]
  if (border !== null && otherBorder !== null && border.side !== otherBorder.side) return false
  // Words in a box of another size are set otherwise.
  return !layerKindOf(one).isText || (one.placement.width === other.placement.width && one.placement.height === other.placement.height)
}

function thingOf(layer: Layer): string {
  return identityOf(layer) ?? `layers ${keyOf(childrenOf(layer) ?? layer)}`
}

function treatmentKey({ treatment }: Layer): string {
  return treatment
    .filter(({ on }) => on)
    .map(({ kind, params }) => `${kind} ${keyOf(params)}`)
    .join()
}

/** A layer that both have, part of the way. Neither comes nor goes by itself. */
function putOnItsWay(place: Place, from: Layer, to: Layer, share: number): void {
  const at = (one: number, other: number) => one + (other - one) * share
  const larger = from.placement.width > to.placement.width ? from : to
  const layer = {
    ...to,
    opacity: at(from.opacity, to.opacity),
    placement: placementBetween(from.placement, to.placement, at),
    crop: cropBetween(from.crop, to.crop, at),
    frame: frameBetween(from.frame, to.frame, share, at),
  }
  putLayerAt(place, layer, larger.placement)
}

type Between = (one: number, other: number) => number

function placementBetween(from: Placement, to: Placement, at: Between): Placement {
  return {
    x: at(from.x, to.x),
    y: at(from.y, to.y),
    width: at(from.width, to.width),
    height: at(from.height, to.height),
    angleDeg: at(from.angleDeg, from.angleDeg + shorterTurn(to.angleDeg - from.angleDeg)),
    fit: to.fit,
  }
}

/** The same turn by less than half a round, in degrees. */
function shorterTurn(angleDeg: number): number {
  return angleDeg - 360 * Math.round(angleDeg / 360)
}

const UNCROPPED: Crop = { left: 0, top: 0, right: 0, bottom: 0 }

function cropBetween(from: Crop | null, to: Crop | null, at: Between): Crop | null {
  if (from === null && to === null) return null
  const [one, other] = [from ?? UNCROPPED, to ?? UNCROPPED]
  return { left: at(one.left, other.left), top: at(one.top, other.top), right: at(one.right, other.right), bottom: at(one.bottom, other.bottom) }
}

function frameBetween(from: Frame, to: Frame, share: number, at: Between): Frame {
  return {
    form: to.form,
    cornerRadiusPx: at(from.cornerRadiusPx, to.cornerRadiusPx),
    border: ringBetween(from.border, to.border, share, (one, other): Border => ({
      ...other,
      widthPx: at(one.widthPx, other.widthPx),
      colour: colourBetween(one.colour, other.colour, at),
      opacity: at(one.opacity, other.opacity),
    })),
    shadow: ringBetween(from.shadow, to.shadow, share, (one, other): Shadow => ({
      dx: at(one.dx, other.dx),
      dy: at(one.dy, other.dy),
      blurPx: at(one.blurPx, other.blurPx),
      colour: colourBetween(one.colour, other.colour, at),
      opacity: at(one.opacity, other.opacity),
    })),
  }
}

/** What only one of two has grows faint where the other has none. */
function ringBetween<T extends { readonly opacity: number }>(from: T | null, to: T | null, share: number, both: (one: T, other: T) => T): T | null {
  if (from !== null && to !== null) return both(from, to)
  if (from !== null) return { ...from, opacity: from.opacity * (1 - share) }
  return to === null ? null : { ...to, opacity: to.opacity * share }
}

function colourBetween(one: string, other: string, at: Between): string {
  if (one === other) return other
  const [from, to] = [parseHex(one), parseHex(other)]
  return formatHex([at(from[0], to[0]), at(from[1], to[1]), at(from[2], to[2])])
}

/** Layers that only one of the two has, between two that both have. */
function putDissolving(place: Place, gone: SideLayers, come: SideLayers, share: number): void {
  const all = [...gone.layers, ...come.layers]
  if (all.length === 0) return
  // A blend works on what lies beneath, so it can't be drawn apart: each layer is given its share by itself.
  if (all.some(({ blend }) => blend !== 'normal')) {
    putFaint(gone, 1 - share)
    putFaint(come, share)
    return
  }
  const { builder, stack, widthPx, heightPx, culls } = place
  const pair = new StackItems(builder, widthPx, heightPx, culls)
  for (const [side, opacity] of [
    [gone, 1 - share],
    [come, share],
  ] as const) {
    const items = new StackItems(builder, widthPx, heightPx, culls)
    side.place.putLayers({ ...side.place, stack: items }, side.layers)
    for (const missing of items.missing) stack.miss(missing)
    if (items.items.length === 0) continue
    const node = builder.stack('clear', widthPx, heightPx, items.items)
    pair.put({ ...wholeItem(widthPx, heightPx, pictureOf(node), side.layers.at(-1)!.id), opacity, blend: 'plus-lighter' })
  }
  if (pair.items.length === 0) return
  stack.put(wholeItem(widthPx, heightPx, pictureOf(builder.stack('clear', widthPx, heightPx, pair.items)), all.at(-1)!.id))
}

function putFaint({ place, layers }: SideLayers, share: number): void {
  place.putLayers(
    place,
    layers.map((layer) => ({ ...layer, opacity: layer.opacity * share })),
  )
}
