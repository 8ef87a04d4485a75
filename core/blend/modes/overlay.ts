import { separable } from '../blend-mode.ts'
import { hardLightOf } from './hard-light.ts'

/** Hard light with the parts exchanged: shadows and highlights of what lies below stay. */
export const overlay = separable(
  'overlay',
  (backdrop, source) => hardLightOf(source, backdrop),
  `float t = 2.0 * cb - 1.0; return cb <= 0.5 ? cs * 2.0 * cb : cs + t - cs * t;`,
)
