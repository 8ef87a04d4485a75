import { formatHex } from '../../colour/hex.ts'
import type { GainField } from '../../matte/backdrop.ts'
import { pointWork, type PointFunction, type SpatialWork, type StepDefinition } from '../step.ts'
import { prepareChromaKey } from './cpu.ts'
import { fieldFor, keyOnField } from './field.ts'
import { chromaKeyParams } from './params.ts'

export type FieldKeyWork = SpatialWork<'chromaKey', { readonly apply: PointFunction; readonly key: string; readonly field: GainField }>

/** Makes a cloth of one colour clear, and takes its reflected light off the presenter. */
export const chromaKey: StepDefinition<'chromaKey', typeof chromaKeyParams> = {
  kind: 'chromaKey',
  params: chromaKeyParams,
  makesMatte: () => true,
  work: (params, context) => {
    const apply = prepareChromaKey(params)
    if (apply === null) return []
    const field = fieldFor(params, context)
    if (field === null) return pointWork(apply)
    const { colour, tolerance, softness, spill } = params
    const work: FieldKeyWork = {
      shape: 'spatial',
      kind: 'chromaKey',
      settings: { apply, key: JSON.stringify([colour, tolerance, softness, spill]), field },
      isTemporal: false,
      needsPerson: false,
      treat: (picture) => keyOnField(picture, apply, field),
    }
    return [work]
  },
  pick: (colour) => ({ colour: formatHex(colour) }),
}
