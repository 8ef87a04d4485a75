/** VALUE: gain, shadows, highlights, contrast, pivot, 1 / gamma, lift, brightness. */
export const toneGlsl = `
vec4 STEP(vec4 pixel) {
  vec3 colour = clip(pixel.rgb);
  if (VALUE[0] != 1.0) colour = clip(encodeSrgb(decodeSrgb(colour) * VALUE[0]));
  if (VALUE[1] != 0.0 || VALUE[2] != 0.0) {
    float luma = lumaOf(colour);
    float dark = 1.0 - luma;
    float moved = luma + luma * dark * (VALUE[1] * dark * dark + VALUE[2] * luma * luma);
    colour = clip(colour * (luma > 1e-6 ? max(0.0, moved) / luma : 1.0));
  }
  if (VALUE[3] != 1.0) colour = clip((colour - VALUE[4]) * VALUE[3] + VALUE[4]);
  if (VALUE[5] != 1.0) colour = pow(colour, vec3(VALUE[5]));
  return vec4(clip(VALUE[6] + colour * (1.0 - VALUE[6]) + VALUE[7]), pixel.a);
}
`
