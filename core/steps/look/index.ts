import { isOwnLook, ownLook } from '../../lut/own-looks.ts'
import { pointWork, type StepDefinition } from '../step.ts'
import { prepareLook } from './reference.ts'
import { lookGlsl } from './glsl.ts'
import { lookParams } from './params.ts'

/** Gives the whole picture a mood. A table that is not there yet changes nothing. */
export const look: StepDefinition<'look', typeof lookParams> = {
  kind: 'look',
  params: lookParams,
  makesMatte: () => false,
  work: (params, context) => {
    const lut = isOwnLook(params.look) ? ownLook(params.look) : context.lut(params.look)
    if (lut === null) return []
    const values = () => [lut.size, lut.kind === '3d' ? 1 : 0, ...lut.domainMin, ...lut.domainMax, params.amount]
    return pointWork(prepareLook(lut, params.amount), lookGlsl, values, lut)
  },
}
