import type { ParamSpecs } from '../step.ts'

/**
 * Saturation: 0 is grey, 1 as it is. Hue turns all colours, in degrees from blue towards red, in the plane of BT.709's colour
 * differences with luma kept. The W3C filter `hue-rotate` turns by another matrix, the other way round.
 */
export const colourParams = {
  saturation: { type: 'number', min: 0, max: 2, step: 0.01, default: 1, unit: 'times' },
  hue: { type: 'number', min: -180, max: 180, step: 1, default: 0, unit: 'degrees' },
} as const satisfies ParamSpecs
