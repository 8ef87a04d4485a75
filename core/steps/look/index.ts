import { isOwnLook, ownLook } from '../../lut/own-looks.ts'
import { pointWork, type StepDefinition } from '../step.ts'
import { prepareLook } from './cpu.ts'
import { lookParams } from './params.ts'

/** Gives the whole picture a mood. A table that is not there yet changes nothing. */
export const look: StepDefinition<'look', typeof lookParams> = {
  kind: 'look',
  params: lookParams,
  makesMatte: () => false,
  work: (params, context) => {
    const lut = isOwnLook(params.look) ? ownLook(params.look) : context.lut(params.look)
    return lut === null ? [] : pointWork(prepareLook(lut, params.amount))
  },
}
