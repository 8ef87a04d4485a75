// The same thing in several scenes: put there at once, and moved there at once.
import { identityOf, inputIdOf, sceneIdOf } from '../layers/index.ts'
import type { MakeId } from '../random/make-id.ts'
import { copyLayer } from './create.ts'
import { findLayer } from '../layers/tree.ts'
import type { Layer, Scene, Show } from './show.ts'

/** A layer of another scene that shows the same thing. */
export interface Sibling {
  readonly sceneId: string
  readonly sceneName: string
  readonly layer: Layer
  /** Whether both have the same place, size and crop. */
  readonly isAlike: boolean
}

/** Whether two layers show the same thing: one input, one text or form, one scene. Groups are each their own. */
export function showsSameThing(one: Layer, other: Layer): boolean {
  const thing = identityOf(one)
  // A page and its ink are two things.
  return thing !== null && thing === identityOf(other) && (inputIdOf(one) === null || one.part === other.part)
}

/** The layers of other scenes that show the same thing as one does. */
export function siblingsOf(show: Pick<Show, 'scenes'>, sceneId: string, layer: Layer): Sibling[] {
  return show.scenes
    .filter((scene) => scene.id !== sceneId)
    .flatMap((scene) =>
      scene.layers
        .filter((other) => showsSameThing(layer, other))
        .map((other) => ({ sceneId: scene.id, sceneName: scene.name, layer: other, isAlike: liesAlike(layer, other) })),
    )
}

function liesAlike(one: Layer, other: Layer): boolean {
  return JSON.stringify([one.placement, one.crop]) === JSON.stringify([other.placement, other.crop])
}

/** Puts a layer in front of all in every other scene that does not show the same thing yet; locked ones and those that it shows are left alone. */
export function putInAllScenes(show: Show, sceneId: string, layerId: string, makeId: MakeId): Show {
  const own = show.scenes.find(({ id }) => id === sceneId)
  const layer = own === undefined ? undefined : findLayer(own, layerId)
  if (layer === undefined) return show
  const takes = (scene: Scene) =>
    scene.graphic === null &&
    scene.id !== sceneId &&
    !scene.locked &&
    sceneIdOf(layer) !== scene.id &&
    !scene.layers.some((other) => showsSameThing(layer, other))
  return { ...show, scenes: show.scenes.map((scene) => (takes(scene) ? { ...scene, layers: [...scene.layers, copyLayer(layer, makeId)] } : scene)) }
}

/** Gives some siblings the place, the size, the crop and the frame of a layer; locked layers and scenes stay. */
export function placeAlike(show: Show, layer: Layer, siblings: readonly Sibling[]): Show {
  const ids = new Set(siblings.map((sibling) => sibling.layer.id))
  const { placement, crop, frame } = layer
  return {
    ...show,
    scenes: show.scenes.map((scene) =>
      scene.locked || !scene.layers.some(({ id, locked }) => ids.has(id) && !locked)
        ? scene
        : { ...scene, layers: scene.layers.map((one) => (ids.has(one.id) && !one.locked ? { ...one, placement, crop, frame } : one)) },
    ),
  }
}
