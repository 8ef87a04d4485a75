// A picture where a layer has it: fitted into its box, seen through its frame.
import { followedBy, scaling, translation, type Affine } from '../composite/affine.ts'
import { fitRects } from '../layout/fit.ts'
import { boxToCanvas } from '../layout/placement.ts'
import type { NodeIndex, SourceId, SourceInfo } from '../plan/frame-plan.ts'
import type { Layer, Placement } from '../show/show.ts'
import type { StepCall } from '../steps/index.ts'
import { putFramed } from './frame.ts'
import type { Place } from './place.ts'

/** Puts a source, cleaned, where a layer has it. */
export function putSource(place: Place, layer: Layer, placement: Placement, sourceId: SourceId, info: SourceInfo, steps: readonly StepCall[]): void {
  putPicture(place, layer, placement, info, (scaleDown) => {
    const mipLevel = mipLevelFor(scaleDown, Math.min(info.widthPx, info.heightPx))
    return { node: place.builder.treated(sourceId, info, steps, mipLevel), mipLevel }
  })
}

/** Puts a picture of a size, fitted into a layer's box. `nodeFor` is told how many of its pixels fall on one. */
export function putPicture(
  place: Place,
  layer: Layer,
  placement: Placement,
  { widthPx, heightPx }: Pick<SourceInfo, 'widthPx' | 'heightPx'>,
  nodeFor: (pixelsPerPixel: number) => { readonly node: NodeIndex; readonly mipLevel: number },
): void {
  const fitted = fitRects(placement.fit, widthPx, heightPx, placement.width, placement.height)
  const { width, height } = fitted.target
  const frameToStack = followedBy(translation(fitted.target.x, fitted.target.y), boxToCanvas(placement))
  const scaleX = fitted.source.width / width
  const scaleY = fitted.source.height / height
  putFramed(place, layer, frameToStack, width, height, (toFrame) => {
    const { node, mipLevel } = nodeFor(Math.min(scaleX, scaleY))
    return { kind: 'node', node, toNode: followedBy(toFrame, frameToSource(fitted.source, scaleX, scaleY, mipLevel)) }
  })
}

function frameToSource({ x, y }: { readonly x: number; readonly y: number }, scaleX: number, scaleY: number, mipLevel: number): Affine {
  const halved = 2 ** -mipLevel
  return followedBy(followedBy(scaling(scaleX, scaleY), translation(x, y)), scaling(halved, halved))
}

/** Halvings that leave less than a factor of two to interpolate, so that small pictures don't sparkle. */
function mipLevelFor(pixelsPerPixel: number, shorterSidePx: number): number {
  if (pixelsPerPixel < 2) return 0
  return Math.min(Math.floor(Math.log2(pixelsPerPixel)), Math.floor(Math.log2(shorterSidePx)))
}
