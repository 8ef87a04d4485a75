import type { BlendMode } from '../blend-mode.ts'
import { luminosityOf, withLuminosity, nonSeparableGlsl } from '../non-separable.ts'

/** The brightness of the source in the hue and saturation of what lies below. */
export const luminosity: BlendMode<'luminosity'> = {
  name: 'luminosity',
  mix: (backdrop, source) => withLuminosity(backdrop, luminosityOf(source)),
  glsl: `${nonSeparableGlsl}
vec3 BLEND(vec3 cb, vec3 cs) { return BLEND_setLum(cb, BLEND_lum(cs)); }
`,
}
