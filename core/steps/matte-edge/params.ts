import type { ParamSpecs, ParamsOf } from '../step.ts'

/**
 * - black, white: opacity up to `black` becomes clear, from `white` on opaque
 * - detail: how far the soft edge is solved from the colours on both sides of it, hair above all
 * - choke: grows (above 0) or chokes (below 0) the matte
 * - feather: softens it (σ of a Gaussian)
 * - specks, holes: islands smaller than so many pixels vanish, holes are filled
 */
export const matteEdgeParams = {
  black: { type: 'number', min: 0, max: 0.5, step: 0.01, default: 0, unit: 'share' },
  white: { type: 'number', min: 0.5, max: 1, step: 0.01, default: 1, unit: 'share' },
  detail: { type: 'number', min: 0, max: 1, step: 0.01, default: 0, unit: 'share' },
  choke: { type: 'number', min: -8, max: 8, step: 0.1, default: 0, unit: 'pixels' },
  feather: { type: 'number', min: 0, max: 12, step: 0.1, default: 0, unit: 'pixels' },
  specks: { type: 'number', min: 0, max: 2000, step: 10, default: 0, unit: 'pixels' },
  holes: { type: 'number', min: 0, max: 5000, step: 10, default: 0, unit: 'pixels' },
} as const satisfies ParamSpecs

export type MatteEdgeSettings = ParamsOf<typeof matteEdgeParams>
