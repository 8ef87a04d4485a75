import { LUMA_B, LUMA_G, LUMA_R } from '../../colour/luma.ts'
import { decodeSrgb, encodeSrgb } from '../../colour/srgb.ts'
import { clamp01 } from '../../picture/float-picture.ts'
import type { ParamsOf, PointFunction } from '../step.ts'
import type { toneParams } from './params.ts'

/**
 * Exposure, shadows and highlights, contrast, gamma, lift, brightness, in this order; null when nothing would change.
 *
 * - exposure: linear light × 2^stops (photographic stop), sRGB decode and encode around it
 * - shadows, highlights: colours are scaled so that luma Y becomes Y + s·Y(1−Y)³ + h·Y³(1−Y): black, white and hue stay, and
 *   with s and h within ±1 no order is turned round: the slope 1 + s(1−Y)²(1−4Y) + h·Y²(3−4Y) is never below 0
 * - contrast: v = (v − pivot)·c + pivot on encoded values
 * - gamma: v = v^(1/g) on encoded values
 * - lift: v = lift + v·(1 − lift)
 * - brightness: v = v + b
 */
export function prepareTone(params: ParamsOf<typeof toneParams>): PointFunction | null {
  const { exposure, shadows, highlights, contrast, pivot, gamma, lift, brightness } = params
  const hasRecovery = shadows !== 0 || highlights !== 0
  const hasCurve = contrast !== 1 || gamma !== 1 || lift !== 0 || brightness !== 0
  if (exposure === 0 && !hasRecovery && !hasCurve) return null
  const gain = 2 ** exposure
  const expose = (value: number): number => (exposure === 0 ? clamp01(value) : clamp01(encodeSrgb(decodeSrgb(clamp01(value)) * gain)))
  const curve = (value: number): number => {
    let v = contrast === 1 ? value : clamp01((value - pivot) * contrast + pivot)
    if (gamma !== 1) v = v ** (1 / gamma)
    return clamp01(lift + v * (1 - lift) + brightness)
  }
  return (pixel) => {
    let red = expose(pixel[0]!)
    let green = expose(pixel[1]!)
    let blue = expose(pixel[2]!)
    if (hasRecovery) {
      const luma = LUMA_R * red + LUMA_G * green + LUMA_B * blue
      const moved = luma + luma * (1 - luma) * (shadows * (1 - luma) ** 2 + highlights * luma * luma)
      const scale = luma > 1e-6 ? Math.max(0, moved) / luma : 1
      red = clamp01(red * scale)
      green = clamp01(green * scale)
      blue = clamp01(blue * scale)
    }
    pixel[0] = hasCurve ? curve(red) : red
    pixel[1] = hasCurve ? curve(green) : green
    pixel[2] = hasCurve ? curve(blue) : blue
  }
}
