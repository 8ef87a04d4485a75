// Where the layers of a list are put: a stack of a plan, and what their pictures are known by.
import { followedBy, inverse, scaling, translation, type Affine } from '../composite/affine.ts'
import { fitRects } from '../layout/fit.ts'
import { boxToCanvas } from '../layout/placement.ts'
import type { NodeIndex, SourceId, SourceInfo } from '../plan/frame-plan.ts'
import type { PlanBuilder, StackItems } from '../plan/plan-builder.ts'
import type { Layer, Placement, Show, Step } from '../show/show.ts'
import type { StepCall } from '../steps/index.ts'
import { putFramed } from './frame.ts'

/** Sizes of the sources that have a picture now. */
export type SourceInfos = ReadonlyMap<SourceId, SourceInfo>

export interface Place {
  readonly show: Show
  readonly infos: SourceInfos
  readonly builder: PlanBuilder
  readonly stack: StackItems
  /** Pixels of the stack for one of the show's canvas. */
  readonly scale: number
  readonly widthPx: number
  readonly heightPx: number
  readonly culls: boolean
  /** Scenes that this one is shown in; none of them is shown again. */
  readonly within: readonly string[]
  /** Puts a list of layers somewhere: a group and a scene do so with theirs. */
  readonly putLayers: (place: Place, layers: readonly Layer[]) => void
}

/** A layer kind: one file, and one line in index.ts. */
export interface LayerKindDefinition<K extends Layer['kind']> {
  readonly kind: K
  /** Puts a visible layer of this kind into a stack, or notes what it lacks. */
  readonly put: (place: Place, layer: Extract<Layer, { kind: K }>) => void
}

export function scaledPlacement(placement: Placement, scale: number): Placement {
  if (scale === 1) return placement
  const { x, y, width, height } = placement
  return { ...placement, x: x * scale, y: y * scale, width: width * scale, height: height * scale }
}

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

/** From pixels of a stack to those of a box that lies in it. */
export function toBox(placement: Placement): Affine {
  return inverse(boxToCanvas(placement))
}

const callsCache = new WeakMap<readonly Step[], WeakMap<readonly Step[], readonly StepCall[]>>()
export const NO_STEPS: readonly Step[] = []

/** The steps that are on of a treatment and of what follows it; the same list for the same two. */
export function callsOf(everywhere: readonly Step[], here: readonly Step[]): readonly StepCall[] {
  let known = callsCache.get(everywhere)
  if (known === undefined) callsCache.set(everywhere, (known = new WeakMap()))
  let calls = known.get(here)
  if (calls === undefined) known.set(here, (calls = [...activeSteps(everywhere), ...activeSteps(here)]))
  return calls
}

/** The steps of a treatment that are on. */
export function activeSteps(treatment: readonly Step[]): StepCall[] {
  return treatment.filter((step) => step.on).map(({ kind, params }) => ({ kind, params }) as StepCall)
}
