// What happens to the voice between the microphone and the feed: sides, gain, delay, mute. Changes fade, so that none is heard.
import type { VoiceSides } from '../show/show.ts'
import { gainOf } from './loudness.ts'
import { CHUNK_FRAMES, codeOf, SOUND_RATE } from './voice-chunk.ts'

export interface VoiceSettings {
  readonly gainDb: number
  readonly sides: VoiceSides
  /** 0 … 500 */
  readonly delayMs: number
  readonly isMuted: boolean
}

/** Room for the longest delay and a chunk more. */
const RING_FRAMES = SOUND_RATE / 2 + CHUNK_FRAMES

/** Shares of left and right that each side of the output takes. */
const mixes: Readonly<Record<VoiceSides, readonly [leftOfLeft: number, rightOfLeft: number, leftOfRight: number, rightOfRight: number]>> = {
  both: [1, 0, 0, 1],
  left: [1, 0, 1, 0],
  right: [0, 1, 0, 1],
  mean: [0.5, 0.5, 0.5, 0.5],
}

export class VoiceChain {
  readonly #ring = [new Float32Array(RING_FRAMES), new Float32Array(RING_FRAMES)] as const
  readonly #peaks: [left: number, right: number] = [0, 0]
  #at = 0
  #settings: VoiceSettings = { gainDb: 0, sides: 'both', delayMs: 0, isMuted: false }
  #gain = 1
  #loudness = 1
  #delayFrames = 0

  set(settings: VoiceSettings): void {
    this.#settings = settings
  }

  /** The largest sample of each side after gain and before mute, since the last call. */
  takePeaks(): readonly [left: number, right: number] {
    const peaks = [...this.#peaks] as [number, number]
    this.#peaks.fill(0)
    return peaks
  }

  /**
   * Takes a chunk of both sides (48 kHz, −1 … 1, CHUNK_FRAMES each) and writes 16-bit codes, left and right in turn, to `out`.
   * New gain, mute and delay are reached by the end of the chunk.
   */
  process(left: Float32Array, right: Float32Array, out: Int16Array): void {
    const { gainDb, sides, delayMs, isMuted } = this.#settings
    const [leftOfLeft, rightOfLeft, leftOfRight, rightOfRight] = mixes[sides]
    const gain = gainOf(gainDb)
    const loudness = isMuted ? 0 : 1
    const delay = Math.round((delayMs * SOUND_RATE) / 1000)
    const [ringLeft, ringRight] = this.#ring
    for (let i = 0; i < CHUNK_FRAMES; i += 1) {
      const share = (i + 1) / CHUNK_FRAMES
      const nowGain = this.#gain + (gain - this.#gain) * share
      const inLeft = (left[i]! * leftOfLeft + right[i]! * rightOfLeft) * nowGain
      const inRight = (left[i]! * leftOfRight + right[i]! * rightOfRight) * nowGain
      this.#peaks[0] = Math.max(this.#peaks[0], Math.abs(inLeft))
      this.#peaks[1] = Math.max(this.#peaks[1], Math.abs(inRight))
      ringLeft[this.#at] = inLeft
      ringRight[this.#at] = inRight
      const nowLoud = this.#loudness + (loudness - this.#loudness) * share
      const from = ringIndex(this.#at - delay)
      const before = ringIndex(this.#at - this.#delayFrames)
      out[2 * i] = codeOf((ringLeft[before]! * (1 - share) + ringLeft[from]! * share) * nowLoud)
      out[2 * i + 1] = codeOf((ringRight[before]! * (1 - share) + ringRight[from]! * share) * nowLoud)
      this.#at = (this.#at + 1) % RING_FRAMES
    }
    this.#gain = gain
    this.#loudness = loudness
    this.#delayFrames = delay
  }
}

const ringIndex = (index: number) => (index < 0 ? index + RING_FRAMES : index)
