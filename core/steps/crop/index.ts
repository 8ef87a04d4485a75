import type { SpatialWork, StepDefinition, StepWork } from '../step.ts'
import { featherRamp, keptByCrop } from './reference.ts'
import { cropParams } from './params.ts'

/** Opacity to multiply with: `across` for columns times `down` for rows. */
export type FadeWork = SpatialWork<'crop', { readonly across: Float64Array; readonly down: Float64Array }>

/** Cuts edges off the picture: cloth edges, lamp stands. */
export const crop: StepDefinition<'crop', typeof cropParams> = {
  kind: 'crop',
  params: cropParams,
  makesMatte: ({ left, top, right, bottom }) => left > 0 || top > 0 || right > 0 || bottom > 0,
  work: (params, { widthPx, heightPx }) => {
    const keep = keptByCrop(params, widthPx, heightPx)
    if (keep.left === 0 && keep.top === 0 && keep.right === widthPx && keep.bottom === heightPx) return []
    const cut: StepWork = { shape: 'cut', keep }
    if (params.feather === 0) return [cut]
    const across = featherRamp(widthPx, keep.left, keep.right, params.feather)
    const down = featherRamp(heightPx, keep.top, keep.bottom, params.feather)
    const fade: FadeWork = {
      shape: 'spatial',
      kind: 'crop',
      settings: { across, down },
      isTemporal: false,
      needsPerson: false,
      treat: (picture) => ({
        ...picture,
        data: picture.data.map((value, i) => {
          if ((i & 3) !== 3) return value
          const pixel = i >> 2
          return value * across[pixel % widthPx]! * down[Math.floor(pixel / widthPx)]!
        }),
      }),
    }
    return [cut, fade]
  },
}
