import { SURFACE_NUMBERS } from '../../matte/backdrop.ts'
import type { ParamSpecs } from '../step.ts'

/**
 * - colour: the backdrop, as it looks in the picture at this place in the chain
 * - tolerance: how much weaker than the backdrop a colour may be and still be cleared fully
 * - softness: width of the ramp from clear to opaque, in shares of the backdrop's strength
 * - spill: how much of the backdrop's light is taken out of what remains
 * - backdrop: one colour everywhere, a surface fitted to the cloth, or a picture of the empty cloth
 * - surface: the fitted surface, as core/solve/fit-backdrop.ts makes it
 * - plate: the picture of the empty cloth, by its SHA-256
 */
export const chromaKeyParams = {
  colour: { type: 'colour', default: '#00b140' },
  tolerance: { type: 'number', min: 0, max: 0.9, step: 0.01, default: 0.2, unit: 'share' },
  softness: { type: 'number', min: 0.02, max: 1, step: 0.01, default: 0.74, unit: 'share' },
  spill: { type: 'number', min: 0, max: 1, step: 0.01, default: 1, unit: 'share' },
  backdrop: { type: 'choice', options: ['plain', 'fitted', 'plate'], default: 'plain' },
  surface: { type: 'numbers', length: SURFACE_NUMBERS, most: 10, default: [] },
  plate: { type: 'reference', to: 'plate', default: '' },
} as const satisfies ParamSpecs
