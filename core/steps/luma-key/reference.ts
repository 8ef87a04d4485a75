import { luma709 } from '../../colour/luma.ts'
import { clamp01 } from '../../picture/float-picture.ts'
import type { ParamsOf, PointFunction } from '../step.ts'
import type { lumaKeyParams } from './params.ts'

/** Width of the narrowest ramp. */
export const LEAST_RAMP = 1e-4

/** Opacity = clip(distance of the luma to [from, to] / softness); null when the range is empty. */
export function prepareLumaKey({ from, to, softness }: ParamsOf<typeof lumaKeyParams>): PointFunction | null {
  if (to < from || (from === 0 && to === 0)) return null
  const ramp = Math.max(LEAST_RAMP, softness)
  return (pixel) => {
    const luma = clamp01(luma709(pixel[0]!, pixel[1]!, pixel[2]!))
    pixel[3] = pixel[3]! * clamp01(Math.max(from - luma, luma - to) / ramp)
  }
}
