import { childrenOf } from '../layers/index.ts'
import { followedBy, inverse, mapPoint, scaling, type Affine } from '../composite/affine.ts'
import type { Layer, Show } from '../show/show.ts'
import { boxToCanvas } from '../box/placement.ts'

/**
 * The frontmost visible layer of some at (x, y), in canvas pixels; null when there is none. A layer is where its box is, a group where the
 * layers in it are: its own box is the whole canvas, as a rule.
 */
export function layerAt(layers: readonly Layer[], canvas: Pick<Show['canvas'], 'widthPx' | 'heightPx'>, x: number, y: number): Layer | null {
  return layers.findLast((layer) => isAt(layer, canvas, x, y)) ?? null
}

function isAt(layer: Layer, canvas: Pick<Show['canvas'], 'widthPx' | 'heightPx'>, x: number, y: number): boolean {
  if (!layer.visible) return false
  const { width, height } = layer.placement
  const toBox = inverse(boxToCanvas(layer.placement))
  const [boxX, boxY] = mapPoint(toBox, x, y)
  if (boxX < 0 || boxY < 0 || boxX > width || boxY > height) return false
  const children = childrenOf(layer)
  if (children === null) return true
  const toInner: Affine = followedBy(toBox, scaling(canvas.widthPx / width, canvas.heightPx / height))
  const [innerX, innerY] = mapPoint(toInner, x, y)
  return children.some((inner) => isAt(inner, canvas, innerX, innerY))
}
