import { luma709 } from '../../colour/luma.ts'
import { convolvePlane, gaussianTaps } from '../../filter/gaussian.ts'
import { clamp01, type FloatPicture } from '../../picture/float-picture.ts'
import type { SharpenSettings } from './params.ts'

/** Unsharp mask: the amount to add for a value, its blurred neighbourhood and a threshold that is taken off the detail. */
export function unsharpDetail(value: number, blurred: number, amount: number, threshold: number): number {
  const detail = value - blurred
  const beyond = Math.abs(detail) - threshold
  return beyond <= 0 ? 0 : amount * (detail < 0 ? -beyond : beyond)
}

/**
 * Luma is blurred by a Gaussian; the difference is added to red, green and blue alike, so that hue stays. A neighbour counts by
 * its opacity: with G the Gaussian, detail = Y·G(α) − G(α·Y), so that what a key has cleared leaves no halo.
 */
export function sharpenReference(picture: FloatPicture, { amount, radius, threshold }: SharpenSettings): FloatPicture {
  const { widthPx, heightPx } = picture
  const luma = new Float64Array(widthPx * heightPx)
  const weight = new Float64Array(luma.length)
  const weighted = new Float64Array(luma.length)
  for (let i = 0; i < luma.length; i += 1) {
    luma[i] = luma709(picture.data[i * 4]!, picture.data[i * 4 + 1]!, picture.data[i * 4 + 2]!)
    weight[i] = picture.data[i * 4 + 3]!
    weighted[i] = luma[i]! * weight[i]!
  }
  const taps = gaussianTaps(radius)
  const blurred = convolvePlane({ widthPx, heightPx, data: weighted }, taps).data
  const share = convolvePlane({ widthPx, heightPx, data: weight }, taps).data
  const data = picture.data.slice()
  for (let i = 0; i < luma.length; i += 1) {
    const detail = unsharpDetail(luma[i]! * share[i]!, blurred[i]!, amount, threshold)
    for (let channel = 0; channel < 3; channel += 1) data[i * 4 + channel] = clamp01(data[i * 4 + channel]! + detail)
  }
  return { ...picture, data }
}
