import type { RgbaPicture } from '../../picture/picture.ts'
import type { ParamSpecs } from '../step.ts'

/**
 * - effect: leave the room as it is, soften it, hide it, or put a picture there
 * - softness: 0 to 6 (common practice, no source)
 * - input: the picture or colour that takes the room's place, an input of the show
 * - edge: moves the border between person and room outwards (above 0) or inwards
 */
export const roomParams = {
  effect: { type: 'choice', options: ['asIs', 'softened', 'hidden', 'replaced'], default: 'softened' },
  softness: { type: 'number', min: 0, max: 6, step: 0.1, default: 3, unit: 'plain' },
  edge: { type: 'number', min: -1, max: 1, step: 0.01, default: 0, unit: 'share' },
  input: { type: 'reference', to: 'input', default: '' },
} as const satisfies ParamSpecs

export interface RoomSettings {
  readonly effect: 'softened' | 'hidden' | 'replaced'
  readonly softness: number
  readonly edge: number
  /** What takes the room's place; null while it is not there, which shows black. */
  readonly picture: RgbaPicture | null
}
