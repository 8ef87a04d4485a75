// Finds the moment of a clap in pictures: hands that came together fast stand still.
import type { Picture } from '../picture/picture.ts'

export const MOTION_COLUMNS = 32
export const MOTION_ROWS = 18
/** Every fourth pixel both ways is enough for a mean. */
const STRIDE = 4
/** How far from its sound a clap may be seen. */
const SEARCH_MS = 500
/** Hands stop more than once about a clap: together, and apart again. */
const MOST_STOPS = 4

/** Brightness of a picture's blocks, and when it was there. */
export interface MotionSample {
  readonly timeMs: number
  /** MOTION_COLUMNS × MOTION_ROWS means of luma, 0 … 255. */
  readonly blocks: Float32Array
}

/** Means of luma of a grid of blocks. */
export function blockMeans(picture: Picture): Float32Array {
  const { widthPx, heightPx, data, format } = picture
  const sums = new Float32Array(MOTION_COLUMNS * MOTION_ROWS)
  const counts = new Float32Array(MOTION_COLUMNS * MOTION_ROWS)
  const at = format === 'i420' ? (x: number, y: number) => data[y * widthPx + x]! : (x: number, y: number) => data[(y * widthPx + x) * 4 + 1]!
  for (let y = 0; y < heightPx; y += STRIDE) {
    const row = Math.floor((y * MOTION_ROWS) / heightPx) * MOTION_COLUMNS
    for (let x = 0; x < widthPx; x += STRIDE) {
      const block = row + Math.floor((x * MOTION_COLUMNS) / widthPx)
      sums[block]! += at(x, y)
      counts[block]! += 1
    }
  }
  return sums.map((sum, block) => sum / Math.max(1, counts[block]!))
}

/** How much moved between one sample and the next; what brightens or darkens everywhere at once does not count. */
export function motionBetween(before: MotionSample, after: MotionSample): number {
  const changes = after.blocks.map((value, block) => value - before.blocks[block]!)
  const common = [...changes].sort((first, second) => first - second)[changes.length >> 1]!
  return changes.reduce((sum, change) => sum + Math.abs(change - common), 0)
}

/** A picture as a camera sends it. */
export interface SeenPicture {
  readonly arrivalMs: number
  /** When it was taken, by the camera's own clock. */
  readonly captureMs: number
  readonly blocks: Float32Array
}

/**
 * Times at which pictures are there as a rule, on the clock of their arrival. On a busy machine one comes late and the next at
 * once; the camera's own clock is even.
 */
export function evenTimes(pictures: readonly SeenPicture[]): MotionSample[] {
  const delays = pictures.map(({ arrivalMs, captureMs }) => arrivalMs - captureMs).sort((first, second) => first - second)
  const usual = delays[delays.length >> 1] ?? 0
  return pictures.map(({ captureMs, blocks }) => ({ timeMs: captureMs + usual, blocks }))
}

/** A moment at which what moved stood still. */
export interface Stop {
  readonly timeMs: number
  /** How much less moved after it than before. */
  readonly fall: number
}

/** The strongest stops near `soundMs`, one of which may be the hands that met. */
export function stopsNear(samples: readonly MotionSample[], soundMs: number): Stop[] {
  const motion = samples.map((sample, i) => (i === 0 ? 0 : motionBetween(samples[i - 1]!, sample)))
  const falls = motion.map((now, i) => (motion[i - 1] ?? 0) + now - (motion[i + 1] ?? 0) - (motion[i + 2] ?? 0))
  const stops: Stop[] = []
  for (let i = 2; i + 2 < samples.length; i += 1) {
    const { timeMs } = samples[i]!
    const isPeak = falls[i]! > 0 && falls[i]! >= falls[i - 1]! && falls[i]! > falls[i + 1]!
    if (isPeak && Math.abs(timeMs - soundMs) <= SEARCH_MS)
      stops.push({ timeMs: timeMs + shareMoved(motion, i) * (samples[i + 1]!.timeMs - timeMs), fall: falls[i]! })
  }
  return stops.sort((first, second) => second.fall - first.fall).slice(0, MOST_STOPS)
}

/** How much of the way to the next picture the hands still moved: they near each other evenly, and then stand. */
function shareMoved(motion: readonly number[], i: number): number {
  const still = motion[i + 2]!
  const share = (motion[i + 1]! - still) / Math.max(1, motion[i]! - still)
  return Math.min(1, Math.max(0, share))
}
