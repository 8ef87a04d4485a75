// Works on straight, sRGB-encoded colour in the BT.709 colour-difference plane, where mixing a
// foreground with the backdrop moves along a straight line.
import { CB_PER_BLUE, CR_PER_RED, LUMA_B, LUMA_G, LUMA_R } from '../../colour/luma.ts'
import { parseHex } from '../../colour/hex.ts'
import type { ParamsOf, PointFunction } from '../step.ts'
import type { chromaKeyParams } from './params.ts'

/** The values that decide on a colour. */
export type ChromaKeyValues = Pick<ParamsOf<typeof chromaKeyParams>, 'colour' | 'tolerance' | 'softness' | 'spill'>

/**
 * How much one unit of colour across the backdrop's direction forgives along it. It keeps
 * yellow and cyan things opaque before green: their colour lies half way towards the backdrop.
 */
export const WEDGE = 0.4

/** A backdrop with less colour than this can't be told from grey. */
const LEAST_CHROMA = 0.02
const LEAST_OPACITY = 0.1

/**
 * Clears the backdrop's colour and takes its light out of the rest.
 *
 * With p the colour along the backdrop's direction, q across it and k the backdrop's strength:
 * d = (p − 0.4·|q|) / k; opacity = 1 − clip((d − lo) / (hi − lo)), hi = 1 − tolerance, lo = max(0, hi − softness).
 * Spill: the backdrop's share is subtracted, F = (C − (1 − α)·K) / α (the compositing equation,
 * Smith & Blinn 1996, solved for F), then p is limited to 0.4·|q| at constant luma.
 * A grey backdrop colour keys nothing (null).
 */
export function prepareChromaKey(params: ChromaKeyValues): PointFunction | null {
  const [keyRed, keyGreen, keyBlue] = parseHex(params.colour)
  const keyLuma = LUMA_R * keyRed + LUMA_G * keyGreen + LUMA_B * keyBlue
  const keyCb = (keyBlue - keyLuma) * CB_PER_BLUE
  const keyCr = (keyRed - keyLuma) * CR_PER_RED
  const strength = Math.hypot(keyCb, keyCr)
  if (strength < LEAST_CHROMA) return null
  const alongCb = keyCb / strength
  const alongCr = keyCr / strength
  const { low, slope } = rampOf(params)
  const { spill } = params

  return (pixel) => {
    let red = pixel[0]!
    let green = pixel[1]!
    let blue = pixel[2]!
    let luma = LUMA_R * red + LUMA_G * green + LUMA_B * blue
    let cb = (blue - luma) * CB_PER_BLUE
    let cr = (red - luma) * CR_PER_RED
    let along = cb * alongCb + cr * alongCr
    let across = Math.abs(cb * alongCr - cr * alongCb)
    const likeness = (along - WEDGE * across) / strength
    const backdropShare = clamp01((likeness - low) * slope)
    const opacity = 1 - backdropShare
    pixel[3] = pixel[3]! * opacity
    if (spill === 0 || opacity === 0) return

    // Below a tenth opacity dividing by it would only amplify noise: down to clear pixels, which keep their colour, less and less is taken out.
    const taken = spill * Math.min(1, opacity / LEAST_OPACITY)
    if (backdropShare > 0) {
      // F = C + (1 − α)(C − K) / α.
      const push = (backdropShare * taken) / Math.max(opacity, LEAST_OPACITY)
      red = clamp01(red + push * (red - keyRed))
      green = clamp01(green + push * (green - keyGreen))
      blue = clamp01(blue + push * (blue - keyBlue))
      luma = LUMA_R * red + LUMA_G * green + LUMA_B * blue
      cb = (blue - luma) * CB_PER_BLUE
      cr = (red - luma) * CR_PER_RED
      along = cb * alongCb + cr * alongCr
      across = Math.abs(cb * alongCr - cr * alongCb)
    }
    const excess = along - WEDGE * across
    if (excess > 0) {
      const newCb = cb - excess * taken * alongCb
      const newCr = cr - excess * taken * alongCr
      red = luma + newCr / CR_PER_RED
      blue = luma + newCb / CB_PER_BLUE
      green = (luma - LUMA_R * red - LUMA_B * blue) / LUMA_G
    }
    pixel[0] = clamp01(red)
    pixel[1] = clamp01(green)
    pixel[2] = clamp01(blue)
  }
}

/** Where the ramp from opaque to clear starts, in shares of the backdrop's strength, and how steep it is. */
export function rampOf({ tolerance, softness }: Pick<ChromaKeyValues, 'tolerance' | 'softness'>): { readonly low: number; readonly slope: number } {
  const high = 1 - tolerance
  // Never below zero: colours that hold nothing of the backdrop stay opaque however far the tolerance goes.
  const low = Math.max(0, high - softness)
  return { low, slope: 1 / (high - low) }
}

function clamp01(value: number): number {
  return value < 0 ? 0 : value > 1 ? 1 : value
}
