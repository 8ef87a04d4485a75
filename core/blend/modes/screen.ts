import { separable } from '../blend-mode.ts'

/** Like two projectors on one screen: never darker than either. */
export const screen = separable('screen', (backdrop, source) => backdrop + source - backdrop * source, `return cb + cs - cb * cs;`)
