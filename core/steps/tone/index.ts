import { pointWork, type StepDefinition } from '../step.ts'
import { prepareTone } from './cpu.ts'
import { toneParams } from './params.ts'

/** Brightens and steadies the picture. */
export const tone: StepDefinition<'tone', typeof toneParams> = {
  kind: 'tone',
  params: toneParams,
  makesMatte: () => false,
  work: (params) => pointWork(prepareTone(params)),
}
