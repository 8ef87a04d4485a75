// What a blend mode is: how the colour of a layer mixes with what lies under it. W3C Compositing and Blending Level 1 §10.

/** Red, green, blue; straight, sRGB-encoded, 0 … 1. */
export type Colour = readonly [red: number, green: number, blue: number]

export interface BlendMode<Name extends string = string> {
  /** The standard's keyword. */
  readonly name: Name
  /** B(Cb, Cs): what is seen where both are opaque. Exact. */
  readonly mix: (backdrop: Colour, over: Colour) => Colour
  /** Defines `vec3 BLEND(vec3 cb, vec3 cs)`, the same for a shader. */
  readonly glsl: string
}

/** A mode that mixes each channel by itself; `glsl` is the body of `float BLEND_one(float cb, float cs)`. */
export function separable<Name extends string>(name: Name, one: (backdrop: number, over: number) => number, glsl: string): BlendMode<Name> {
  return {
    name,
    mix: (backdrop, over) => [one(backdrop[0], over[0]), one(backdrop[1], over[1]), one(backdrop[2], over[2])],
    glsl: `
float BLEND_one(float cb, float cs) { ${glsl} }
vec3 BLEND(vec3 cb, vec3 cs) { return vec3(BLEND_one(cb.r, cs.r), BLEND_one(cb.g, cs.g), BLEND_one(cb.b, cs.b)); }
`,
  }
}
