/** VALUE: cosine and sine of the turn, each times the saturation. */
export const colourStepGlsl = `
vec4 STEP(vec4 pixel) {
  vec2 d = differencesOf(pixel.rgb);
  vec2 turned = vec2(VALUE[0] * d.x - VALUE[1] * d.y, VALUE[1] * d.x + VALUE[0] * d.y);
  return vec4(clip(colourOf(lumaOf(pixel.rgb), turned)), pixel.a);
}
`
