import type { BlendMode } from '../blend-mode.ts'
import { luminosityOf, withLuminosity, nonSeparableGlsl } from '../non-separable.ts'

/** The hue and saturation of the source in the brightness of what lies below. */
export const colour: BlendMode<'color'> = {
  name: 'color',
  mix: (backdrop, source) => withLuminosity(source, luminosityOf(backdrop)),
  glsl: `${nonSeparableGlsl}
vec3 BLEND(vec3 cb, vec3 cs) { return BLEND_setLum(cs, BLEND_lum(cb)); }
`,
}
