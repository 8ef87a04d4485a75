// Showing and hiding layers. A graphic with a photo closes the gap that its photo leaves.
import { mapLayers } from '../layers/tree.ts'
import { updateScene } from './edits.ts'
import type { Layer, Placement, Show } from './show.ts'

/** From the left edge of a photo to what stands beside it, as a share of the photo's width. */
export const PHOTO_ROOM = 1.18

/** How far what stands beside a photo moves when it is left out, in canvas pixels. */
export function photoRoom({ placement }: Pick<Layer, 'placement'>): number {
  return Math.round(placement.width * PHOTO_ROOM)
}

/**
 * Shows or hides layers of a scene, in groups too. Where the photo of a graphic is hidden, what stands beside it moves into its place and what
 * lies round both shrinks by as much; shown again, all of it is where it was.
 */
export function setVisible(show: Show, sceneId: string, layerIds: readonly string[], visible: boolean): Show {
  return updateScene(show, sceneId, (scene) => {
    let room = 0
    const layers = mapLayers(scene.layers, (layer) => {
      if (!layerIds.includes(layer.id) || layer.visible === visible) return layer
      if (layer.part === 'photo') room += photoRoom(layer)
      return { ...layer, visible }
    })
    if (room === 0) return { ...scene, layers }
    const by = visible ? room : -room
    return { ...scene, layers: mapLayers(layers, (layer) => moved(layer, by)) }
  })
}

function moved(layer: Layer, by: number): Layer {
  const at = (part: Partial<Placement>): Layer => ({ ...layer, placement: { ...layer.placement, ...part } })
  if (layer.part === 'besidePhoto') return at({ x: layer.placement.x + by })
  if (layer.part === 'roundPhoto') return at({ width: Math.max(1, layer.placement.width + by) })
  return layer
}
