// A voice that needs no microphone: speech-like sound in step with the stand-in presenter's mouth, with a little room noise.
// The same time gives the same sound.
import { seededRandom } from '../../core/random/seeded.ts'
import { CHUNK_FRAMES, SOUND_RATE } from '../../core/sound/voice-chunk.ts'
import { CLAPS_AFTER, LAP_SECONDS, speechAt } from '../presenter-timing.ts'

const WAVE_LENGTH = 2048
const NOISE_LENGTH = 1 << 15
/** A millisecond. */
const BLOCK_FRAMES = 48
/** Pitch of a calm voice, and how far it sings. */
const PITCH_HZ = 186
const PITCH_SWING_HZ = 22
const SWING_RADIANS_A_SECOND = 0.9
/** Peak of the loudest syllable: −12 dBFS (common practice, no source). */
const LOUDEST = 0.25
const ROOM_NOISE = 0.0004
/** A clap: noise that dies away within a few milliseconds. */
const CLAP_PEAK = 0.5
const CLAP_DECAY_FRAMES = SOUND_RATE * 0.006
const CLAP_FRAMES = SOUND_RATE * 0.05

/** Strengths of the harmonics of an open and of a closed vowel. */
const OPEN = [1, 0.75, 0.6, 0.8, 0.5, 0.35, 0.22, 0.14, 0.1, 0.06]
const CLOSED = [1, 0.5, 0.2, 0.1, 0.06, 0.05, 0.08, 0.12, 0.07, 0.03]

/** One period of a vowel, with a peak of 1. */
function periodOf(harmonics: readonly number[]): Float32Array {
  const wave = Float32Array.from({ length: WAVE_LENGTH }, (_, i) =>
    harmonics.reduce((sum, strength, h) => sum + strength * Math.sin((2 * Math.PI * (h + 1) * i) / WAVE_LENGTH + h * h * 0.7), 0),
  )
  const peak = wave.reduce((most, value) => Math.max(most, Math.abs(value)), 0)
  return wave.map((value) => value / peak)
}

/** How open the mouth is, and how many turns the voice has made: the integral of its pitch. */
function voiceAt(sinceEpoch: number): { readonly mouth: number; readonly turns: number } {
  const seconds = sinceEpoch % LAP_SECONDS
  const turns = PITCH_HZ * seconds + (PITCH_SWING_HZ / SWING_RADIANS_A_SECOND) * (1 - Math.cos(SWING_RADIANS_A_SECOND * seconds))
  return { mouth: speechAt(seconds), turns }
}

export class DrawnVoice {
  readonly #open = periodOf(OPEN)
  readonly #closed = periodOf(CLOSED)
  readonly #noise: Float32Array

  /** First frames of the claps that were asked for. */
  #claps: readonly number[] = []

  constructor(seed: number) {
    const random = seededRandom(seed)
    this.#noise = Float32Array.from({ length: NOISE_LENGTH }, () => random() * 2 - 1)
  }

  /** The presenter is asked to clap at `fromFrame`; until the last clap is over nothing is said. */
  clap(fromFrame: number): void {
    this.#claps = CLAPS_AFTER.map((seconds) => Math.round(fromFrame + seconds * SOUND_RATE))
  }

  /** Writes the chunk that begins `firstFrame` frames of 1/48000 s after the epoch; both sides are the same. */
  draw(firstFrame: number, out: Float32Array): void {
    const isClapping = this.#isClapping(firstFrame)
    for (let from = 0; from < CHUNK_FRAMES; from += BLOCK_FRAMES) {
      // Mouth and pitch move slowly: each is worked out once a millisecond, and evenly between.
      const begin = voiceAt((firstFrame + from) / SOUND_RATE)
      const end = voiceAt((firstFrame + from + BLOCK_FRAMES) / SOUND_RATE)
      for (let i = 0; i < BLOCK_FRAMES; i += 1) {
        const share = i / BLOCK_FRAMES
        const mouth = begin.mouth + (end.mouth - begin.mouth) * share
        const turns = begin.turns + (end.turns - begin.turns) * share
        const at = Math.floor((turns - Math.floor(turns)) * WAVE_LENGTH)
        const vowel = this.#closed[at]! * (1 - mouth) + this.#open[at]! * mouth
        const noise = this.#noise[(firstFrame + from + i) % NOISE_LENGTH]!
        out[from + i] = isClapping ? noise * (ROOM_NOISE + this.#clapAt(firstFrame + from + i)) : vowel * mouth * mouth * LOUDEST + noise * ROOM_NOISE
      }
    }
  }

  #isClapping(frame: number): boolean {
    const [first] = this.#claps
    return first !== undefined && frame > first - SOUND_RATE && frame < this.#claps.at(-1)! + SOUND_RATE
  }

  #clapAt(frame: number): number {
    for (const clap of this.#claps) {
      const since = frame - clap
      if (since >= 0 && since < CLAP_FRAMES) return CLAP_PEAK * Math.exp(-since / CLAP_DECAY_FRAMES)
    }
    return 0
  }
}
