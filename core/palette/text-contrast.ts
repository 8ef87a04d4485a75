// How well words stand out from what lies behind them, measured on its picture.
import { contrastOf } from '../colour/contrast.ts'
import type { Rgb } from '../colour/hex.ts'

/** Of the pixels behind words, the share that may be worse than what is told: a few pixels of an edge are no trouble to read over. */
const PASSED_OVER = 0.05

/** The contrast ratio of a colour against the pixels of a picture, but for the worst few; null for no pixels. `data`: RGBA, 8 bits, opaque. */
export function contrastAgainst(words: Rgb, data: Uint8ClampedArray | Uint8Array): number | null {
  const ratios: number[] = []
  for (let at = 0; at + 3 < data.length; at += 4) ratios.push(contrastOf(words, [data[at]! / 255, data[at + 1]! / 255, data[at + 2]! / 255]))
  if (ratios.length === 0) return null
  ratios.sort((one, other) => one - other)
  return ratios[Math.floor(ratios.length * PASSED_OVER)]!
}
