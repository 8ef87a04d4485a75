// A layer of the scene on air that the presenter brings near for a moment: it fills the picture, or a spot of it is seen closer. The document stays as it is.
import { PLAIN_FRAME } from '../box/frame.ts'
import { fitRects, type Crop } from '../box/fit.ts'
import { boxToCanvas } from '../box/placement.ts'
import { inverse, mapPoint } from '../composite/affine.ts'
import { layerKindOf } from '../layers/index.ts'
import { wholeCanvas, type Canvas, type LayerContext } from '../layers/layer.ts'
import type { Layer, Scene } from '../show/show.ts'

/** How much closer a spot is seen, as times. */
export const CLOSER = { min: 1.2, max: 4, usual: 2 } as const

/** A spot of what a layer shows, 0..1 across and down, in the middle of what is seen as far as the edges allow. */
export interface Closer {
  readonly x: number
  readonly y: number
  readonly scale: number
}

export interface Focus {
  readonly layerId: string
  /** Whether it fills the canvas. */
  readonly fills: boolean
  /** Null: all of it is seen. */
  readonly closer: Closer | null
}

/** Whether a layer can be looked at closer: one with a picture, directly in its scene. */
export function canBeFocused(context: LayerContext, scene: Pick<Scene, 'layers'>, layerId: string): boolean {
  const layer = scene.layers.find(({ id }) => id === layerId)
  return layer !== undefined && layer.visible && layerKindOf(layer).hasPicture(layer, context)
}

/** The scene with the focus on a layer; the same object where it has no such layer. Who presents gives way to what fills the canvas; titles and marks stay. */
export function focusedScene(context: LayerContext, scene: Scene, { layerId, fills, closer }: Focus): Scene {
  const index = scene.layers.findIndex(({ id }) => id === layerId)
  if (index < 0) return scene
  const stays = (layer: Layer, at: number) => at <= index || (layer.part === null && layerKindOf(layer).role?.(layer, context) !== 'person')
  const layers = fills ? scene.layers.filter(stays) : scene.layers
  return { ...scene, layers: layers.map((layer) => (layer.id === layerId ? focused(context, layer, fills, closer) : layer)) }
}

/** The part of what a layer shows that is seen, as its crop. */
export function cropCloser(crop: Crop | null, { x, y, scale }: Closer): Crop {
  const { left, top, right, bottom } = crop ?? { left: 0, top: 0, right: 0, bottom: 0 }
  const [before, after] = windowRound(x, scale)
  const [above, below] = windowRound(y, scale)
  const [width, height] = [1 - left - right, 1 - top - bottom]
  return { left: left + width * before, right: right + width * after, top: top + height * above, bottom: bottom + height * below }
}

/** The spot at (u, v), 0..1 across what is seen now, as a spot of all that the layer shows. */
export function spotAt(closer: Closer | null, u: number, v: number): { readonly x: number; readonly y: number } {
  if (closer === null) return { x: u, y: v }
  const [before] = windowRound(closer.x, closer.scale)
  const [above] = windowRound(closer.y, closer.scale)
  return { x: before + u / closer.scale, y: above + v / closer.scale }
}

/** Where (x, y), in canvas pixels, is across what a layer shows, 0..1; beside it, the nearest. `size` is that of its whole picture. */
export function shareAt(layer: Pick<Layer, 'placement' | 'crop'>, size: Canvas, x: number, y: number): readonly [u: number, v: number] {
  const { placement, crop } = layer
  const [boxX, boxY] = mapPoint(inverse(boxToCanvas(placement)), x, y)
  const { target } = fitRects(placement.fit, size.widthPx, size.heightPx, placement.width, placement.height, crop)
  const share = (value: number) => Math.min(1, Math.max(0, value))
  return [share((boxX - target.x) / target.width), share((boxY - target.y) / target.height)]
}

/** What a window round a spot leaves before and after it. */
function windowRound(middle: number, scale: number): readonly [before: number, after: number] {
  const share = 1 / scale
  const before = Math.min(1 - share, Math.max(0, middle - share / 2))
  return [before, 1 - share - before]
}

function focused(context: LayerContext, layer: Layer, fills: boolean, closer: Closer | null): Layer {
  const near = closer === null ? layer : { ...layer, crop: cropCloser(layer.crop, closer) }
  if (!fills) return near
  return { ...near, placement: wholeCanvas(context.canvas, layer.placement.fit), frame: PLAIN_FRAME, opacity: 1 }
}
