/** VALUE: from, to, width of the ramp. */
export const lumaKeyGlsl = `
vec4 STEP(vec4 pixel) {
  float luma = clip(lumaOf(pixel.rgb));
  return vec4(pixel.rgb, pixel.a * clip(max(VALUE[0] - luma, luma - VALUE[1]) / VALUE[2]));
}
`
