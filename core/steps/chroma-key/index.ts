import { formatHex, parseHex } from '../../colour/hex.ts'
import type { GainField } from '../../matte/backdrop.ts'
import { pointWork, type PointFunction, type PointShader, type SpatialWork, type StepDefinition } from '../step.ts'
import { prepareChromaKey, rampOf } from './reference.ts'
import { fieldFor, keyOnField } from './field.ts'
import { chromaKeyGlsl, fieldKeyGlsl } from './glsl.ts'
import { chromaKeyParams } from './params.ts'

export type FieldKeyWork = SpatialWork<
  'chromaKey',
  { readonly apply: PointFunction; readonly shader: PointShader; readonly key: string; readonly field: GainField }
>

/** Makes a cloth of one colour clear, and takes its reflected light off the presenter. */
export const chromaKey: StepDefinition<'chromaKey', typeof chromaKeyParams> = {
  kind: 'chromaKey',
  params: chromaKeyParams,
  // A grey backdrop colour keys nothing.
  makesMatte: (params) => prepareChromaKey(params) !== null,
  work: (params, context) => {
    const apply = prepareChromaKey(params)
    if (apply === null) return []
    const field = fieldFor(params, context)
    const { colour, tolerance, softness, spill } = params
    const { low, slope } = rampOf(params)
    const values = [...parseHex(colour), low, slope, spill]
    if (field === null) return pointWork(apply, chromaKeyGlsl, () => values)
    const work: FieldKeyWork = {
      shape: 'spatial',
      kind: 'chromaKey',
      settings: { apply, shader: { source: fieldKeyGlsl, values, lut: null }, key: JSON.stringify([colour, tolerance, softness, spill]), field },
      isTemporal: false,
      needsPerson: false,
      treat: (picture) => keyOnField(picture, apply, field),
    }
    return [work]
  },
  pick: (colour) => ({ colour: formatHex(colour) }),
}
