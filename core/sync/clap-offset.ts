// How far sound and picture are apart, by several claps that agree.
import { stopsNear, type MotionSample } from './clap-picture.ts'

/** Claps that are further from the others than this were seen wrong. */
const AGREE_MS = 40
/** Fewer claps that agree prove nothing. */
const LEAST_CLAPS = 3

export interface ClapOffset {
  /** Picture minus sound, in ms: positive when the sound comes first and has to wait. */
  readonly offsetMs: number
  /** Largest distance of a clap that agrees from the median. */
  readonly spreadMs: number
  readonly claps: number
}

/**
 * The offset, or how many claps agreed when they were too few. Times are of one clock. Each clap names the moments at which
 * something stopped near it; the distance that most of them share, and share most strongly, is the true one.
 */
export function offsetOf(soundMs: readonly number[], samples: readonly MotionSample[]): ClapOffset | { readonly claps: number } {
  const named = soundMs.map((timeMs) => {
    const stops = stopsNear(samples, timeMs)
    const strongest = stops[0]?.fall ?? 1
    return stops.map((stop) => ({ offset: stop.timeMs - timeMs, weight: stop.fall / strongest }))
  })
  let best: { readonly offsets: readonly number[]; readonly weight: number } = { offsets: [], weight: 0 }
  for (const { offset } of named.flat()) {
    const near = named.flatMap((stops) => {
      const agreeing = stops.filter((stop) => Math.abs(stop.offset - offset) <= AGREE_MS)
      return agreeing.length === 0 ? [] : [agreeing.reduce((nearest, stop) => (stop.weight > nearest.weight ? stop : nearest))]
    })
    const weight = near.reduce((sum, stop) => sum + stop.weight, 0)
    if (weight > best.weight) best = { offsets: near.map((stop) => stop.offset), weight }
  }
  if (best.offsets.length < LEAST_CLAPS) return { claps: best.offsets.length }
  const offsetMs = medianOf(best.offsets)
  return { offsetMs, spreadMs: Math.max(...best.offsets.map((offset) => Math.abs(offset - offsetMs))), claps: best.offsets.length }
}

function medianOf(values: readonly number[]): number {
  const sorted = [...values].sort((first, second) => first - second)
  const middle = sorted.length >> 1
  return sorted.length % 2 === 1 ? sorted[middle]! : ((sorted[middle - 1] ?? 0) + (sorted[middle] ?? 0)) / 2
}
