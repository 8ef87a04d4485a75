// What a scene stands in front of: one background, swapped by one edit.
import { roleOf } from '../layers/index.ts'
import { newInputLayer } from '../layers/input.ts'
import { wholeCanvas, type Layer } from '../layers/layer.ts'
import type { MakeId } from '../random/make-id.ts'
import { addContents, withoutUnusedContents } from '../show/contents.ts'
import { updateScene } from '../show/edits.ts'
import type { Favourite, Input, Scene, Show } from '../show/show.ts'
import { drawBackground, isDrawnBackground, type NewBackground } from './drawn.ts'

/** The layer that a scene stands in front of: a background, or else what lies at the very back and covers the canvas. Null where it has none. */
export function backgroundOf(show: Show, { layers }: Pick<Scene, 'layers'>): Layer | null {
  const marked = layers.find(({ part }) => part === 'background')
  if (marked !== undefined) return marked
  const back = layers[0]
  return back !== undefined && roleOf(show, back) === 'ground' && covers(back, show) ? back : null
}

function covers({ placement: { x, y, width, height, angleDeg } }: Layer, { canvas }: Show): boolean {
  return x <= 0 && y <= 0 && x + width >= canvas.widthPx && y + height >= canvas.heightPx && angleDeg % 180 === 0
}

/** Puts a scene in front of a background, in place of the one it had. Nothing else moves. */
export function setBackground(show: Show, sceneId: string, { layer, contents }: NewBackground): Show {
  const scene = show.scenes.find(({ id }) => id === sceneId)
  if (scene === undefined) return show
  const before = backgroundOf(show, scene)
  const swap = (layers: readonly Layer[]) => (before === null ? [layer, ...layers] : layers.map((each) => (each.id === before.id ? layer : each)))
  return withoutUnusedContents(updateScene(addContents(show, contents), sceneId, (each) => ({ ...each, layers: swap(each.layers) })))
}

/** An input as a background: it fills the canvas. */
export function inputBackground(input: Input, { canvas }: Pick<Show, 'canvas'>, makeId: MakeId): NewBackground {
  const layer = newInputLayer(input, canvas, makeId)
  return { layer: { ...layer, placement: wholeCanvas(canvas, 'fill'), part: 'background' }, contents: [] }
}

/** A favourite as a background; null for one that is not known here. `titleOf` names drawn ones. */
export function favouriteBackground(show: Show, favourite: Favourite, titleOf: (name: string) => string, makeId: MakeId): NewBackground | null {
  if (favourite.type === 'drawn') return isDrawnBackground(favourite.name) ? drawBackground(favourite.name, titleOf(favourite.name), show.canvas, makeId) : null
  const input = show.inputs.find(({ id }) => id === favourite.inputId)
  return input === undefined ? null : inputBackground(input, show, makeId)
}

/** The favourite that a background is; null where it is none. Drawn ones are known by the names of their layers' titles. */
export function isBackgroundOf(layer: Layer, favourite: Favourite, titleOf: (name: string) => string): boolean {
  return favourite.type === 'drawn'
    ? layer.part === 'background' && layer.name === titleOf(favourite.name)
    : 'inputId' in layer && layer.inputId === favourite.inputId
}
