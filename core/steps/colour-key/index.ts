import { formatHex } from '../../colour/hex.ts'
import { pointWork, type StepDefinition } from '../step.ts'
import { prepareColourKey } from './cpu.ts'
import { colourKeyParams } from './params.ts'

/** Makes any one colour clear: a white wall, a painted board. */
export const colourKey: StepDefinition<'colourKey', typeof colourKeyParams> = {
  kind: 'colourKey',
  params: colourKeyParams,
  makesMatte: () => true,
  work: (params) => pointWork(prepareColourKey(params)),
  pick: (picked) => ({ colour: formatHex(picked) }),
}
