import { parseHex } from '../../colour/hex.ts'
import { clamp01 } from '../../picture/float-picture.ts'
import type { ParamsOf, PointFunction } from '../step.ts'
import type { colourKeyParams } from './params.ts'

/** Width of the narrowest ramp. */
export const LEAST_RAMP = 1e-4
/** Below this opacity, dividing by it would only amplify noise: down to clear pixels, which keep their colour, less and less is given back. */
const LEAST_OPACITY = 0.1

/**
 * d = √((ΔR² + ΔG² + ΔB²) / 3); opacity = clip((d − tight) / (wide − tight)). Half-clear pixels give the backdrop's share
 * back: F = (C − (1 − α)·K) / α (Porter & Duff 1984).
 */
export function prepareColourKey({ colour, tight, wide }: ParamsOf<typeof colourKeyParams>): PointFunction {
  const [keyRed, keyGreen, keyBlue] = parseHex(colour)
  const ramp = Math.max(LEAST_RAMP, wide - tight)
  return (pixel) => {
    const red = pixel[0]! - keyRed
    const green = pixel[1]! - keyGreen
    const blue = pixel[2]! - keyBlue
    const distance = Math.sqrt((red * red + green * green + blue * blue) / 3)
    const opacity = clamp01((distance - tight) / ramp)
    pixel[3] = pixel[3]! * opacity
    if (opacity === 0 || opacity === 1) return
    const stretch = 1 + ((1 - opacity) / Math.max(opacity, LEAST_OPACITY)) * Math.min(1, opacity / LEAST_OPACITY)
    pixel[0] = clamp01(keyRed + red * stretch)
    pixel[1] = clamp01(keyGreen + green * stretch)
    pixel[2] = clamp01(keyBlue + blue * stretch)
  }
}
