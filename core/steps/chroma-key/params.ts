import type { ParamSpecs } from '../step.ts'

/**
 * - colour: the backdrop, as it looks in the picture at this place in the chain
 * - tolerance: how much weaker than the backdrop a colour may be and still be cleared fully
 * - softness: width of the ramp from clear to opaque, in shares of the backdrop's strength
 * - spill: how much of the backdrop's light is taken out of what remains
 */
export const chromaKeyParams = {
  colour: { type: 'colour', default: '#00b140' },
  tolerance: { type: 'number', min: 0, max: 0.9, step: 0.01, default: 0.2, unit: 'share' },
  softness: { type: 'number', min: 0.02, max: 1, step: 0.01, default: 0.74, unit: 'share' },
  spill: { type: 'number', min: 0, max: 1, step: 0.01, default: 1, unit: 'share' },
} as const satisfies ParamSpecs
