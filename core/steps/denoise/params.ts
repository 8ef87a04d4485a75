import type { ParamSpecs } from '../step.ts'

/**
 * - time: how much of the frame before is kept where nothing moves
 * - space: how far a pixel is drawn to its like neighbours
 * - noise: differences up to this many 8-bit codes are taken for noise; twice as much for movement
 */
export const denoiseParams = {
  time: { type: 'number', min: 0, max: 0.9, step: 0.01, default: 0.6, unit: 'share' },
  space: { type: 'number', min: 0, max: 1, step: 0.01, default: 0.4, unit: 'share' },
  noise: { type: 'number', min: 1, max: 24, step: 1, default: 6, unit: 'plain' },
} as const satisfies ParamSpecs

export interface DenoiseSettings {
  readonly time: number
  readonly space: number
  /** 8-bit codes. */
  readonly noise: number
}
