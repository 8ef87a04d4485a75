import type { SpatialWork, StepDefinition } from '../step.ts'
import { roomReference } from './reference.ts'
import { roomParams, type RoomSettings } from './params.ts'

export type RoomWork = SpatialWork<'room', RoomSettings>

/** Softens, hides or replaces the room behind the person, without a cloth. */
export const room: StepDefinition<'room', typeof roomParams> = {
  kind: 'room',
  params: roomParams,
  makesMatte: (params) => params.effect === 'hidden',
  work: (params, context) => {
    const { effect, softness, edge } = params
    if (effect === 'asIs' || (effect === 'softened' && softness === 0)) return []
    const settings: RoomSettings = { effect, softness, edge, picture: effect === 'replaced' && params.input !== '' ? context.picture(params.input) : null }
    const work: RoomWork = {
      shape: 'spatial',
      kind: 'room',
      settings,
      isTemporal: false,
      needsPerson: true,
      treat: (picture, aids) => roomReference(picture, aids.person, settings),
    }
    return [work]
  },
}
