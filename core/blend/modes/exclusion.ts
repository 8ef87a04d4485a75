import { separable } from '../blend-mode.ts'

/** Like difference, with less contrast. */
export const exclusion = separable('exclusion', (backdrop, source) => backdrop + source - 2 * backdrop * source, `return cb + cs - 2.0 * cb * cs;`)
