import type { ParamSpecs } from '../step.ts'

/**
 * - colour: what becomes clear, white included
 * - tight: colours at most this far off are cleared fully; distance in RGB, black to white being 1
 * - wide: colours at least this far off stay
 */
export const colourKeyParams = {
  colour: { type: 'colour', default: '#f4f4f2' },
  tight: { type: 'number', min: 0, max: 1, step: 0.005, default: 0.08, unit: 'share' },
  wide: { type: 'number', min: 0, max: 1, step: 0.005, default: 0.2, unit: 'share' },
} as const satisfies ParamSpecs
