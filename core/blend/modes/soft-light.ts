import { separable } from '../blend-mode.ts'

function softLightOf(backdrop: number, source: number): number {
  if (source <= 0.5) return backdrop - (1 - 2 * source) * backdrop * (1 - backdrop)
  const lit = backdrop <= 0.25 ? ((16 * backdrop - 12) * backdrop + 4) * backdrop : Math.sqrt(backdrop)
  return backdrop + (2 * source - 1) * (lit - backdrop)
}

/** Like a soft lamp on what lies below: darkens or lightens by a little. */
export const softLight = separable(
  'soft-light',
  softLightOf,
  `float lit = cb <= 0.25 ? ((16.0 * cb - 12.0) * cb + 4.0) * cb : sqrt(cb);
  return cs <= 0.5 ? cb - (1.0 - 2.0 * cs) * cb * (1.0 - cb) : cb + (2.0 * cs - 1.0) * (lit - cb);`,
)
