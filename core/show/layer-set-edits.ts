// Pure edits of several layers of one scene at once. Unknown ids change nothing.
import { childrenOf } from '../layers/index.ts'
import type { Appearance } from '../motion/appearance.ts'
import type { MakeId } from '../random/make-id.ts'
import { addContents, withOwnContents, withoutUnusedContents } from './contents.ts'
import { copyLayer } from './create.ts'
import { bounded, placeLayer, updateScene } from './edits.ts'
import { fromSceneCanvas, groupsRound, listAround, toSceneCanvas } from './group-space.ts'
import { changeListOf, layersOf, mapLayers } from '../layers/tree.ts'
import { RANGES, withinRange } from '../schema/limits.ts'
import type { Layer, Placement, Show } from './show.ts'

/** Changes each of some layers. */
export function updateLayers(show: Show, sceneId: string, layerIds: readonly string[], change: (layer: Layer) => Layer): Show {
  return updateScene(show, sceneId, (scene) => ({
    ...scene,
    layers: mapLayers(scene.layers, (layer) => (layerIds.includes(layer.id) ? change(layer) : layer)),
  }))
}

/** Takes some layers out of their scene; a group that nothing is left in goes with them. */
export function removeLayers(show: Show, sceneId: string, layerIds: readonly string[]): Show {
  return withoutUnusedContents(
    updateScene(show, sceneId, (scene) => {
      const emptied = new Set(layersOf(scene).flatMap((layer) => (isEmptied(layer, layerIds) ? [layer.id] : [])))
      return { ...scene, layers: mapLayers(scene.layers, (layer) => (layerIds.includes(layer.id) || emptied.has(layer.id) ? null : layer)) }
    }),
  )
}

/** Whether a layer held others, and holds none without these. */
function isEmptied(layer: Layer, layerIds: readonly string[]): boolean {
  const children = childrenOf(layer) ?? []
  return children.length > 0 && children.every((inner) => layerIds.includes(inner.id) || isEmptied(inner, layerIds))
}

/** Moves some layers by as many pixels of the scene's canvas; those that are locked stay. They keep their places to each other: all stop where one would leave its range. */
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
  return layers.reduce((current, { id, placement }) => placeLayer(current, sceneId, id, { x: placement.x + byX, y: placement.y + byY }), show)
}

/** Puts some layers of one list in front of the others or behind them, or past the next one in that direction; they keep their order. */
export function reorderLayers(show: Show, sceneId: string, layerIds: readonly string[], way: OrderWay): Show {
  return updateScene(show, sceneId, (scene) => ({ ...scene, layers: changeListOf(scene.layers, layerIds[0] ?? '', (list) => reordered(list, layerIds, way)) }))
}

function reordered(list: readonly Layer[], layerIds: readonly string[], way: OrderWay): readonly Layer[] {
  const isMoved = ({ id }: Layer) => layerIds.includes(id)
  const moved = list.filter(isMoved)
  const rest = list.filter((layer) => !isMoved(layer))
  if (moved.length === 0 || rest.length === 0) return list
  const first = list.findIndex(isMoved)
  const last = list.findLastIndex(isMoved)
  const restBefore = (index: number) => list.slice(0, index).filter((layer) => !isMoved(layer)).length
  const at = { front: rest.length, back: 0, forward: Math.min(rest.length, restBefore(last) + 1), backward: Math.max(0, restBefore(first) - 1) }[way]
  return rest.toSpliced(at, 0, ...moved)
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

/** Those of some layers of one list that are not locked, from back to front, as they lie on the scene's canvas. */
function movable(show: Show, sceneId: string, layerIds: readonly string[]): readonly Layer[] {
  const scene = show.scenes.find(({ id }) => id === sceneId)
  if (scene === undefined) return []
  return layersOf(scene)
    .filter(({ id, locked }) => layerIds.includes(id) && !locked)
    .map((layer) => ({ ...layer, placement: toSceneCanvas(layer.placement, groupsRound(scene, layer.id), show.canvas) }))
}

/** As much of a step as leaves every position in its range. */
function within(positions: readonly number[], by: number): number {
  const { min, max } = RANGES.position
  return Math.min(max - Math.max(...positions), Math.max(min - Math.min(...positions), by))
}

/** Puts copies of some layers of one list, with copies of what they show, in front of the frontmost of them; says which they are, from back to front. */
export function duplicateLayers(
  show: Show,
  sceneId: string,
  layerIds: readonly string[],
  makeId: MakeId,
): { readonly show: Show; readonly copyIds: readonly string[] } {
  const scene = show.scenes.find((candidate) => candidate.id === sceneId)
  const list = scene === undefined ? undefined : listAround(scene, layerIds[0] ?? '')
  if (list === undefined) return { show, copyIds: [] }
  const own = withOwnContents(
    show,
    list.filter(({ id }) => layerIds.includes(id)).map((layer) => copyLayer(layer, makeId)),
    makeId,
  )
  const next = updateScene(addContents(show, own.contents), sceneId, (one) => ({
    ...one,
    layers: changeListOf(one.layers, layerIds[0]!, (layers) => inFrontOf(layers, layerIds, own.layers)),
  }))
  return { show: next, copyIds: own.layers.map(({ id }) => id) }
}

/** Brings layers that lie in the scene itself directly in front of some others, into the group that these lie in; they stay where they are on the canvas, as far as numbers reach. */
export function bringInFrontOf(show: Show, sceneId: string, layerIds: readonly string[], ofIds: readonly string[]): Show {
  return updateScene(show, sceneId, (scene) => {
    const isMoved = ({ id }: Layer) => layerIds.includes(id)
    const groups = groupsRound(scene, ofIds[0] ?? '')
    const moved = scene.layers.filter(isMoved).map((layer) => ({ ...layer, placement: bounded(fromSceneCanvas(layer.placement, groups, show.canvas)) }))
    const rest = scene.layers.filter((layer) => !isMoved(layer))
    if (listAround({ layers: rest }, ofIds[0] ?? '') === undefined) return scene
    return { ...scene, layers: changeListOf(rest, ofIds[0]!, (list) => inFrontOf(list, ofIds, moved)) }
  })
}

function inFrontOf(list: readonly Layer[], ids: readonly string[], layers: readonly Layer[]): readonly Layer[] {
  return list.toSpliced(list.findLastIndex(({ id }) => ids.includes(id)) + 1, 0, ...layers)
}

/**
 * Lets layers of a scene come in one after another, from top to bottom, `everyMs` apart. Each comes as it did; one that came at once comes as
 * `usual`. The first keeps its delay.
 */
export function bringInOneByOne(show: Show, sceneId: string, layerIds: readonly string[], everyMs: number, usual: Appearance): Show {
  const scene = show.scenes.find(({ id }) => id === sceneId)
  if (scene === undefined) return show
  const order = layersOf(scene)
    .filter(({ id }) => layerIds.includes(id))
    .sort((one, other) => one.placement.y - other.placement.y || one.placement.x - other.placement.x)
  const firstMs = order[0]?.entrance?.delayMs ?? 0
  const delays = new Map(order.map(({ id }, index) => [id, withinRange(RANGES.motionMs, firstMs + index * everyMs)]))
  return updateLayers(show, sceneId, layerIds, (layer) => ({ ...layer, entrance: { ...(layer.entrance ?? usual), delayMs: delays.get(layer.id) ?? 0 } }))
}
