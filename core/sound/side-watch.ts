// Notices a microphone of which one side is silent, as interfaces with one plugged-in microphone give it.
import { gainOf } from './loudness.ts'
import { CHUNK_MS } from './voice-chunk.ts'

/** Below this a side counts as silent, above the other as speech (common practice, no source). */
const SILENT = gainOf(-70)
const HEARD = gainOf(-45)
/** Chunks with sound on one side only that make it certain: two seconds of speech. */
const SURE_AFTER = 2000 / CHUNK_MS

export class SideWatch {
  #left = 0
  #right = 0

  /** Takes the largest samples of a chunk; says which side alone is heard, or null. */
  note(leftPeak: number, rightPeak: number): 'left' | 'right' | null {
    if (leftPeak > HEARD && rightPeak < SILENT) this.#left += 1
    if (rightPeak > HEARD && leftPeak < SILENT) this.#right += 1
    // Both sides heard at once: neither is silent.
    if (leftPeak > SILENT && rightPeak > SILENT) [this.#left, this.#right] = [0, 0]
    if (this.#left >= SURE_AFTER) return 'left'
    return this.#right >= SURE_AFTER ? 'right' : null
  }
}
