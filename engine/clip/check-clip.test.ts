import { describe, expect, it, vi } from 'vitest'
import { checkPictures } from './check-clip.ts'
import type { MovingPictures, PlayedPart } from './moving-pictures.ts'

/** Ten pictures a second; decoding throws at one of them if told so. */
function film(count: number, cutOff: string | null = null, brokenAt = Infinity) {
  let next = 0
  const seek = vi.fn<(part: PlayedPart) => void>()
  const close = vi.fn()
  const skip = async () => {
    if (next === brokenAt) throw new Error('no such macroblock')
    next += 1
    return next > count ? null : (next - 1) * 100_000
  }
  const pictures: MovingPictures = { durationUs: count * 100_000, cutOff, seek, next: async () => null, skip, close }
  return { pictures, seek, close }
}

describe('a clip that is checked', () => {
  it('is good to its end when every picture can be decoded, once and not lap after lap', async () => {
    const { pictures, seek, close } = film(40)
    const shares: number[] = []
    expect(await checkPictures(pictures, (share) => shares.push(share))).toEqual({ goodUs: 4_000_000, fault: null })
    expect(seek).toHaveBeenCalledExactlyOnceWith({ fromUs: 0, toUs: 4_000_000, loops: false })
    expect(shares).toEqual([0.35, 0.725])
    expect(close).toHaveBeenCalledOnce()
  })

  it('is good to the last picture before the fault, so that this one is still decoded when it is played', async () => {
    const { pictures, close } = film(40, null, 12)
    expect(await checkPictures(pictures, () => undefined)).toEqual({ goodUs: 1_100_000, fault: 'no such macroblock' })
    expect(close).toHaveBeenCalledOnce()
  })

  it('is good for nothing when the first picture is at fault', async () => {
    expect((await checkPictures(film(40, null, 0).pictures, () => undefined)).goodUs).toBe(0)
  })

  it('is good to where it is cut off, which it knows without decoding', async () => {
    expect(await checkPictures(film(7, 'the file ends early').pictures, () => undefined)).toEqual({ goodUs: 700_000, fault: 'the file ends early' })
  })
})
