// What the microphone gives: 48 kHz of 16 bits on one channel or two, made by the studio and handed on as it is.
import { CHUNK_MS, SOUND_RATE } from '../../core/sound/voice-chunk.ts'
import { rangeOf } from './constraints.ts'

/** What a page may choose of the sound. */
export interface SoundWish {
  readonly channels: 1 | 2
  /**
   * Whether the page wants the meeting's own sound taken out. The studio's microphone never has it in it (nothing that a
   * meeting plays comes back through us), so that either answer is true.
   */
  readonly echoCancellation: boolean
}

const LATENCY_S = CHUNK_MS / 1000
const SAMPLE_BITS = 16
/** The studio has its own controls for these; a meeting gets what it made, not worked on again. */
const NEVER = ['noiseSuppression', 'autoGainControl', 'voiceIsolation'] as const

/** Names a required constraint that cannot be met; null when all are. */
export function unmetSound(audio: MediaTrackConstraints): string | null {
  const set = audio as Record<string, ConstrainBoolean | ConstrainULong | undefined>
  for (const name of NEVER) if (isRequired(set[name], true)) return name
  const fixed: readonly (readonly [string, number, number])[] = [
    ['sampleRate', SOUND_RATE, SOUND_RATE],
    ['sampleSize', SAMPLE_BITS, SAMPLE_BITS],
    ['latency', LATENCY_S, LATENCY_S],
    ['channelCount', 1, 2],
  ]
  for (const [name, least, most] of fixed) {
    const { min, max } = rangeOf(set[name] as ConstrainULong)
    if ((min ?? -Infinity) > most || (max ?? Infinity) < least || (min ?? -Infinity) > (max ?? Infinity)) return name
  }
  return null
}

/** What a track should give. Constraints that cannot be met must have been refused before (`unmetSound`). */
export function soundWish(audio: MediaTrackConstraints): SoundWish {
  const { min, max, ideal } = rangeOf(audio.channelCount)
  const channels = Math.min(Math.max(ideal ?? 2, min ?? 1), max ?? 2) < 1.5 ? 1 : 2
  return { channels, echoCancellation: isRequired(audio.echoCancellation, true) || isAimed(audio.echoCancellation) }
}

/** A track's settings, but for its ids. */
export function soundSettings({ channels, echoCancellation }: SoundWish) {
  return {
    sampleRate: SOUND_RATE,
    sampleSize: SAMPLE_BITS,
    channelCount: channels,
    latency: LATENCY_S,
    echoCancellation,
    noiseSuppression: false,
    autoGainControl: false,
    voiceIsolation: false,
  }
}

/** What a page may ask of the microphone, but for its ids. */
export function soundCapabilities() {
  const only = (value: number) => ({ min: value, max: value })
  return {
    sampleRate: only(SOUND_RATE),
    sampleSize: only(SAMPLE_BITS),
    channelCount: { min: 1, max: 2 },
    latency: only(LATENCY_S),
    echoCancellation: [true, false],
    noiseSuppression: [false],
    autoGainControl: [false],
    voiceIsolation: [false],
  }
}

/** Whether a value is required; the newer forms of echo cancellation are words. */
function isRequired(wish: unknown, value: boolean): boolean {
  if (typeof wish !== 'object' || wish === null || !('exact' in wish) || wish.exact === undefined) return false
  return typeof wish.exact === 'string' ? value : Boolean(wish.exact) === value
}

function isAimed(wish: unknown): boolean {
  const aim = typeof wish === 'object' && wish !== null && 'ideal' in wish ? wish.ideal : wish
  return aim === true || typeof aim === 'string'
}
