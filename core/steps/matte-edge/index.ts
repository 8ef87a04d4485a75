import type { SpatialWork, StepDefinition } from '../step.ts'
import { matteEdgeReference } from './reference.ts'
import { matteEdgeParams, type MatteEdgeSettings } from './params.ts'

export type MatteEdgeWork = SpatialWork<'matteEdge', MatteEdgeSettings>

/** Cleans the edge that a key has left. */
export const matteEdge: StepDefinition<'matteEdge', typeof matteEdgeParams> = {
  kind: 'matteEdge',
  params: matteEdgeParams,
  // Edges repeat, so that an opaque picture has none to choke or soften; but all of a small one may be a speck.
  makesMatte: (params) => params.specks > 0,
  work: (params) => {
    const { black, white, detail, choke, feather, specks, holes } = params
    if (black === 0 && white === 1 && detail === 0 && choke === 0 && feather === 0 && specks === 0 && holes === 0) return []
    const work: MatteEdgeWork = {
      shape: 'spatial',
      kind: 'matteEdge',
      settings: params,
      isTemporal: false,
      needsPerson: false,
      treat: (picture) => matteEdgeReference(picture, params),
    }
    return [work]
  },
}
