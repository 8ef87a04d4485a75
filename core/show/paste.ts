// Layers that were copied, as they are carried by the clipboard, and putting them into a scene.
import type { MakeId } from '../random/make-id.ts'
import { contentOf } from '../layers/content.ts'
import { contentIdOf, inputIdOf } from '../layers/index.ts'
import { addContents, withOwnContents } from './contents.ts'
import { copyLayer } from './create.ts'
import { addInput, updateScene } from './edits.ts'
import { groupsRound, toSceneCanvas } from './group-space.ts'
import { layersOf } from '../layers/tree.ts'
import type { Content, Input, Layer, Scene, Show } from './show.ts'

export const CLIP_FORMAT = 'green-room-layers'

/** Layers with all that they show: they can be put into another show too. */
export interface CopiedLayers {
  readonly format: typeof CLIP_FORMAT
  readonly version: Show['version']
  readonly layers: readonly Layer[]
  readonly contents: readonly Content[]
  readonly inputs: readonly Input[]
}

/** Whether pasted layers share words and shapes with the originals (linked) or get their own copies. Cameras and files are shared either way. */
export type Sharing = 'same' | 'own'

/** Takes layers of a scene along, from back to front, each as it lies on the scene's canvas; what lies in a group comes without it. */
export function copyLayers(show: Show, sceneId: string, layerIds: readonly string[]): CopiedLayers {
  const scene = show.scenes.find(({ id }) => id === sceneId)
  const layers = scene === undefined ? [] : takenFrom(show, scene, layerIds)
  const all = layersOf({ layers })
  const contentIds = new Set(all.map(contentIdOf))
  const inputIds = new Set(all.map(inputIdOf))
  return {
    format: CLIP_FORMAT,
    version: show.version,
    layers,
    contents: show.contents.filter(({ id }) => contentIds.has(id)),
    inputs: show.inputs.filter(({ id }) => inputIds.has(id)),
  }
}

function takenFrom({ canvas }: Show, scene: Scene, layerIds: readonly string[]): readonly Layer[] {
  return layersOf(scene)
    .filter(({ id }) => layerIds.includes(id))
    .map((layer) => {
      const groups = groupsRound(scene, layer.id)
      return groups.length === 0 ? layer : { ...layer, placement: toSceneCanvas(layer.placement, groups, canvas) }
    })
}

/** Parses clipboard text, without validating it; null if it holds no layers. The resulting show is validated instead. */
export function readCopied(text: string): CopiedLayers | null {
  if (!text.startsWith(`{"format":"${CLIP_FORMAT}"`)) return null
  try {
    return JSON.parse(text) as CopiedLayers
  } catch {
    return null
  }
}

/** Puts copied layers in front of a scene's others; says which they are. A part that a layout made for another scene is an ordinary layer here. */
export function pasteLayers(
  show: Show,
  sceneId: string,
  { layers, contents, inputs }: CopiedLayers,
  sharing: Sharing,
  makeId: MakeId,
): { readonly show: Show; readonly layerIds: readonly string[] } {
  const missing = inputs.filter(({ id }) => !show.inputs.some((input) => input.id === id))
  const withInputs = missing.reduce<Show>((current, input) => addInput(current, input), show)
  const fresh = layers.map((layer) => ({ ...copyLayer(layer, makeId), part: null }) as Layer)
  // What the show does not have any more, or never had, comes along.
  const source = addContents(withInputs, contents)
  const made =
    sharing === 'own'
      ? withOwnContents(source, fresh, makeId)
      : { layers: fresh, contents: contents.filter(({ id }) => contentOf(withInputs, id) === undefined) }
  const next = updateScene(addContents(withInputs, made.contents), sceneId, (scene) => ({ ...scene, layers: [...scene.layers, ...made.layers] }))
  return { show: next, layerIds: made.layers.map(({ id }) => id) }
}
