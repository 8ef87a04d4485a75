// Puts one pixel over another by a blend mode: W3C Compositing and Blending Level 1 §5 and §9, on sRGB-encoded values.
import { sourceOver } from '../composite/source-over.ts'
import { blendModeOf, type BlendName } from './index.ts'
import type { Colour } from './blend-mode.ts'

/**
 * Composes premultiplied `source`, thinned by `scale` (0..1), with premultiplied `backdrop`, in place:
 * co = cs·(1 − αb) + cb·(1 − αs) + αs·αb·B(Cb, Cs). Both hold red, green, blue, alpha, 0..1, from their index.
 */
export function compose(name: BlendName, backdrop: Float64Array, at: number, source: Float64Array, sourceAt: number, scale: number): void {
  if (name === 'normal') return sourceOver(backdrop, at, source, sourceAt, scale)
  if (name === 'plus-lighter') {
    for (let channel = 0; channel < 4; channel += 1) backdrop[at + channel] = Math.min(1, backdrop[at + channel]! + source[sourceAt + channel]! * scale)
    return
  }
  const over = source[sourceAt + 3]! * scale
  const under = backdrop[at + 3]!
  if (over === 0) return
  if (under === 0) return sourceOver(backdrop, at, source, sourceAt, scale)
  const mixed = blendModeOf(name).mix(straight(backdrop, at, under), straight(source, sourceAt, source[sourceAt + 3]!))
  for (let channel = 0; channel < 3; channel += 1) {
    backdrop[at + channel] = source[sourceAt + channel]! * scale * (1 - under) + backdrop[at + channel]! * (1 - over) + over * under * mixed[channel]!
  }
  backdrop[at + 3] = over + under - over * under
}

function straight(pixel: Float64Array, at: number, alpha: number): Colour {
  return [pixel[at]! / alpha, pixel[at + 1]! / alpha, pixel[at + 2]! / alpha]
}
