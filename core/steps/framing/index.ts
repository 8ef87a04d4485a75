import type { Affine } from '../../composite/affine.ts'
import type { SpatialWork, StepDefinition } from '../step.ts'
import { frameMask, frameReference, framingOf } from './reference.ts'
import { framingParams } from './params.ts'

/** Moves the picture: from framed to incoming pixels. */
export type FramingWork = SpatialWork<'framing', { readonly toSource: Affine }>

/** Chooses the part of the camera's picture that is shown. */
export const framing: StepDefinition<'framing', typeof framingParams> = {
  kind: 'framing',
  params: framingParams,
  makesMatte: () => false,
  work: (params, { widthPx, heightPx }) => {
    const toSource = framingOf(params, widthPx, heightPx)
    if (toSource === null) return []
    const work: FramingWork = {
      shape: 'spatial',
      kind: 'framing',
      settings: { toSource },
      isTemporal: false,
      needsPerson: false,
      treat: (picture) => frameReference(picture, toSource),
      moveMask: (mask) => frameMask(mask, toSource, widthPx, heightPx),
    }
    return [work]
  },
}
