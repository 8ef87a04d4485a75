import { clamp01, type FloatPicture } from '../../picture/float-picture.ts'
import type { DenoiseSettings } from './params.ts'

/**
 * First in time: out = C + w·(P − C), P the frame before as it left this step; w = time up to `noise` codes of
 * difference, falling to 0 at twice that, so that what moves leaves no trail. Then in space: each colour is drawn
 * to the mean of its four neighbours, of which those farther off than twice `noise` count as the pixel itself
 * (sigma filter, Lee 1983).
 */
export function denoiseReference(picture: FloatPicture, before: FloatPicture | null, { time, space, noise }: DenoiseSettings): FloatPicture {
  const limit = (2 * noise) / 255
  const steady = new Float64Array(picture.data.length)
  for (let i = 0; i < steady.length; i += 1) {
    const value = picture.data[i]!
    if ((i & 3) === 3 || before === null) {
      steady[i] = value
      continue
    }
    const difference = before.data[i]! - value
    steady[i] = value + difference * time * clamp01((limit - Math.abs(difference)) / (limit / 2))
  }
  if (space === 0) return { ...picture, data: steady }
  const { widthPx, heightPx } = picture
  const data = steady.slice()
  for (let y = 0; y < heightPx; y += 1) {
    const up = y > 0 ? -widthPx * 4 : 0
    const down = y < heightPx - 1 ? widthPx * 4 : 0
    for (let x = 0; x < widthPx; x += 1) {
      const left = x > 0 ? -4 : 0
      const right = x < widthPx - 1 ? 4 : 0
      for (let channel = 0; channel < 3; channel += 1) {
        const at = (y * widthPx + x) * 4 + channel
        const value = steady[at]!
        const near = (offset: number) => {
          const other = steady[at + offset]!
          return Math.abs(other - value) <= limit ? other : value
        }
        data[at] = value + space * ((near(up) + near(down) + near(left) + near(right)) / 4 - value)
      }
    }
  }
  return { ...picture, data }
}
