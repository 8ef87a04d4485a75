import { decodeSrgb } from '../../core/colour/srgb.ts'
import { luma709 } from '../../core/colour/luma.ts'
import { parseHex } from '../../core/colour/hex.ts'

/** Contrast ratio 1..21 of two "#rrggbb" colours, W3C WCAG 2.2 success criterion 1.4.3. */
export function contrastRatio(firstHex: string, secondHex: string): number {
  const first = relativeLuminance(firstHex)
  const second = relativeLuminance(secondHex)
  return (Math.max(first, second) + 0.05) / (Math.min(first, second) + 0.05)
}

function relativeLuminance(hex: string): number {
  const [red, green, blue] = parseHex(hex)
  return luma709(decodeSrgb(red), decodeSrgb(green), decodeSrgb(blue))
}
