/** VALUE: red, green, blue of the backdrop, low end and slope of the ramp, spill. See reference.ts for the formula. */
export const chromaKeyGlsl = `
vec4 STEP(vec4 pixel) {
  vec3 key = vec3(VALUE[0], VALUE[1], VALUE[2]);
  vec2 keyDifferences = differencesOf(key);
  float strength = length(keyDifferences);
  vec2 axis = keyDifferences / strength;
  vec3 colour = pixel.rgb;
  vec2 d = differencesOf(colour);
  float along = dot(d, axis);
  float across = abs(d.x * axis.y - d.y * axis.x);
  float backdrop = clip(((along - 0.4 * across) / strength - VALUE[3]) * VALUE[4]);
  float opacity = 1.0 - backdrop;
  float spill = VALUE[5];
  if (spill == 0.0 || opacity == 0.0) return vec4(pixel.rgb, pixel.a * opacity);
  float taken = spill * min(1.0, opacity / 0.1);
  if (backdrop > 0.0) {
    colour = clip(colour + backdrop * taken / max(opacity, 0.1) * (colour - key));
    d = differencesOf(colour);
    along = dot(d, axis);
    across = abs(d.x * axis.y - d.y * axis.x);
  }
  float excess = along - 0.4 * across;
  if (excess > 0.0) colour = colourOf(lumaOf(colour), d - excess * taken * axis);
  return vec4(clip(colour), pixel.a * opacity);
}
`

/** The key where the light on the cloth asks for a gain; see keyOnField. */
export const fieldKeyGlsl = `${chromaKeyGlsl}
vec4 STEP_onField(vec4 pixel, float gain) {
  vec3 even = clip(pixel.rgb * gain);
  vec4 keyed = STEP(vec4(even, pixel.a));
  return vec4(clip(pixel.rgb + (keyed.rgb - even) / gain), keyed.a);
}
`
