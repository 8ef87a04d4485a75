// A picture where a layer has it: fitted into its box, seen through its frame.
import type { SourceId, SourceInfo } from '../picture/source.ts'
import { followedBy, scaling, translation, type Affine } from '../composite/affine.ts'
import { fitRects } from '../box/fit.ts'
import { boxToCanvas } from '../box/placement.ts'
import type { Item, NodeIndex } from '../plan/frame-plan.ts'
import type { Placement } from '../box/placement.ts'
import type { Layer } from '../layers/layer.ts'
import type { StepCall } from '../steps/index.ts'
import { putFramed } from './frame.ts'
import type { Place } from './place.ts'

/** The item that a layer was when it was put last, and what that depends on. */
interface PutBefore {
  readonly sourceId: SourceId
  readonly info: SourceInfo
  readonly steps: readonly StepCall[]
  readonly scale: number
  readonly widthPx: number
  readonly heightPx: number
  readonly mipLevel: number
  readonly item: Item
}

/** Layers are never changed: the same one in the same place is the same item. At most one for each of a few sizes: the stage's, a thumbnail's. */
const putBefore = new WeakMap<Layer, readonly PutBefore[]>()
const SIZES_KEPT = 4

/** Pixels that halving leaves to fall on one: in a picture of full size, and in a thumbnail. */
const LEAST_LEFT = 4
const LEAST_LEFT_SMALL = 2

/** Puts a source, cleaned, where a layer has it. `placement` follows from the layer and the scale while nothing moves it. */
export function putSource(place: Place, layer: Layer, placement: Placement, sourceId: SourceId, info: SourceInfo, steps: readonly StepCall[]): void {
  const { scale, widthPx, heightPx, builder, stack } = place
  const isAtRest = place.motion === null
  const before = isAtRest ? (putBefore.get(layer) ?? []) : []
  const same = before.find(
    (each) =>
      each.sourceId === sourceId &&
      each.steps === steps &&
      each.scale === scale &&
      each.widthPx === widthPx &&
      each.heightPx === heightPx &&
      each.info.widthPx === info.widthPx &&
      each.info.heightPx === info.heightPx &&
      each.info.isOpaque === info.isOpaque,
  )
  if (same !== undefined && same.item.paint.kind === 'node') {
    const node = builder.treated(sourceId, info, steps, same.mipLevel)
    return stack.putAgain({ ...same.item, paint: { ...same.item.paint, node } })
  }
  let level = 0
  const item = putPicture(place, layer, placement, info, (scaleDown) => {
    level = mipLevelFor(scaleDown, Math.min(info.widthPx, info.heightPx), scale < 1 ? LEAST_LEFT_SMALL : LEAST_LEFT)
    return { node: builder.treated(sourceId, info, steps, level), mipLevel: level }
  })
  if (isAtRest && item !== null) {
    putBefore.set(layer, [{ sourceId, info, steps, scale, widthPx, heightPx, mipLevel: level, item }, ...before].slice(0, SIZES_KEPT))
  }
}

/** Puts a picture of a size, fitted into a layer's box; says as which item, if it is one. `nodeFor` is told how many of its pixels fall on one. */
export function putPicture(
  place: Place,
  layer: Layer,
  placement: Placement,
  { widthPx, heightPx }: Pick<SourceInfo, 'widthPx' | 'heightPx'>,
  nodeFor: (pixelsPerPixel: number) => { readonly node: NodeIndex; readonly mipLevel: number },
): Item | null {
  const fitted = fitRects(placement.fit, widthPx, heightPx, placement.width, placement.height, layer.crop)
  const { width, height } = fitted.target
  const frameToStack = followedBy(translation(fitted.target.x, fitted.target.y), boxToCanvas(placement))
  const scaleX = fitted.source.width / width
  const scaleY = fitted.source.height / height
  return putFramed(place, layer, frameToStack, width, height, (toFrame) => {
    const { node, mipLevel } = nodeFor(Math.min(scaleX, scaleY))
    return { kind: 'node', node, toNode: followedBy(toFrame, frameToSource(fitted.source, scaleX, scaleY, mipLevel)) }
  })
}

function frameToSource({ x, y }: { readonly x: number; readonly y: number }, scaleX: number, scaleY: number, mipLevel: number): Affine {
  const halved = 2 ** -mipLevel
  return followedBy(followedBy(scaling(scaleX, scaleY), translation(x, y)), scaling(halved, halved))
}

/**
 * Times a picture is halved before it is drawn smaller: a shortcut, since what it is halved to is shared. At least `leastLeft` pixels are
 * left to fall on one, so that a picture that glides past a halving is not seen to change.
 */
function mipLevelFor(pixelsPerPixel: number, shorterSidePx: number, leastLeft: number): number {
  const most = Math.floor(Math.log2(shorterSidePx))
  return Math.max(0, Math.min(most, Math.floor(Math.log2(pixelsPerPixel / leastLeft))))
}
