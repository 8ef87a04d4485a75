import { pointWork, type StepDefinition } from '../step.ts'
import { prepareColour } from './reference.ts'
import { colourStepGlsl } from './glsl.ts'
import { colourParams } from './params.ts'

/** Makes colours stronger, weaker or different. */
export const colour: StepDefinition<'colour', typeof colourParams> = {
  kind: 'colour',
  params: colourParams,
  makesMatte: () => false,
  work: (params) =>
    pointWork(prepareColour(params), colourStepGlsl, () => {
      const turn = (params.hue * Math.PI) / 180
      return [Math.cos(turn) * params.saturation, Math.sin(turn) * params.saturation]
    }),
}
