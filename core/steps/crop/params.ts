import type { ParamSpecs } from '../step.ts'

const edge = { type: 'number', min: 0, max: 95, step: 0.5, default: 0, unit: 'percent' } as const

/** How much of the picture each edge loses, in percent of its width or height; feather in pixels, inwards. */
export const cropParams = {
  left: edge,
  top: edge,
  right: edge,
  bottom: edge,
  feather: { type: 'number', min: 0, max: 100, step: 1, default: 0, unit: 'pixels' },
} as const satisfies ParamSpecs
