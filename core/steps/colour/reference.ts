import { CB_PER_BLUE, CR_PER_RED, LUMA_B, LUMA_G, LUMA_R } from '../../colour/luma.ts'
import { clamp01 } from '../../picture/float-picture.ts'
import type { ParamsOf, PointFunction } from '../step.ts'
import type { colourParams } from './params.ts'

/**
 * Colour differences of BT.709 turned by `hue` (Cb towards Cr) and multiplied by `saturation`, luma kept; null when
 * nothing would change. Without a turn this is W3C Filter Effects `saturate`.
 */
export function prepareColour({ saturation, hue }: ParamsOf<typeof colourParams>): PointFunction | null {
  if (saturation === 1 && hue === 0) return null
  const turn = (hue * Math.PI) / 180
  const cos = Math.cos(turn) * saturation
  const sin = Math.sin(turn) * saturation
  return (pixel) => {
    const luma = LUMA_R * pixel[0]! + LUMA_G * pixel[1]! + LUMA_B * pixel[2]!
    const cb = (pixel[2]! - luma) * CB_PER_BLUE
    const cr = (pixel[0]! - luma) * CR_PER_RED
    const red = luma + (sin * cb + cos * cr) / CR_PER_RED
    const blue = luma + (cos * cb - sin * cr) / CB_PER_BLUE
    pixel[1] = clamp01((luma - LUMA_R * red - LUMA_B * blue) / LUMA_G)
    pixel[0] = clamp01(red)
    pixel[2] = clamp01(blue)
  }
}
