/**
 * How much backdrop light is in a colour; see spillMeter. VALUE: red, green, blue of the backdrop, the wedge, the amount,
 * then red, green, blue of what comes in for one whole backdrop.
 */
export const spillMeterGlsl = `
vec3 STEP_key() { return vec3(VALUE[0], VALUE[1], VALUE[2]); }
float STEP_in(vec3 colour) {
  vec2 keyDifferences = differencesOf(STEP_key());
  float strength = length(keyDifferences);
  vec2 axis = keyDifferences / strength;
  vec2 d = differencesOf(colour);
  return max(0.0, dot(d, axis) - VALUE[3] * abs(d.x * axis.y - d.y * axis.x)) / strength;
}
`

export const spillGlsl = `${spillMeterGlsl}
vec4 STEP(vec4 pixel) {
  float share = VALUE[4] * STEP_in(pixel.rgb);
  return share == 0.0 ? pixel : vec4(clip(pixel.rgb + share * (vec3(VALUE[5], VALUE[6], VALUE[7]) - STEP_key())), pixel.a);
}
`
