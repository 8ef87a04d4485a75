// Decodes a whole clip before it is added, so that a fault is met now and not on air.
import type { MovingPictures } from './moving-pictures.ts'
import { openClip } from './open-clip.ts'

/** How much of a clip can be played, in µs; `fault`: why not all of it. */
export interface ClipCheck {
  readonly goodUs: number
  readonly fault: string | null
}

/** Pictures between two words of progress. */
const TELL_EVERY = 15

/** Decodes a file whole. `onShare` hears how far it is, 0..1. Throws when the file cannot be opened at all. */
export async function checkClip(file: Blob, onShare: (share: number) => void): Promise<ClipCheck> {
  return checkPictures(await openClip(file), onShare)
}

/** Decodes every picture, then lets the decoder go. */
export async function checkPictures(pictures: MovingPictures, onShare: (share: number) => void): Promise<ClipCheck> {
  const { durationUs, cutOff } = pictures
  let goodUs = 0
  try {
    pictures.seek({ fromUs: 0, toUs: durationUs, loops: false })
    for (let count = 1; ; count += 1) {
      const startUs = await pictures.skip()
      if (startUs === null) break
      goodUs = Math.max(goodUs, startUs)
      if (count % TELL_EVERY === 0) onShare(Math.min(1, startUs / durationUs))
    }
  } catch (error) {
    return { goodUs, fault: error instanceof Error ? error.message : String(error) }
  } finally {
    pictures.close()
  }
  return { goodUs: durationUs, fault: cutOff }
}
