import type { SpatialWork, StepDefinition } from '../step.ts'
import { denoiseReference } from './reference.ts'
import { denoiseParams, type DenoiseSettings } from './params.ts'

export type DenoiseWork = SpatialWork<'denoise', DenoiseSettings>

/** Calms the grain of a dim room. */
export const denoise: StepDefinition<'denoise', typeof denoiseParams> = {
  kind: 'denoise',
  params: denoiseParams,
  makesMatte: () => false,
  work: (params) => {
    if (params.time === 0 && params.space === 0) return []
    const settings = { ...params, noise: Math.round(params.noise) }
    const work: DenoiseWork = {
      shape: 'spatial',
      kind: 'denoise',
      settings,
      isTemporal: params.time > 0,
      needsPerson: false,
      treat: (picture, aids) => denoiseReference(picture, aids.before, settings),
    }
    return [work]
  },
}
