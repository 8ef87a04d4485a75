// Layers in groups in groups: one way to walk them, one to change them.
import { childrenOf, sceneIdOf, layerKindOf, withChildren } from './index.ts'
import type { Layer, LayerContext, Weight } from './layer.ts'

/** What holds layers and can be shown by one. */
interface Scene {
  readonly id: string
  readonly layers: readonly Layer[]
}

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
    const children = childrenOf(layer)
    if (children !== null) yield* walkLayers(children, [...path, index, 'layers'], depth + 1)
  }
}

/** Lists that were walked before. Documents are never changed in place, so a list of layers always has the same layers in it. */
const walked = new WeakMap<readonly Layer[], readonly Layer[]>()

/** Every layer of a scene, those in groups too, from back to front. Walked once per list of layers. */
export function layersOf({ layers }: Pick<Scene, 'layers'>): readonly Layer[] {
  const known = walked.get(layers)
  if (known !== undefined) return known
  const all = [...walkLayers(layers)].map(({ layer }) => layer)
  walked.set(layers, all)
  return all
}

/** A layer of a scene, wherever it lies; undefined for an unknown id. */
export function findLayer(scene: Pick<Scene, 'layers'>, layerId: string): Layer | undefined {
  for (const { layer } of walkLayers(scene.layers)) if (layer.id === layerId) return layer
  return undefined
}

/** The list with every layer changed, those in groups first; null takes a layer out. What does not change stays the same object. */
export function mapLayers(layers: readonly Layer[], change: (layer: Layer) => Layer | null): readonly Layer[] {
  const next = layers.flatMap((layer) => {
    const children = childrenOf(layer)
    const inner = children === null ? null : mapLayers(children, change)
    const changed = change(inner === children ? layer : withChildren(layer, inner!))
    return changed === null ? [] : [changed]
  })
  return next.length === layers.length && next.every((layer, index) => layer === layers[index]) ? layers : next
}

/** The list that holds a layer directly, changed; other lists stay. */
export function changeListOf(layers: readonly Layer[], layerId: string, change: (list: readonly Layer[]) => readonly Layer[]): readonly Layer[] {
  if (layers.some((layer) => layer.id === layerId)) return change(layers)
  return layers.map((layer) => {
    const children = childrenOf(layer)
    if (children === null) return layer
    const inner = changeListOf(children, layerId, change)
    return inner.every((each, index) => each === children[index]) && inner.length === children.length ? layer : withChildren(layer, inner)
  })
}

/** Every layer that is seen by way of one: of a group, of another scene and of those that it shows; none for others. */
export function layersShownBy(show: Pick<LayerContext, 'scenes'>, layer: Layer): Layer[] {
  const seen = new Set<string>()
  const visit = (layers: readonly Layer[]): Layer[] =>
    [...walkLayers(layers)].flatMap(({ layer: inner }) => {
      const sceneId = sceneIdOf(inner)
      if (sceneId === null || seen.has(sceneId)) return [inner]
      seen.add(sceneId)
      return [inner, ...visit(show.scenes.find((scene) => scene.id === sceneId)?.layers ?? [])]
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

const factsOf = new WeakMap<readonly Layer[], { readonly count: number; readonly shown: readonly string[] }>()

/** How many layers a list comes to by itself, and which scenes it shows, each as often as it does. Each list is walked once. */
function listFacts(layers: readonly Layer[]): { readonly count: number; readonly shown: readonly string[] } {
  let known = factsOf.get(layers)
  if (known === undefined) {
    const all = layersOf({ layers })
    factsOf.set(layers, (known = { count: all.length, shown: all.flatMap((layer) => sceneIdOf(layer) ?? []) }))
  }
  return known
}

/** Which scenes each scene shows by layers of its own. */
function scenesShown(scenes: readonly Scene[]): ReadonlyMap<string, readonly string[]> {
  return new Map(scenes.map(({ id, layers }) => [id, listFacts(layers).shown]))
}

/** How many layers each scene comes to, with those of the scenes that it shows, and of those that these show; a circle counts once. */
export function layerCounts(scenes: readonly Scene[]): ReadonlyMap<string, number> {
  const shown = scenesShown(scenes)
  const own = new Map(scenes.map(({ id, layers }) => [id, listFacts(layers).count]))
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

/** What a layer is to the audience; of one that shows other layers, what matters most among them. */
export function weightOf(context: LayerContext, layer: Layer): Weight {
  const { weight } = layerKindOf(layer)
  if (weight !== null) return weight(layer, context)
  return layersShownBy(context, layer).some((inner) => layerKindOf(inner).weight?.(inner, context) === 'camera') ? 'camera' : 'picture'
}
