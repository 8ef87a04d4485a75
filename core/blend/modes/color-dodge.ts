import { separable } from '../blend-mode.ts'

/** Lightens what lies below by the source; black below stays black. */
export const colourDodge = separable(
  'color-dodge',
  (backdrop, source) => (backdrop === 0 ? 0 : source >= 1 ? 1 : Math.min(1, backdrop / (1 - source))),
  `return cb == 0.0 ? 0.0 : cs >= 1.0 ? 1.0 : min(1.0, cb / (1.0 - cs));`,
)
