// Pure edits of several layers of one scene at once. Unknown ids change nothing.
import { addContents, withOwnContents, withoutUnusedContents } from './contents.ts'
import { copyLayer, type MakeId } from './create.ts'
import { placeLayer, updateScene } from './edits.ts'
import { mapLayers } from './layer-tree.ts'
import { RANGES } from './limits.ts'
import type { Layer, Placement, Show } from './show.ts'

/** Changes each of some layers. */
export function updateLayers(show: Show, sceneId: string, layerIds: readonly string[], change: (layer: Layer) => Layer): Show {
  return updateScene(show, sceneId, (scene) => ({
    ...scene,
    layers: mapLayers(scene.layers, (layer) => (layerIds.includes(layer.id) ? change(layer) : layer)),
  }))
}

/** Takes some layers out of their scene. */
export function removeLayers(show: Show, sceneId: string, layerIds: readonly string[]): Show {
  return withoutUnusedContents(
    updateScene(show, sceneId, (scene) => ({ ...scene, layers: mapLayers(scene.layers, (layer) => (layerIds.includes(layer.id) ? null : layer)) })),
  )
}

/** Moves some layers by as many pixels; those that are locked stay. They keep their places to each other: all stop where one would leave its range. */
export function moveLayersBy(show: Show, sceneId: string, layerIds: readonly string[], dx: number, dy: number): Show {
  const layers = movable(show, sceneId, layerIds)
  if (layers.length === 0) return show
  const byX = within(
    layers.map(({ placement }) => placement.x),
    dx,
  )
  const byY = within(
    layers.map(({ placement }) => placement.y),
    dy,
  )
  if (byX === 0 && byY === 0) return show
  const ids = layers.map(({ id }) => id)
  return updateLayers(show, sceneId, ids, (layer) => ({
    ...layer,
    placement: { ...layer.placement, x: layer.placement.x + byX, y: layer.placement.y + byY },
  }))
}

/** Puts some layers in front of the others or behind them, or past the next one in that direction; they keep their order. */
export function reorderLayers(show: Show, sceneId: string, layerIds: readonly string[], way: OrderWay): Show {
  return updateScene(show, sceneId, (scene) => {
    const isMoved = ({ id }: Layer) => layerIds.includes(id)
    const moved = scene.layers.filter(isMoved)
    const rest = scene.layers.filter((layer) => !isMoved(layer))
    if (moved.length === 0 || rest.length === 0) return scene
    const first = scene.layers.findIndex(isMoved)
    const last = scene.layers.findLastIndex(isMoved)
    const restBefore = (index: number) => scene.layers.slice(0, index).filter((layer) => !isMoved(layer)).length
    const at = { front: rest.length, back: 0, forward: Math.min(rest.length, restBefore(last) + 1), backward: Math.max(0, restBefore(first) - 1) }[way]
    return { ...scene, layers: rest.toSpliced(at, 0, ...moved) }
  })
}

/** Which way layers go in the stack: all the way, or past one other. */
export type OrderWay = 'front' | 'back' | 'forward' | 'backward'

/** Changes the placements of some layers together: `change` gets those that are not locked, from back to front, and gives as many. */
export function placeLayers(
  show: Show,
  sceneId: string,
  layerIds: readonly string[],
  change: (placements: readonly Placement[]) => readonly Placement[],
): Show {
  const layers = movable(show, sceneId, layerIds)
  const next = change(layers.map(({ placement }) => placement))
  return layers.reduce((current, layer, index) => placeLayer(current, sceneId, layer.id, next[index]!), show)
}

/** Those of some layers that are not locked, from back to front. */
function movable(show: Show, sceneId: string, layerIds: readonly string[]): readonly Layer[] {
  return show.scenes.find((scene) => scene.id === sceneId)?.layers.filter(({ id, locked }) => layerIds.includes(id) && !locked) ?? []
}

/** As much of a step as leaves every position in its range. */
function within(positions: readonly number[], by: number): number {
  const { min, max } = RANGES.position
  return Math.min(max - Math.max(...positions), Math.max(min - Math.min(...positions), by))
}

/** Puts copies of some layers, with copies of what they show, in front of the frontmost of them; says which they are, from back to front. */
export function duplicateLayers(
  show: Show,
  sceneId: string,
  layerIds: readonly string[],
  makeId: MakeId,
): { readonly show: Show; readonly copyIds: readonly string[] } {
  const scene = show.scenes.find((candidate) => candidate.id === sceneId)
  const originals = scene?.layers.filter(({ id }) => layerIds.includes(id)) ?? []
  const inFront = originals.at(-1)
  if (scene === undefined || inFront === undefined) return { show, copyIds: [] }
  const own = withOwnContents(
    show,
    originals.map((layer) => copyLayer(layer, makeId)),
    makeId,
  )
  const index = scene.layers.indexOf(inFront) + 1
  const next = updateScene(addContents(show, own.contents), sceneId, (one) => ({ ...one, layers: one.layers.toSpliced(index, 0, ...own.layers) }))
  return { show: next, copyIds: own.layers.map(({ id }) => id) }
}
