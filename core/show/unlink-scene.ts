// A layer that shows another scene, as layers of its own.
import { fitRects } from '../box/fit.ts'
import type { Placement } from '../box/placement.ts'
import { newGroupLayer } from '../layers/group.ts'
import { isSceneLayer, type SceneLayer } from '../layers/scene.ts'
import { layersOf } from '../layers/tree.ts'
import type { MakeId } from '../random/make-id.ts'
import { addContents, withOwnContents } from './contents.ts'
import { copyLayer } from './create.ts'
import { updateLayer } from './edits.ts'
import type { Canvas } from '../layers/layer.ts'
import type { Crop, GroupLayer, Show } from './show.ts'

/**
 * Puts a group of copies in place of a layer that shows a scene: it looks the same, and changes of that scene reach it no more. An unknown id, or a
 * layer of another kind, changes nothing.
 */
export function unlinkScene(show: Show, sceneId: string, layerId: string, makeId: MakeId): Show {
  const layer = layersOf(show.scenes.find(({ id }) => id === sceneId) ?? { layers: [] }).find(({ id }) => id === layerId)
  const shown = isSceneLayer(layer) ? show.scenes.find(({ id }) => id === layer.sceneId) : undefined
  if (!isSceneLayer(layer) || shown === undefined) return show
  const copies = shown.layers.map((each) => copyLayer(each, makeId))
  const { layers, contents } = withOwnContents(show, copies, makeId)
  const { kind: _kind, sceneId: _shown, ...base } = layer
  const group: GroupLayer = { ...newGroupLayer(layer.name, layers, show.canvas, makeId), ...base, ...boxOf(layer, show.canvas) }
  return updateLayer(addContents(show, contents), sceneId, layerId, () => group)
}

/** Where the canvas that a scene layer shows lies: a group's is pulled to its box. */
function boxOf({ placement, crop }: SceneLayer, { widthPx, heightPx }: Canvas): { readonly placement: Placement; readonly crop: Crop | null } {
  const { source, target } = fitRects(placement.fit, widthPx, heightPx, placement.width, placement.height, crop)
  const isWhole = source.x === 0 && source.y === 0 && source.width === widthPx && source.height === heightPx
  return {
    placement: { ...placement, x: placement.x + target.x, y: placement.y + target.y, width: target.width, height: target.height, fit: 'stretch' },
    crop: isWhole
      ? null
      : {
          left: source.x / widthPx,
          top: source.y / heightPx,
          right: Math.max(0, 1 - (source.x + source.width) / widthPx),
          bottom: Math.max(0, 1 - (source.y + source.height) / heightPx),
        },
  }
}
