import { formatHex, parseHex } from '../../colour/hex.ts'
import { pointWork, type StepDefinition } from '../step.ts'
import { LEAST_RAMP, prepareColourKey } from './reference.ts'
import { colourKeyGlsl } from './glsl.ts'
import { colourKeyParams } from './params.ts'

/** Makes any one colour clear: a white wall, a painted board. */
export const colourKey: StepDefinition<'colourKey', typeof colourKeyParams> = {
  kind: 'colourKey',
  params: colourKeyParams,
  makesMatte: () => true,
  work: (params) =>
    pointWork(prepareColourKey(params), colourKeyGlsl, () => [...parseHex(params.colour), params.tight, Math.max(LEAST_RAMP, params.wide - params.tight)]),
  pick: (picked) => ({ colour: formatHex(picked) }),
}
