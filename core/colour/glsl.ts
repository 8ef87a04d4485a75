// What shaders of steps may use; see srgb.ts, luma.ts and filter/bilinear.ts for the same on doubles.

/** GLSL ES 3.00: clipping, sRGB encoding and decoding, BT.709 luma and scaled colour differences (Cb, Cr in ±½). */
export const colourGlsl = `
float clip(float value) { return clamp(value, 0.0, 1.0); }
vec3 clip(vec3 value) { return clamp(value, 0.0, 1.0); }
float decodeSrgb(float value) { return value <= 0.04045 ? value / 12.92 : pow((value + 0.055) / 1.055, 2.4); }
vec3 decodeSrgb(vec3 value) { return vec3(decodeSrgb(value.r), decodeSrgb(value.g), decodeSrgb(value.b)); }
float encodeSrgb(float value) { return value <= 0.0031308 ? 12.92 * value : 1.055 * pow(value, 1.0 / 2.4) - 0.055; }
vec3 encodeSrgb(vec3 value) { return vec3(encodeSrgb(value.r), encodeSrgb(value.g), encodeSrgb(value.b)); }
const vec3 LUMA = vec3(0.2126, 0.7152, 0.0722);
const vec2 DIFFERENCE_SPAN = vec2(2.0 * (1.0 - 0.0722), 2.0 * (1.0 - 0.2126));
float lumaOf(vec3 colour) { return dot(LUMA, colour); }
vec2 differencesOf(vec3 colour) { return (colour.br - lumaOf(colour)) / DIFFERENCE_SPAN; }
vec3 colourOf(float luma, vec2 differences) {
  vec2 blueRed = luma + differences * DIFFERENCE_SPAN;
  return vec3(blueRed.y, (luma - LUMA.r * blueRed.y - LUMA.b * blueRed.x) / LUMA.g, blueRed.x);
}
`
