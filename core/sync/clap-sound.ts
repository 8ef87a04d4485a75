// Finds claps in sound: a sudden rise in the high frequencies that dies away at once.
import { SOUND_RATE } from '../sound/voice-chunk.ts'

const FRAMES_A_MS = SOUND_RATE / 1000
/** The rise: the next 4 ms against the previous 40. */
const RISE_MS = 4
const QUIET_MS = 40
/** How many times louder the rise must be, as an energy. */
const LEAST_RISE = 30
/** Where it must have died away, and to what share. */
const DEAD_AFTER_MS = 60
const DEAD_SHARE = 0.25
/** Nobody claps faster. */
const LEAST_GAP_MS = 250
/** Energy of the noise of a quiet microphone; what is softer is silence. */
const FLOOR = 1e-7

/** Times of claps in mono samples at 48 kHz, in ms from their beginning, in order. */
export function findClaps(samples: Float32Array): number[] {
  const energies = differenceEnergies(samples)
  const found: { readonly atMs: number; readonly rise: number }[] = []
  for (let ms = QUIET_MS; ms + DEAD_AFTER_MS + RISE_MS < energies.length; ms += 1) {
    const loud = meanOf(energies, ms, RISE_MS)
    const rise = loud / (meanOf(energies, ms - QUIET_MS, QUIET_MS) + FLOOR)
    if (rise < LEAST_RISE || meanOf(energies, ms + DEAD_AFTER_MS, RISE_MS) > loud * DEAD_SHARE) continue
    const last = found.at(-1)
    if (last === undefined || ms - last.atMs >= LEAST_GAP_MS) found.push({ atMs: ms, rise })
    else if (rise > last.rise) found[found.length - 1] = { atMs: ms, rise }
  }
  return found.map(({ atMs }) => atMs)
}

/** Energy of the first difference, which favours the high frequencies of a clap, per millisecond. */
function differenceEnergies(samples: Float32Array): Float32Array {
  const energies = new Float32Array(Math.floor(samples.length / FRAMES_A_MS))
  for (let ms = 0; ms < energies.length; ms += 1) {
    let sum = 0
    for (let i = Math.max(1, ms * FRAMES_A_MS); i < (ms + 1) * FRAMES_A_MS; i += 1) sum += (samples[i]! - samples[i - 1]!) ** 2
    energies[ms] = sum / FRAMES_A_MS
  }
  return energies
}

function meanOf(values: Float32Array, from: number, length: number): number {
  let sum = 0
  for (let i = from; i < from + length; i += 1) sum += values[i]!
  return sum / length
}
