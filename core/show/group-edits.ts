// Putting layers together and taking them apart again.
import { followedBy, mapPoint, scaling } from '../composite/affine.ts'
import { scaledText } from '../layers/text.ts'
import { boxToCanvas } from '../layout/placement.ts'
import { newGroupLayer, type MakeId } from './create.ts'
import { updateScene } from './edits.ts'
import { changeListOf } from './layer-tree.ts'
import { RANGES, withinRange } from './limits.ts'
import type { Frame, GroupLayer, Layer, Placement, Show } from './show.ts'

/** Puts layers of one list into a new group, in the place of the one in front; they lie where they lay. Others are left alone. */
export function groupLayers(show: Show, sceneId: string, layerIds: readonly string[], name: string, makeId: MakeId): Show {
  const [first] = layerIds
  if (first === undefined) return show
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
export function ungroup(show: Show, sceneId: string, groupId: string): Show {
  return updateScene(show, sceneId, (scene) => ({
    ...scene,
    layers: changeListOf(scene.layers, groupId, (list) =>
      list.flatMap((layer) => (layer.id === groupId && layer.kind === 'group' ? freed(layer, show.canvas) : [layer])),
    ),
  }))
}

function freed(group: GroupLayer, canvas: Show['canvas']): Layer[] {
  const { placement } = group
  const scaleX = placement.width / canvas.widthPx
  const scaleY = placement.height / canvas.heightPx
  const scale = Math.sqrt(scaleX * scaleY)
  const isSame = placement.x === 0 && placement.y === 0 && scaleX === 1 && scaleY === 1 && placement.angleDeg === 0
  return group.layers.map((layer) => {
    const seen = { visible: layer.visible && group.visible, opacity: layer.opacity * group.opacity }
    if (isSame) return { ...layer, ...seen }
    const moved = { ...layer, ...seen, placement: placedIn(placement, layer.placement, scaleX, scaleY), frame: scaledFrame(layer.frame, scale) }
    return moved.kind === 'text' ? { ...moved, text: scaledText(moved.text, scale) } : moved
  })
}

/** Where a box of a group's canvas lies on the canvas that the group lies on. */
function placedIn(outer: Placement, inner: Placement, scaleX: number, scaleY: number): Placement {
  const toOuter = followedBy(scaling(scaleX, scaleY), boxToCanvas(outer))
  const [centreX, centreY] = mapPoint(toOuter, inner.x + inner.width / 2, inner.y + inner.height / 2)
  const width = withinRange(RANGES.size, inner.width * scaleX)
  const height = withinRange(RANGES.size, inner.height * scaleY)
  const angle = inner.angleDeg + outer.angleDeg
  return {
    x: withinRange(RANGES.position, centreX - width / 2),
    y: withinRange(RANGES.position, centreY - height / 2),
    width,
    height,
    angleDeg: Math.abs(angle) > 360 ? angle % 360 : angle,
    fit: inner.fit,
  }
}

function scaledFrame(frame: Frame, scale: number): Frame {
  const { border, shadow } = frame
  // The way a layer is turned goes with its shadow: both are told in its own directions.
  const at = (value: number, range: { readonly min: number; readonly max: number }) => withinRange(range, value * scale)
  return {
    ...frame,
    cornerRadiusPx: at(frame.cornerRadiusPx, RANGES.cornerRadiusPx),
    border: border === null ? null : { ...border, widthPx: at(border.widthPx, RANGES.borderPx) },
    shadow:
      shadow === null
        ? null
        : { ...shadow, dx: at(shadow.dx, RANGES.shadowOffsetPx), dy: at(shadow.dy, RANGES.shadowOffsetPx), blurPx: at(shadow.blurPx, RANGES.blurPx) },
  }
}
