// "Measure and hold": finds what is nearly grey in a picture and balances for it, once.
import type { Rgb } from '../colour/hex.ts'
import { luma709 } from '../colour/luma.ts'
import type { RgbaPicture } from '../picture/picture.ts'
import { balanceFor } from '../steps/balance/reference.ts'
import { prepareBalance } from '../steps/balance/reference.ts'
import { balanceParams } from '../steps/balance/params.ts'
import { defaultParams, type ParamsOf } from '../steps/step.ts'

const STEP = 4
const DARK = 0.12
const BRIGHT = 0.95
/** Largest difference between channels, per luma, of what may be a grey in coloured light. */
const NEARLY_GREY = 0.28
const LEAST_SHARE = 0.004
const ROUNDS = 4

/**
 * The balance that makes the nearly grey parts grey: their mean is balanced, then those that are nearer to grey in the
 * balanced picture are taken again, four times. Null when too little of the picture is anywhere near grey.
 */
export function measureWhite({ widthPx, heightPx, data }: RgbaPicture): ParamsOf<typeof balanceParams> | null {
  let params: ParamsOf<typeof balanceParams> = defaultParams(balanceParams)
  const looked = Math.ceil(widthPx / STEP) * Math.ceil(heightPx / STEP)
  for (let round = 0; round < ROUNDS; round += 1) {
    const apply = prepareBalance(params)
    const limit = NEARLY_GREY / (1 + round)
    const pixel = new Float64Array(4)
    const sum: [number, number, number] = [0, 0, 0]
    let count = 0
    for (let y = 0; y < heightPx; y += STEP) {
      for (let x = 0; x < widthPx; x += STEP) {
        const at = (y * widthPx + x) * 4
        if (data[at + 3]! < 250) continue
        for (let channel = 0; channel < 3; channel += 1) pixel[channel] = data[at + channel]! / 255
        apply?.(pixel)
        const luma = luma709(pixel[0]!, pixel[1]!, pixel[2]!)
        if (luma < DARK || luma > BRIGHT) continue
        const spread = Math.max(pixel[0]!, pixel[1]!, pixel[2]!) - Math.min(pixel[0]!, pixel[1]!, pixel[2]!)
        if (spread > limit * luma) continue
        for (let channel = 0; channel < 3; channel += 1) sum[channel]! += data[at + channel]! / 255
        count += 1
      }
    }
    if (count < looked * LEAST_SHARE) return round === 0 ? null : params
    const grey: Rgb = [sum[0] / count, sum[1] / count, sum[2] / count]
    const next = balanceFor(grey)
    if (next === null) return round === 0 ? null : params
    params = next
  }
  return params
}
