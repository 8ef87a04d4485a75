import { inverse, mapPoint } from '../composite/affine.ts'
import type { Layer, Scene } from '../show/show.ts'
import { boxToCanvas } from './placement.ts'

/** The frontmost visible layer whose box holds (x, y), in canvas pixels; null when there is none. */
export function layerAt(scene: Scene, x: number, y: number): Layer | null {
  for (let i = scene.layers.length - 1; i >= 0; i -= 1) {
    const layer = scene.layers[i]!
    if (!layer.visible) continue
    const [boxX, boxY] = mapPoint(inverse(boxToCanvas(layer.placement)), x, y)
    if (boxX >= 0 && boxY >= 0 && boxX <= layer.placement.width && boxY <= layer.placement.height) return layer
  }
  return null
}
