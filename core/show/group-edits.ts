// Putting layers together and taking them apart again.
import { contentOf } from '../layers/content.ts'
import { childrenOf, contentIdOf, scaledContent } from '../layers/index.ts'
import type { MakeId } from '../random/make-id.ts'
import { newGroupLayer, isGroup } from '../layers/group.ts'
import { scaledFrame } from '../box/frame.ts'
import { addContents, withoutUnusedContents } from './contents.ts'
import { updateScene } from './edits.ts'
import { groupsRound, listAround, scalesOf, toSceneCanvas } from './group-space.ts'
import { changeListOf, findLayer, walkLayers } from '../layers/tree.ts'
import { LIMITS, RANGES, withinRange } from '../schema/limits.ts'
import type { Content, Frame, GroupLayer, Layer, Placement, Scene, Show } from './show.ts'

/** Whether layers of one list can be put into a group: groups lie in each other only so deep. */
export function canGroup(scene: Pick<Scene, 'layers'>, layerIds: readonly string[]): boolean {
  const around = groupsRound(scene, layerIds[0] ?? '').length
  const list = listAround(scene, layerIds[0] ?? '') ?? []
  const inner = [...walkLayers(list.filter(({ id }) => layerIds.includes(id)))].filter(({ layer }) => childrenOf(layer) !== null)
  return around + Math.max(0, ...inner.map(({ depth }) => depth + 1)) < LIMITS.depth
}

/** Puts layers of one list into a new group, in the place of the one in front; they lie where they lay. Others are left alone, and all are where it would lie too deep. */
export function groupLayers(show: Show, sceneId: string, layerIds: readonly string[], name: string, makeId: MakeId): Show {
  const [first] = layerIds
  const now = show.scenes.find(({ id }) => id === sceneId)
  if (first === undefined || now === undefined || !canGroup(now, layerIds)) return show
  return updateScene(show, sceneId, (scene) => ({
    ...scene,
    layers: changeListOf(scene.layers, first, (list) => {
      const together = list.filter((layer) => layerIds.includes(layer.id))
      const inFront = together.at(-1)!
      return list.flatMap((layer) => {
        if (layer === inFront) return [newGroupLayer(name, together, show.canvas, makeId)]
        return together.includes(layer) ? [] : [layer]
      })
    }),
  }))
}

/**
 * Puts what is in a group in its place. It looks the same if the group was neither cleaned nor blended nor framed, and, when it was
 * turned, not stretched: those belong to the group and go with it.
 */
export function ungroup(show: Show, sceneId: string, groupId: string, makeId: MakeId): Show {
  const scene = show.scenes.find((candidate) => candidate.id === sceneId)
  const group = scene === undefined ? undefined : findLayer(scene, groupId)
  if (!isGroup(group)) return show
  const { layers, contents } = freed(show, group, makeId)
  return withoutUnusedContents(
    updateScene(addContents(show, contents), sceneId, (one) => ({
      ...one,
      layers: changeListOf(one.layers, groupId, (list) => list.flatMap((layer) => (layer.id === groupId ? layers : [layer]))),
    })),
  )
}

/** The layers of a group as they lie without it. Text of another size is a copy: where it is shown besides, it stays as it was. */
function freed(show: Show, group: GroupLayer, makeId: MakeId): { readonly layers: readonly Layer[]; readonly contents: readonly Content[] } {
  const { placement } = group
  const { scaleX, scaleY } = scalesOf(group, show.canvas)
  const scale = Math.sqrt(scaleX * scaleY)
  const isSame = placement.x === 0 && placement.y === 0 && scaleX === 1 && scaleY === 1 && placement.angleDeg === 0
  const seen = (layer: Layer): Layer => ({ ...layer, visible: layer.visible && group.visible, opacity: layer.opacity * group.opacity })
  if (isSame) return { layers: group.layers.map(seen), contents: [] }
  const contents: Content[] = []
  const layers = group.layers.map((layer) => {
    const moved = { ...seen(layer), placement: placedIn(group, layer.placement, show.canvas), frame: boundedFrame(layer.frame, scale) }
    const content = contentOf(show, contentIdOf(layer) ?? '')
    const resized = content === undefined || scale === 1 ? content : scaledContent(content, scale)
    if (resized === undefined || resized === content) return moved
    const contentId = makeId()
    contents.push({ ...resized, id: contentId })
    return { ...moved, contentId } as Layer
  })
  return { layers, contents }
}

/** Where a box of a group's canvas lies on the canvas that the group lies on, within the ranges. */
function placedIn(group: GroupLayer, inner: Placement, canvas: Show['canvas']): Placement {
  const { x, y, width, height, angleDeg, fit } = toSceneCanvas(inner, [group], canvas)
  const bounded = { width: withinRange(RANGES.size, width), height: withinRange(RANGES.size, height) }
  return {
    x: withinRange(RANGES.position, x + (width - bounded.width) / 2),
    y: withinRange(RANGES.position, y + (height - bounded.height) / 2),
    ...bounded,
    angleDeg,
    fit,
  }
}

function boundedFrame(frame: Frame, scale: number): Frame {
  return scaledFrame(frame, (px, range) => withinRange(RANGES[range], px * scale))
}
