// What of a show a plan reads, to tell whether an edit makes it stale.
import { contentOf } from '../layers/content.ts'
import { contentIdOf, sceneIdOf } from '../layers/index.ts'
import { walkLayers } from '../layers/tree.ts'
import type { Scene, Show } from '../show/show.ts'

/**
 * Everything that `planFrame` reads of `show` for a scene: as long as all of it is the same objects, in this order, so is the plan. Scenes that it
 * shows are followed; each once.
 */
export function planParts(show: Show, scene: Scene): readonly unknown[] {
  const parts: unknown[] = [show.canvas, show.inputs, show.presenter]
  const seen = new Set<string>()
  const visit = (one: Scene | undefined): void => {
    parts.push(one)
    if (one === undefined || seen.has(one.id)) return
    seen.add(one.id)
    for (const { layer } of walkLayers(one.layers)) {
      const [contentId, sceneId] = [contentIdOf(layer), sceneIdOf(layer)]
      if (contentId !== null) parts.push(contentOf(show, contentId))
      if (sceneId !== null) visit(show.scenes.find(({ id }) => id === sceneId))
    }
  }
  visit(scene)
  return parts
}

/** Whether two lists hold the same objects. */
export function areSameParts(one: readonly unknown[], other: readonly unknown[]): boolean {
  return one.length === other.length && one.every((part, index) => part === other[index])
}
