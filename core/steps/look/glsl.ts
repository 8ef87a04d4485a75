/** Tables are read as in core/lut/lut.ts. VALUE: points along an axis, 1 for a cube, least and most input of each channel, amount. */
export const lookGlsl = `
vec4 STEP(vec4 pixel) {
  vec3 colour = clip(pixel.rgb);
  int size = int(VALUE[0]);
  vec3 low = vec3(VALUE[2], VALUE[3], VALUE[4]);
  vec3 place = clip((colour - low) / (vec3(VALUE[5], VALUE[6], VALUE[7]) - low)) * float(size - 1);
  ivec3 below = min(ivec3(size - 2), ivec3(floor(place)));
  vec3 share = place - vec3(below);
  vec3 found;
  if (VALUE[1] == 0.0) {
    found = vec3(
      mix(TABLE(below.r).r, TABLE(below.r + 1).r, share.r), mix(TABLE(below.g).g, TABLE(below.g + 1).g, share.g), mix(TABLE(below.b).b, TABLE(below.b + 1).b, share.b));
  } else {
    ivec3 strides = ivec3(1, size, size * size);
    int first = below.r + below.g * strides.g + below.b * strides.b;
    // From corner 000 to 111, along the axis with the largest remainder first.
    ivec3 order = share.r >= share.g
      ? (share.g >= share.b ? ivec3(0, 1, 2) : share.r >= share.b ? ivec3(0, 2, 1) : ivec3(2, 0, 1))
      : (share.r >= share.b ? ivec3(1, 0, 2) : share.g >= share.b ? ivec3(1, 2, 0) : ivec3(2, 1, 0));
    float most = share[order.x];
    float middle = share[order.y];
    float least = share[order.z];
    int second = first + strides[order.x];
    int third = second + strides[order.y];
    found = TABLE(first) * (1.0 - most) + TABLE(second) * (most - middle) + TABLE(third) * (middle - least) + TABLE(third + strides[order.z]) * least;
  }
  return vec4(mix(colour, clip(found), VALUE[8]), pixel.a);
}
`
