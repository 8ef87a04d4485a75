import type { PointStep } from '../step.ts'
import { balanceFor, prepareBalance } from './cpu.ts'
import { balanceParams } from './params.ts'

/** Takes the colour of the room's light out of the picture. */
export const balance: PointStep<'balance', typeof balanceParams> = {
  kind: 'balance',
  shape: 'point',
  params: balanceParams,
  makesMatte: false,
  prepare: prepareBalance,
  pick: balanceFor,
}
