import { separable } from '../blend-mode.ts'

/** Multiplies where the source is dark and screens where it is light. */
export function hardLightOf(backdrop: number, source: number): number {
  return source <= 0.5 ? backdrop * 2 * source : backdrop + (2 * source - 1) - backdrop * (2 * source - 1)
}

/** Like a hard spotlight on what lies below. */
export const hardLight = separable('hard-light', hardLightOf, `float t = 2.0 * cs - 1.0; return cs <= 0.5 ? cb * 2.0 * cs : cb + t - cb * t;`)
