import { pointWork, type StepDefinition } from '../step.ts'
import { prepareColour } from './cpu.ts'
import { colourParams } from './params.ts'

/** Makes colours stronger, weaker or different. */
export const colour: StepDefinition<'colour', typeof colourParams> = {
  kind: 'colour',
  params: colourParams,
  makesMatte: () => false,
  work: (params) => pointWork(prepareColour(params)),
}
