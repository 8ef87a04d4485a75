/** VALUE: red, green, blue of the backdrop, tight, width of the ramp. */
export const colourKeyGlsl = `
vec4 STEP(vec4 pixel) {
  vec3 key = vec3(VALUE[0], VALUE[1], VALUE[2]);
  vec3 off = pixel.rgb - key;
  float opacity = clip((sqrt(dot(off, off) / 3.0) - VALUE[3]) / VALUE[4]);
  float alpha = pixel.a * opacity;
  if (opacity == 0.0 || opacity == 1.0) return vec4(pixel.rgb, alpha);
  return vec4(clip(pixel.rgb + off * ((1.0 - opacity) / max(opacity, 0.1) * min(1.0, opacity / 0.1))), alpha);
}
`
