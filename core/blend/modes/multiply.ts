import { separable } from '../blend-mode.ts'

/** Like two slides in one projector: never lighter than either. */
export const multiply = separable('multiply', (backdrop, source) => backdrop * source, `return cb * cs;`)
