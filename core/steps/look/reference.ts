import { applyLut, type Lut } from '../../lut/lut.ts'
import { clamp01 } from '../../picture/float-picture.ts'
import type { PointFunction } from '../step.ts'

/** The colour the table gives (read tetrahedrally, clipped), mixed with the colour before; null for an amount of 0. */
export function prepareLook(lut: Lut, amount: number): PointFunction | null {
  if (amount === 0) return null
  return (pixel) => {
    const red = clamp01(pixel[0]!)
    const green = clamp01(pixel[1]!)
    const blue = clamp01(pixel[2]!)
    pixel[0] = red
    pixel[1] = green
    pixel[2] = blue
    applyLut(lut, pixel)
    pixel[0] = red + amount * (clamp01(pixel[0]) - red)
    pixel[1] = green + amount * (clamp01(pixel[1]) - green)
    pixel[2] = blue + amount * (clamp01(pixel[2]) - blue)
  }
}
