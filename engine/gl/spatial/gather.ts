/**
 * Sums of colour and count in cells: `isWanted` is a condition on `pixel`, or on `place` where it lies, for every `stepPx`-th
 * pixel of every `stepPx`-th row.
 */
export function gatherGlsl(cellPx: number, stepPx: number, isWanted: string): string {
  return `
void main() {
  ivec2 size = textureSize(t0, 0);
  vec4 sum = vec4(0.0);
  for (int y = 0; y < ${cellPx}; y += ${stepPx}) {
    for (int x = 0; x < ${cellPx}; x += ${stepPx}) {
      ivec2 place = here * ${cellPx} + ivec2(x, y);
      if (place.x >= size.x || place.y >= size.y) continue;
      vec4 pixel = texelFetch(t0, place, 0);
      if (${isWanted}) sum += vec4(pixel.rgb, 1.0);
    }
  }
  result = sum;
}`
}
