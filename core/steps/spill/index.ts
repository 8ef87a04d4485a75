import { formatHex, parseHex } from '../../colour/hex.ts'
import { pointWork, type ParamsOf, type SpatialWork, type StepDefinition } from '../step.ts'
import { EdgeSpill, prepareSpill, replacementLight, spillWedge } from './reference.ts'
import { spillGlsl } from './glsl.ts'
import { spillParams } from './params.ts'

export type EdgeSpillWork = SpatialWork<'spill', ParamsOf<typeof spillParams>>

/** Takes the cloth's reflected light off hair, shoulders and cheeks. */
export const spill: StepDefinition<'spill', typeof spillParams> = {
  kind: 'spill',
  params: spillParams,
  makesMatte: () => false,
  work: (params) => {
    if (params.replace !== 'edge') {
      return pointWork(prepareSpill(params), spillGlsl, () => [
        ...parseHex(params.colour),
        spillWedge(params.reach),
        params.amount,
        ...replacementLight(params),
      ])
    }
    if (params.amount === 0) return []
    const work: EdgeSpillWork = {
      shape: 'spatial',
      kind: 'spill',
      settings: params,
      isTemporal: false,
      needsPerson: false,
      treat: (picture) => {
        const data = picture.data.slice()
        new EdgeSpill(picture.widthPx, picture.heightPx).clean(data, 1, params)
        return { ...picture, data }
      },
    }
    return [work]
  },
  pick: (colour) => ({ colour: formatHex(colour) }),
}
