// When the stand-in presenter blinks, waves and speaks: the same for the camera that shows it and the microphone that hears it.
// Seconds count within one lap of the frame mark.
import { MARK_LIMIT, MARK_RATE } from '../core/marks/frame-mark.ts'

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

/** When the presenter claps after a cue, in seconds: unevenly, as a person does, and never twice at the same moment of a picture's thirtieth. */
export const CLAPS_AFTER = [1.2, 2.14, 3.2134, 4.12, 5.2267] as const
/** How long a cue keeps the hands up. */
export const CUE_SECONDS = 6.4
const APPROACH_SECONDS = 0.24
const TOGETHER_SECONDS = 0.14
/** They part more gently than they meet. */
const PART_SECONDS = 0.45

/** The hands `seconds` after a cue: how far up they are, and how near each other (1: together), 0 … 1. */
export function clapHandsAt(seconds: number): { readonly raise: number; readonly closeness: number } {
  if (seconds < 0 || seconds > CUE_SECONDS) return { raise: 0, closeness: 0 }
  const raise = smooth(Math.min(1, seconds / 0.6)) * smooth(Math.min(1, (CUE_SECONDS - seconds) / 0.6))
  let closeness = 0
  for (const clap of CLAPS_AFTER) {
    const since = seconds - clap
    if (since < 0) closeness = Math.max(closeness, 1 + since / APPROACH_SECONDS)
    else if (since < TOGETHER_SECONDS) closeness = 1
    else closeness = Math.max(closeness, 1 - smooth(Math.min(1, (since - TOGETHER_SECONDS) / PART_SECONDS)))
  }
  return { raise, closeness }
}

function smooth(t: number): number {
  return t * t * (3 - 2 * t)
}
