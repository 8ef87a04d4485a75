import { pointWork, type StepDefinition } from '../step.ts'
import { balanceFor, balanceMatrix, prepareBalance } from './reference.ts'
import { balanceGlsl } from './glsl.ts'
import { balanceParams } from './params.ts'

/** Takes the colour of the room's light out of the picture. */
export const balance: StepDefinition<'balance', typeof balanceParams> = {
  kind: 'balance',
  params: balanceParams,
  makesMatte: () => false,
  work: (params) => pointWork(prepareBalance(params), balanceGlsl, () => balanceMatrix(params)),
  pick: balanceFor,
}
