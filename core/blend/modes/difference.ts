import { separable } from '../blend-mode.ts'

/** How far apart both are. */
export const difference = separable('difference', (backdrop, source) => Math.abs(backdrop - source), `return abs(cb - cs);`)
