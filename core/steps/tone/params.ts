import type { ParamSpecs } from '../step.ts'

/** Exposure in stops of linear light; contrast about mid-code; gamma; saturation. */
export const toneParams = {
  exposure: { type: 'number', min: -3, max: 3, step: 0.05, default: 0, unit: 'stops' },
  contrast: { type: 'number', min: 0.5, max: 2, step: 0.01, default: 1, unit: 'times' },
  gamma: { type: 'number', min: 0.4, max: 2.5, step: 0.01, default: 1, unit: 'times' },
  saturation: { type: 'number', min: 0, max: 2, step: 0.01, default: 1, unit: 'times' },
} as const satisfies ParamSpecs
