// What of a show a plan reads, to tell whether an edit makes it stale.
import { contentOf } from '../layers/content.ts'
import { contentIdOf, sceneIdOf } from '../layers/index.ts'
import { walkLayers } from '../layers/tree.ts'
import type { Layer, Scene, Show } from '../show/show.ts'

/**
 * Everything that `planFrame` reads of `show` for a scene: as long as all of it is the same objects, in this order, so is the plan. Scenes that it
 * shows are followed; each once.
 */
export function planParts(show: Show, scene: Scene): readonly unknown[] {
  return [...commonParts(show), scene, ...partsOfLayers(show, scene.layers, new Set([scene.id]))]
}

/** The same for one layer by itself. */
export function layerParts(show: Show, layer: Layer | undefined): readonly unknown[] {
  return layer === undefined ? [] : [...commonParts(show), layer, ...partsOfLayers(show, [layer], new Set())]
}

const commonParts = ({ canvas, inputs, presenter, style }: Show): readonly unknown[] => [canvas, inputs, presenter, style]

function partsOfLayers(show: Show, layers: readonly Layer[], seen: Set<string>): unknown[] {
  const parts: unknown[] = []
  for (const { layer } of walkLayers(layers)) {
    const [contentId, sceneId] = [contentIdOf(layer), sceneIdOf(layer)]
    if (contentId !== null) parts.push(contentOf(show, contentId))
    if (sceneId === null) continue
    const scene = show.scenes.find(({ id }) => id === sceneId)
    parts.push(scene)
    if (scene === undefined || seen.has(sceneId)) continue
    seen.add(sceneId)
    parts.push(...partsOfLayers(show, scene.layers, seen))
  }
  return parts
}

/** Whether two lists hold the same objects. */
export function areSameParts(one: readonly unknown[], other: readonly unknown[]): boolean {
  return one.length === other.length && one.every((part, index) => part === other[index])
}
