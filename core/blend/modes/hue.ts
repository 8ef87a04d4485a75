import type { BlendMode } from '../blend-mode.ts'
import { luminosityOf, saturationOf, withLuminosity, withSaturation, nonSeparableGlsl } from '../non-separable.ts'

/** The hue of the source in the saturation and brightness of what lies below. */
export const hue: BlendMode<'hue'> = {
  name: 'hue',
  mix: (backdrop, source) => withLuminosity(withSaturation(source, saturationOf(backdrop)), luminosityOf(backdrop)),
  glsl: `${nonSeparableGlsl}
vec3 BLEND(vec3 cb, vec3 cs) { return BLEND_setLum(BLEND_setSat(cs, BLEND_sat(cb)), BLEND_lum(cb)); }
`,
}
