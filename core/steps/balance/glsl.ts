/** VALUE: the matrix on linear light, row by row. */
export const balanceGlsl = `
vec4 STEP(vec4 pixel) {
  vec3 light = decodeSrgb(clip(pixel.rgb));
  vec3 turned = vec3(
    dot(vec3(VALUE[0], VALUE[1], VALUE[2]), light), dot(vec3(VALUE[3], VALUE[4], VALUE[5]), light), dot(vec3(VALUE[6], VALUE[7], VALUE[8]), light));
  return vec4(encodeSrgb(clip(turned)), pixel.a);
}
`
