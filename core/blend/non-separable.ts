// What the modes that mix whole colours share: W3C Compositing and Blending Level 1 §10.2.
import type { Colour } from './blend-mode.ts'

const RED = 0.3
const GREEN = 0.59
const BLUE = 0.11

/** Lum(C): brightness as the standard weighs it. */
export function luminosityOf([red, green, blue]: Colour): number {
  return RED * red + GREEN * green + BLUE * blue
}

/** Sat(C) */
export function saturationOf(colour: Colour): number {
  return Math.max(...colour) - Math.min(...colour)
}

/** SetLum(C, l): the colour at another brightness, brought back into 0 … 1 without a change of it. */
export function withLuminosity(colour: Colour, luminosity: number): Colour {
  const by = luminosity - luminosityOf(colour)
  return clipped([colour[0] + by, colour[1] + by, colour[2] + by])
}

/** SetSat(C, s): the colour at another saturation; a grey stays black, as the standard has it. */
export function withSaturation(colour: Colour, saturation: number): Colour {
  const least = Math.min(...colour)
  const range = Math.max(...colour) - least
  if (range === 0) return [0, 0, 0]
  const scale = saturation / range
  return [(colour[0] - least) * scale, (colour[1] - least) * scale, (colour[2] - least) * scale]
}

/** ClipColor(C) */
function clipped(colour: Colour): Colour {
  const luminosity = luminosityOf(colour)
  const least = Math.min(...colour)
  const most = Math.max(...colour)
  let scale = 1
  if (least < 0) scale = Math.min(scale, luminosity / (luminosity - least))
  if (most > 1) scale = Math.min(scale, (1 - luminosity) / (most - luminosity))
  const bring = (value: number) => luminosity + (value - luminosity) * scale
  return scale === 1 ? colour : [bring(colour[0]), bring(colour[1]), bring(colour[2])]
}

/** The same functions for a shader. */
export const nonSeparableGlsl = `
float BLEND_lum(vec3 c) { return dot(c, vec3(${RED}, ${GREEN}, ${BLUE})); }
float BLEND_sat(vec3 c) { return max(c.r, max(c.g, c.b)) - min(c.r, min(c.g, c.b)); }
vec3 BLEND_setLum(vec3 c, float l) {
  vec3 moved = c + (l - BLEND_lum(c));
  float least = min(moved.r, min(moved.g, moved.b));
  float most = max(moved.r, max(moved.g, moved.b));
  float scale = 1.0;
  if (least < 0.0) scale = min(scale, l / (l - least));
  if (most > 1.0) scale = min(scale, (1.0 - l) / (most - l));
  return l + (moved - l) * scale;
}
vec3 BLEND_setSat(vec3 c, float s) {
  float range = BLEND_sat(c);
  return range == 0.0 ? vec3(0.0) : (c - min(c.r, min(c.g, c.b))) * (s / range);
}
`
