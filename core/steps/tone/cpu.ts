import { LUMA_B, LUMA_G, LUMA_R } from '../../colour/luma.ts'
import { decodeSrgb, encodeSrgb } from '../../colour/srgb.ts'
import type { ParamsOf, PointFunction } from '../step.ts'
import type { toneParams } from './params.ts'

/**
 * Exposure, contrast, gamma, saturation, in this order; null when nothing would change.
 *
 * - exposure: linear light × 2^stops (photographic stop), sRGB decode and encode around it
 * - contrast: v = (v − ½)·c + ½ on encoded values
 * - gamma: v = v^(1/g) on encoded values
 * - saturation: v = Y + s·(v − Y), Y the BT.709 luma (W3C Filter Effects 1, `saturate`)
 */
export function prepareTone(params: ParamsOf<typeof toneParams>): PointFunction | null {
  const { exposure, contrast, gamma, saturation } = params
  const hasCurve = exposure !== 0 || contrast !== 1 || gamma !== 1
  if (!hasCurve && saturation === 1) return null
  const gain = 2 ** exposure
  const curve = (value: number): number => {
    let v = clamp01(value)
    if (exposure !== 0) v = clamp01(encodeSrgb(decodeSrgb(v) * gain))
    if (contrast !== 1) v = clamp01((v - 0.5) * contrast + 0.5)
    if (gamma !== 1) v = v ** (1 / gamma)
    return v
  }
  return (pixel) => {
    let red = pixel[0]!
    let green = pixel[1]!
    let blue = pixel[2]!
    if (hasCurve) {
      red = curve(red)
      green = curve(green)
      blue = curve(blue)
    }
    if (saturation !== 1) {
      const luma = LUMA_R * red + LUMA_G * green + LUMA_B * blue
      red = clamp01(luma + saturation * (red - luma))
      green = clamp01(luma + saturation * (green - luma))
      blue = clamp01(luma + saturation * (blue - luma))
    }
    pixel[0] = red
    pixel[1] = green
    pixel[2] = blue
  }
}

function clamp01(value: number): number {
  return value < 0 ? 0 : value > 1 ? 1 : value
}
