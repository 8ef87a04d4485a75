import { separable } from '../blend-mode.ts'

/** Darkens what lies below by the source; white below stays white. */
export const colourBurn = separable(
  'color-burn',
  (backdrop, source) => (backdrop >= 1 ? 1 : source <= 0 ? 0 : 1 - Math.min(1, (1 - backdrop) / source)),
  `return cb >= 1.0 ? 1.0 : cs <= 0.0 ? 0.0 : 1.0 - min(1.0, (1.0 - cb) / cs);`,
)
