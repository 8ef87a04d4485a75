import type { BlendMode } from '../blend-mode.ts'

/**
 * Both added, as light adds up (§9.1.14): not a mixing of colours but a way to compose, so that what is added keeps its weight
 * where nothing lies below. `mix` is what is seen where both are opaque.
 */
export const plusLighter: BlendMode<'plus-lighter'> = {
  name: 'plus-lighter',
  mix: ([red, green, blue], source) => [Math.min(1, red + source[0]), Math.min(1, green + source[1]), Math.min(1, blue + source[2])],
  glsl: `
vec3 BLEND(vec3 cb, vec3 cs) { return min(vec3(1.0), cb + cs); }
`,
}
