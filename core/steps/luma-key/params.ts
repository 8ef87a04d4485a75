import type { ParamSpecs } from '../step.ts'

/** Brightness from `from` to `to` becomes clear; `softness` is the width of the ramp on either side. */
export const lumaKeyParams = {
  from: { type: 'number', min: 0, max: 1, step: 0.005, default: 0, unit: 'share' },
  to: { type: 'number', min: 0, max: 1, step: 0.005, default: 0.08, unit: 'share' },
  softness: { type: 'number', min: 0, max: 0.5, step: 0.005, default: 0.05, unit: 'share' },
} as const satisfies ParamSpecs
