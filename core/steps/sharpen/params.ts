import type { ParamSpecs } from '../step.ts'

/** amount: how much of the fine detail is added; radius: its size (σ of a Gaussian); threshold: detail fainter than this is left alone. */
export const sharpenParams = {
  amount: { type: 'number', min: 0, max: 2, step: 0.01, default: 0.4, unit: 'share' },
  radius: { type: 'number', min: 0.5, max: 4, step: 0.1, default: 1.2, unit: 'pixels' },
  threshold: { type: 'number', min: 0, max: 0.1, step: 0.002, default: 0.008, unit: 'share' },
} as const satisfies ParamSpecs

export interface SharpenSettings {
  readonly amount: number
  /** σ in pixels. */
  readonly radius: number
  readonly threshold: number
}
