import { separable } from '../blend-mode.ts'

/** The darker of both, channel by channel. */
export const darken = separable('darken', (backdrop, source) => Math.min(backdrop, source), `return min(cb, cs);`)
