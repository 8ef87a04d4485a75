import { luma709 } from '../../colour/luma.ts'
import { pointWork, type StepDefinition } from '../step.ts'
import { LEAST_RAMP, prepareLumaKey } from './reference.ts'
import { lumaKeyGlsl } from './glsl.ts'
import { lumaKeyParams } from './params.ts'

const PICK_REACH = 0.06

/** Makes dark or bright parts clear. */
export const lumaKey: StepDefinition<'lumaKey', typeof lumaKeyParams> = {
  kind: 'lumaKey',
  params: lumaKeyParams,
  makesMatte: () => true,
  work: (params) => pointWork(prepareLumaKey(params), lumaKeyGlsl, () => [params.from, params.to, Math.max(LEAST_RAMP, params.softness)]),
  pick: ([red, green, blue]) => {
    const luma = luma709(red, green, blue)
    const rounded = (value: number) => Math.round(Math.min(1, Math.max(0, value)) * 200) / 200
    return luma < 0.5 ? { from: 0, to: rounded(luma + PICK_REACH) } : { from: rounded(luma - PICK_REACH), to: 1 }
  },
}
