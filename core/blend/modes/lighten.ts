import { separable } from '../blend-mode.ts'

/** The lighter of both, channel by channel. */
export const lighten = separable('lighten', (backdrop, source) => Math.max(backdrop, source), `return max(cb, cs);`)
