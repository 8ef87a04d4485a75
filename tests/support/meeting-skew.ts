// How far sound and picture are apart where a meeting gets them. The stand-ins clap at known moments; the picture of such a
// moment is known by the frame number in it, its sound is found in what the track gives.
import { MARK_LIMIT, MARK_RATE } from '../../core/marks/frame-mark.ts'
import { SOUND_RATE } from '../../core/sound/voice-chunk.ts'
import { findClaps } from '../../core/sync/clap-sound.ts'
import type { MeetingRecord } from '../../standins/meeting/figures-window.ts'
import { quantile } from '../bench/statistics.ts'
import { CLAPS_AFTER, CUE_SECONDS } from '../../standins/presenter-timing.ts'

/** Chunks and frames about a clap that its time is judged by. */
const ABOUT_MS = 400
/** Four milliseconds: noise does not stay at nothing for as long. */
const SILENT_FRAMES = 192

/** How long a cue of claps takes, with what comes after it. */
export const RECORD_MS = (CUE_SECONDS + 1.2) * 1000

/** Picture minus sound of each clap of a cue at `cueMs`, in ms: positive when the sound comes first. */
export function skewsOf({ frames, blocks, samples }: MeetingRecord, cueMs: number): number[] {
  const claps = findClaps(Float32Array.from(samples, (code) => code / 32_768))
  const trueMs = CLAPS_AFTER.map((seconds) => cueMs + seconds * 1000)
  return claps.flatMap((clapMs) => {
    const soundMs = arrivalOf(blocks, (clapMs * SOUND_RATE) / 1000)
    const truth = trueMs.find((ms) => soundMs > ms - 100 && soundMs < ms + 500)
    if (truth === undefined) return []
    const latency = pictureLatency(frames, truth)
    return latency === null ? [] : [truth + latency - soundMs]
  })
}

/** How long the sound was cut off altogether, in ms: stretches of nothing at all, where a microphone always has its noise. */
export function silenceMs({ samples }: MeetingRecord): number {
  let silent = 0
  let run = 0
  for (const code of [...samples, 1]) {
    if (code === 0) run += 1
    else {
      if (run > SILENT_FRAMES) silent += run
      run = 0
    }
  }
  return (silent * 1000) / SOUND_RATE
}

/** When a sample is heard: a player evens out how its blocks came. */
function arrivalOf(blocks: MeetingRecord['blocks'], sample: number): number {
  let first = 0
  const starts = blocks.map(({ atMs, frames }) => {
    const start = { first, atMs: atMs - (first * 1000) / SOUND_RATE }
    first += frames
    return start
  })
  const near = starts.filter((start) => Math.abs(start.first - sample) < (ABOUT_MS * SOUND_RATE) / 1000)
  return (
    quantile(
      near.map(({ atMs }) => atMs),
      0.5,
    ) +
    (sample * 1000) / SOUND_RATE
  )
}

/** How long pictures take about a moment, from when they are due to when they come. */
function pictureLatency(frames: MeetingRecord['frames'], ms: number): number | null {
  const lapMs = (MARK_LIMIT * 1000) / MARK_RATE
  const latencies = frames.filter(({ atMs }) => Math.abs(atMs - ms) < ABOUT_MS).map(({ number, atMs }) => (atMs % lapMs) - (number * 1000) / MARK_RATE)
  return latencies.length === 0 ? null : quantile(latencies, 0.5)
}
