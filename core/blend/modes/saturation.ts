import type { BlendMode } from '../blend-mode.ts'
import { luminosityOf, saturationOf, withLuminosity, withSaturation, nonSeparableGlsl } from '../non-separable.ts'

/** The saturation of the source in the hue and brightness of what lies below. */
export const saturation: BlendMode<'saturation'> = {
  name: 'saturation',
  mix: (backdrop, source) => withLuminosity(withSaturation(backdrop, saturationOf(source)), luminosityOf(backdrop)),
  glsl: `${nonSeparableGlsl}
vec3 BLEND(vec3 cb, vec3 cs) { return BLEND_setLum(BLEND_setSat(cb, BLEND_sat(cs)), BLEND_lum(cb)); }
`,
}
