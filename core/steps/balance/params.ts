import type { ParamSpecs } from '../step.ts'

/**
 * - temperature: of the light that fell on the presenter; higher makes the picture warmer
 * - tint: how far that light is off the locus towards green; higher makes the picture more magenta
 */
export const balanceParams = {
  temperature: { type: 'number', min: 2000, max: 12000, step: 50, default: 6500, unit: 'kelvin' },
  tint: { type: 'number', min: -100, max: 100, step: 1, default: 0, unit: 'plain' },
} as const satisfies ParamSpecs
