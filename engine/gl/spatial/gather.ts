// Colours of what is surely one thing, gathered in cells on the graphics card.
import { SURE_FROM, SURE_FRONT } from '../../../core/matte/solve-edges.ts'

/** `sureness` and `sampleWeight` of core/matte/solve-edges.ts. */
export const SURENESS = `
float sureness(float alpha) { return clip((alpha - ${SURE_FROM}) / ${SURE_FRONT - SURE_FROM}); }
float sampleWeight(float surely) { return clip(6.0 * surely - 5.0); }`

/**
 * Sums of colour and weight in cells: `weight` is an expression of `pixel`, or of `place` where it lies, for every `stepPx`-th
 * pixel of every `stepPx`-th row.
 */
export function gatherGlsl(cellPx: number, stepPx: number, weight: string): string {
  return `
void main() {
  ivec2 size = textureSize(t0, 0);
  vec4 sum = vec4(0.0);
  for (int y = 0; y < ${cellPx}; y += ${stepPx}) {
    for (int x = 0; x < ${cellPx}; x += ${stepPx}) {
      ivec2 place = here * ${cellPx} + ivec2(x, y);
      if (place.x >= size.x || place.y >= size.y) continue;
      vec4 pixel = texelFetch(t0, place, 0);
      sum += (${weight}) * vec4(pixel.rgb, 1.0);
    }
  }
  result = sum;
}`
}
