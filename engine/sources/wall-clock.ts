import type { WallClock } from '../../core/text/fields.ts'

/** The clock on the wall for a stage whose clock stands at `nowMs`. */
export function wallAt(nowMs: number): WallClock {
  const epochMs = Date.now()
  return { epochMs: epochMs - nowMs, utcOffsetMin: -new Date(epochMs).getTimezoneOffset(), locale: 'en-GB' }
}
