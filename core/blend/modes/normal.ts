import { separable } from '../blend-mode.ts'

/** What is on top is seen. */
export const normal = separable('normal', (_, source) => source, `return cs;`)
