// Where a new layer comes into a scene: fitted, seen, and covering nothing that matters.
import { layerKindOf, roleOf, inputIdOf } from '../layers/index.ts'
import { coversCanvas } from '../layers/on-canvas.ts'
import type { Layer, Placement, Scene, Show } from '../show/show.ts'
import { type PictureFacts, headOf } from './arrange/arrange-scene.ts'
import { floatingFrame, sizeOf } from './arrange/arrange-scene.ts'
import { cropRound, headInBox, USUAL_HEAD } from './arrange/head.ts'
import { arrange, type Layout } from './arrange/layouts.ts'
import type { Rect } from '../box/fit.ts'
import { isUncut } from './inside-page.ts'
import { safeArea } from './safe-area.ts'

/** A layer as it arrives, and at which index from the back. */
export interface Arrival {
  readonly layer: Layer
  readonly index: number
}

/** What a layer is in the order of a stack: what others stand in front of, what is presented, who presents, and what lies over all. */
type Rank = 'ground' | 'page' | 'person' | 'over'

/** A picture that takes less than this of both sides of the canvas, pixel by pixel, is a mark. */
const MARK = 0.4

/** Where a mark lies: as large as it is, in the upper right, inside the title-safe area. Nothing for larger pictures: they are fitted. */
export function placeOfMark(size: { readonly widthPx: number; readonly heightPx: number }, canvas: Show['canvas']): Partial<Placement> {
  if (size.widthPx > MARK * canvas.widthPx || size.heightPx > MARK * canvas.heightPx) return {}
  const safe = safeArea('title', canvas.widthPx, canvas.heightPx)
  return { x: Math.round(safe.x + safe.width - size.widthPx), y: Math.round(safe.y), width: size.widthPx, height: size.heightPx }
}

/**
 * How a new layer arrives. Grounds come in front of the other grounds, pages behind the people, people behind words and forms, and those in
 * front of all. A page that people would hide comes beside the presenter's head; a person before whom another fills the canvas comes into
 * a corner; words and forms lie where they cover no head.
 */
export function arrivalOf(show: Show, scene: Scene, layer: Layer, facts: PictureFacts): Arrival {
  const rank = rankOf(show, layer)
  if (rank === 'over') return { layer: clearOfHeads(show, scene, layer, facts), index: scene.layers.length }
  const people = scene.layers.filter((other) => other.visible && rankOf(show, other) === 'person')
  const hiding = people.find((person) => coversCanvas(show.canvas, person.placement) && isUncut(show, person))
  if (rank === 'page' && hiding !== undefined) {
    const box = boxIn(show, { name: 'shoulder', side: 'left' }, hiding, layer, facts)
    return { layer: { ...layer, placement: { ...box, angleDeg: 0, fit: 'fit' }, frame: floatingFrame(show.canvas) }, index: behindWords(show, scene) }
  }
  if (rank === 'person' && people.some((person) => coversCanvas(show.canvas, person.placement))) {
    const { presenters } = arrange({ name: 'cornerBottom', side: 'right' }, show.canvas, [{ ...sizeOf(show, layer, facts), head: null }], null)
    const box = presenters[0]!
    const size = sizeOf(show, layer, facts)
    const crop = cropRound(USUAL_HEAD, size.widthPx, size.heightPx, box.width / box.height)
    return { layer: { ...layer, crop, placement: { ...box, angleDeg: 0, fit: 'fill' }, frame: floatingFrame(show.canvas) }, index: behindWords(show, scene) }
  }
  if (rank === 'person') return { layer, index: behindWords(show, scene) }
  // A picture or a clip that fills comes in front of one that fills already: behind it nobody would see that it came.
  const fills = rank === 'ground' && layerKindOf(layer).hasPicture(layer, show)
  const isBehind = (other: Layer) => {
    const theirs = rankOf(show, other)
    if (rank === 'page') return theirs === 'ground' || theirs === 'page'
    return theirs === 'ground' || (fills && theirs === 'page' && coversCanvas(show.canvas, other.placement))
  }
  const first = scene.layers.findIndex((other) => !isBehind(other))
  return { layer, index: first < 0 ? scene.layers.length : first }
}

function rankOf(show: Show, layer: Layer): Rank {
  const role = roleOf(show, layer)
  return role === 'words' || role === 'graphic' ? 'over' : role
}

/** In front of all people, pages and grounds, behind the words and forms that lie over them. */
function behindWords(show: Show, scene: Scene): number {
  return scene.layers.findLastIndex((other) => rankOf(show, other) !== 'over') + 1
}

function boxIn(show: Show, layout: Layout, presenter: Layer, page: Layer, facts: PictureFacts): Rect {
  const head = headOf(presenter, facts)
  const made = arrange(layout, show.canvas, [{ ...sizeOf(show, presenter, facts), head }], sizeOf(show, page, facts))
  return made.page!
}

/** The layer where it covers least of a head, or of other words, as near as can be to where it would have come. */
function clearOfHeads(show: Show, scene: Scene, layer: Layer, facts: PictureFacts): Layer {
  const { canvas } = show
  const taken = scene.layers.filter(({ visible }) => visible).flatMap((other) => takenBy(show, other, facts))
  if (taken.length === 0) return layer
  const { width, height } = layer.placement
  const inset = 0.05
  const [left, top] = [canvas.widthPx * inset, canvas.heightPx * inset]
  const [spanX, spanY] = [canvas.widthPx - 2 * left - width, canvas.heightPx - 2 * top - height]
  const steps = 8
  let best: { readonly cost: number; readonly placement: Placement } | null = null
  const tries: (readonly [x: number, y: number])[] = [[layer.placement.x, layer.placement.y]]
  for (let i = 0; i <= steps; i += 1)
    for (let j = 0; j <= steps; j += 1) tries.push([Math.round(left + (spanX * i) / steps), Math.round(top + (spanY * j) / steps)])
  for (const [x, y] of tries) {
    const covered = taken.reduce((sum, box) => sum + overlapOf(box, { x, y, width, height }), 0)
    const away = Math.hypot(x - layer.placement.x, y - layer.placement.y)
    // A pixel that is covered weighs more than any distance.
    const cost = covered * 1e4 + away
    if (best === null || cost < best.cost) best = { cost, placement: { ...layer.placement, x, y } }
  }
  return best === null ? layer : { ...layer, placement: best.placement }
}

/** What of a layer nothing should come over: heads, and words. */
function takenBy(show: Show, layer: Layer, facts: PictureFacts): Rect[] {
  const role = roleOf(show, layer)
  if (role === 'words') return [layer.placement]
  if (role !== 'person' || inputIdOf(layer) === null) return []
  return [headInBox(headOf(layer, facts) ?? USUAL_HEAD, layer.crop, layer.placement)]
}

function overlapOf(one: Rect, other: Rect): number {
  const width = Math.min(one.x + one.width, other.x + other.width) - Math.max(one.x, other.x)
  const height = Math.min(one.y + one.height, other.y + other.height) - Math.max(one.y, other.y)
  return Math.max(0, width) * Math.max(0, height)
}
