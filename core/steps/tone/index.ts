import { pointWork, type StepDefinition } from '../step.ts'
import { prepareTone } from './reference.ts'
import { toneGlsl } from './glsl.ts'
import { toneParams } from './params.ts'

/** Brightens and steadies the picture. */
export const tone: StepDefinition<'tone', typeof toneParams> = {
  kind: 'tone',
  params: toneParams,
  makesMatte: () => false,
  work: (params) =>
    pointWork(prepareTone(params), toneGlsl, () => {
      const { exposure, shadows, highlights, contrast, pivot, gamma, lift, brightness } = params
      return [2 ** exposure, shadows, highlights, contrast, pivot, 1 / gamma, lift, brightness]
    }),
}
