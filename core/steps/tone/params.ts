import type { ParamSpecs } from '../step.ts'

/**
 * Exposure in stops of linear light; brightness added to the code; contrast about `pivot`; gamma; lift raises black
 * and leaves white; shadows and highlights brighten or darken one end of the scale for a presenter against the light.
 */
export const toneParams = {
  exposure: { type: 'number', min: -3, max: 3, step: 0.05, default: 0, unit: 'stops' },
  shadows: { type: 'number', min: -1, max: 1, step: 0.01, default: 0, unit: 'share' },
  highlights: { type: 'number', min: -1, max: 1, step: 0.01, default: 0, unit: 'share' },
  contrast: { type: 'number', min: 0.5, max: 2, step: 0.01, default: 1, unit: 'times' },
  pivot: { type: 'number', min: 0.1, max: 0.9, step: 0.01, default: 0.5, unit: 'share' },
  gamma: { type: 'number', min: 0.4, max: 2.5, step: 0.01, default: 1, unit: 'times' },
  lift: { type: 'number', min: -0.2, max: 0.2, step: 0.005, default: 0, unit: 'share' },
  brightness: { type: 'number', min: -0.5, max: 0.5, step: 0.005, default: 0, unit: 'share' },
} as const satisfies ParamSpecs
