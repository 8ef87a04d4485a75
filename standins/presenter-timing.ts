// When the stand-in presenter blinks, waves and speaks: the same for the camera that shows it and the microphone that hears it.
// Seconds count within one lap of the frame mark.
import { MARK_LIMIT } from '../core/marks/frame-mark.ts'

/** Frame numbers are those of this rate, whatever the camera's own. */
const MARK_RATE = 30
/** How long a lap of the frame mark is, in seconds. */
export const LAP_SECONDS = MARK_LIMIT / MARK_RATE

/** The hand is up for three seconds in every eleven. */
export function waveAt(seconds: number): { readonly raise: number; readonly angle: number } {
  const phase = (seconds + 4) % 11
  if (phase > 3) return { raise: 0, angle: 0 }
  const raise = smooth(Math.min(1, phase / 0.6)) * smooth(Math.min(1, (3 - phase) / 0.6))
  return { raise, angle: 0.17 * Math.sin(phase * 9) }
}

export function blinkAt(seconds: number): number {
  const phase = seconds % 3.7
  return phase < 0.18 ? Math.sin((phase / 0.18) * Math.PI) : 0
}

/** How wide the mouth is open, and how loud the voice is: 0 … 1. */
export function speechAt(seconds: number): number {
  const talk = Math.max(0, Math.sin(seconds * 0.55 + 0.4) + 0.55)
  return Math.min(1, talk * Math.abs(Math.sin(seconds * 7.3) * Math.sin(seconds * 3.1 + 1)))
}

function smooth(t: number): number {
  return t * t * (3 - 2 * t)
}
