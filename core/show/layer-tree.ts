// Layers in groups in groups: one way to walk them, one to change them.
import type { Layer, Scene, Show } from './show.ts'

export interface LayerStop {
  readonly layer: Layer
  /** Where it is, from the list that was walked on: indices, and "layers" between them. */
  readonly path: readonly (string | number)[]
  /** In how many groups it lies. */
  readonly depth: number
}

/** Every layer of a list, each group before what is in it. */
export function* walkLayers(layers: readonly Layer[], path: readonly (string | number)[] = [], depth = 0): Generator<LayerStop> {
  for (const [index, layer] of layers.entries()) {
    yield { layer, path: [...path, index], depth }
    if (layer.kind === 'group') yield* walkLayers(layer.layers, [...path, index, 'layers'], depth + 1)
  }
}

/** Every layer of a scene, those in groups too, from back to front. */
export function layersOf(scene: Pick<Scene, 'layers'>): Layer[] {
  return [...walkLayers(scene.layers)].map(({ layer }) => layer)
}

/** A layer of a scene, wherever it lies; undefined for an unknown id. */
export function findLayer(scene: Pick<Scene, 'layers'>, layerId: string): Layer | undefined {
  for (const { layer } of walkLayers(scene.layers)) if (layer.id === layerId) return layer
  return undefined
}

/** The list with every layer changed, those in groups first; null takes a layer out. What does not change stays the same object. */
export function mapLayers(layers: readonly Layer[], change: (layer: Layer) => Layer | null): readonly Layer[] {
  const next = layers.flatMap((layer) => {
    const inner = layer.kind === 'group' ? mapLayers(layer.layers, change) : null
    const changed = change(layer.kind === 'group' && inner !== layer.layers ? { ...layer, layers: inner! } : layer)
    return changed === null ? [] : [changed]
  })
  return next.length === layers.length && next.every((layer, index) => layer === layers[index]) ? layers : next
}

/** The list that holds a layer directly, changed; other lists stay. */
export function changeListOf(layers: readonly Layer[], layerId: string, change: (list: readonly Layer[]) => readonly Layer[]): readonly Layer[] {
  if (layers.some((layer) => layer.id === layerId)) return change(layers)
  return layers.map((layer) => {
    if (layer.kind !== 'group') return layer
    const inner = changeListOf(layer.layers, layerId, change)
    return inner.every((each, index) => each === layer.layers[index]) && inner.length === layer.layers.length ? layer : { ...layer, layers: inner }
  })
}

/** Every layer that is seen by way of one: of a group, of another scene and of those that it shows; none for others. */
export function layersShownBy(show: Pick<Show, 'scenes'>, layer: Layer): Layer[] {
  const seen = new Set<string>()
  const visit = (layers: readonly Layer[]): Layer[] =>
    [...walkLayers(layers)].flatMap(({ layer: inner }) => {
      if (inner.kind !== 'scene' || seen.has(inner.sceneId)) return [inner]
      seen.add(inner.sceneId)
      return [inner, ...visit(show.scenes.find((scene) => scene.id === inner.sceneId)?.layers ?? [])]
    })
  return visit([layer]).slice(1)
}

/** The scenes by which a scene shows itself, itself at both ends; null when it does not. Every scene is looked at once. */
export function sceneCircle(scenes: readonly Scene[], sceneId: string): readonly string[] | null {
  const shown = scenesShown(scenes)
  const seen = new Set<string>()
  const visit = (at: string, path: readonly string[]): readonly string[] | null => {
    for (const next of shown.get(at) ?? []) {
      if (next === sceneId) return [...path, sceneId]
      // One that does not lead back, or whose circle is its own affair, does not by another way either.
      if (seen.has(next)) continue
      seen.add(next)
      const found = visit(next, [...path, next])
      if (found !== null) return found
    }
    return null
  }
  return visit(sceneId, [sceneId])
}

/** Which scenes each scene shows by layers of its own, each as often as it does. */
function scenesShown(scenes: readonly Scene[]): ReadonlyMap<string, readonly string[]> {
  return new Map(scenes.map((scene) => [scene.id, layersOf(scene).flatMap((layer) => (layer.kind === 'scene' ? [layer.sceneId] : []))]))
}

/** How many layers each scene comes to, with those of the scenes that it shows, and of those that these show; a circle counts once. */
export function layerCounts(scenes: readonly Scene[]): ReadonlyMap<string, number> {
  const shown = scenesShown(scenes)
  const own = new Map(scenes.map((scene) => [scene.id, layersOf(scene).length]))
  const counts = new Map<string, number>()
  const count = (id: string): number => {
    const known = counts.get(id)
    if (known !== undefined) return known
    counts.set(id, 0)
    const all = (shown.get(id) ?? []).reduce((sum, next) => sum + count(next), own.get(id) ?? 0)
    counts.set(id, all)
    return all
  }
  for (const { id } of scenes) count(id)
  return counts
}
