import type { SpatialWork, StepDefinition } from '../step.ts'
import { sharpenReference } from './reference.ts'
import { sharpenParams, type SharpenSettings } from './params.ts'

export type SharpenWork = SpatialWork<'sharpen', SharpenSettings>

/** Makes fine detail crisper. */
export const sharpen: StepDefinition<'sharpen', typeof sharpenParams> = {
  kind: 'sharpen',
  params: sharpenParams,
  makesMatte: () => false,
  work: (params) => {
    if (params.amount === 0) return []
    const work: SharpenWork = {
      shape: 'spatial',
      kind: 'sharpen',
      settings: params,
      isTemporal: false,
      needsPerson: false,
      treat: (picture) => sharpenReference(picture, params),
    }
    return [work]
  },
}
