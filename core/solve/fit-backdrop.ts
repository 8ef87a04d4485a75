// Finds the cloth in a picture and how its light changes over it. Straight sRGB-encoded bytes.
import type { Rgb } from '../colour/hex.ts'
import { CB_PER_BLUE, CR_PER_RED, LUMA_B, LUMA_G, LUMA_R } from '../colour/luma.ts'
import { SURFACE_NUMBERS, SURFACE_TERMS, surfaceColour } from '../matte/backdrop.ts'
import type { RgbaPicture } from '../picture/picture.ts'

/** Every third pixel of every third row. */
const STEP = 3
/** Cloth has at least this much colour (of ½) in the hint's direction. */
const LEAST_CHROMA = 0.045
/** Colour across the hint's direction, per colour along it, that still is the hint's hue. */
const HUE_REACH = 0.55
const HISTOGRAM_CELLS = 64
/** Fewer samples than this share of the picture are no cloth. */
const LEAST_SHARE = 0.04
const ROUNDS = 4
/** Pulls slopes and bends towards none where the cloth seen says little about them. */
const RIDGE = 0.01
/** Share of samples that may lie outside the bounds kept with a surface. */
const TRIM = 0.01

/** A cloth as it was found. */
export interface FoundCloth {
  /** Its colour where most of it is. */
  readonly colour: Rgb
  /** Surface numbers as the key step keeps them. */
  readonly surface: readonly number[]
  /** Brightest over darkest place of the surface. */
  readonly unevenness: number
  /** Root mean square distance of the cloth from the surface, in 8-bit codes: grain and creases. */
  readonly roughness: number
  /** Share of the picture that is cloth. */
  readonly share: number
}

/** The cloth nearest in hue to `hint`; null when there is none. */
export function findCloth(picture: RgbaPicture, hint: Rgb): FoundCloth | null {
  const samples = clothSamples(picture, hint)
  const looked = Math.ceil(picture.widthPx / STEP) * Math.ceil(picture.heightPx / STEP)
  if (samples.length < looked * LEAST_SHARE) return null
  const peak = commonest(samples)
  let kept = samples.filter((sample) => Math.hypot(sample.cb - peak.cb, sample.cr - peak.cr) < 0.5 * Math.hypot(peak.cb, peak.cr))
  let surface: number[] = []
  for (let round = 0; round < ROUNDS; round += 1) {
    surface = fitSurface(kept)
    const distances = kept.map((sample) => distanceTo(surface, sample))
    const typical = quantile(distances, 0.5)
    const limit = Math.max(4 / 255, 4 * typical)
    const next = kept.filter((_, i) => distances[i]! <= limit)
    if (next.length < looked * LEAST_SHARE || next.length === kept.length) break
    kept = next
  }
  const squares = kept.reduce((sum, sample) => sum + distanceTo(surface, sample) ** 2, 0)
  const lumas = kept.map((sample) => surfaceLuma(surface, sample.x, sample.y))
  return {
    colour: meanNear(kept, peak),
    surface,
    unevenness: quantile(lumas, 0.995) / Math.max(1e-3, quantile(lumas, 0.005)),
    roughness: Math.sqrt(squares / kept.length) * 255,
    share: kept.length / looked,
  }
}

interface Sample {
  readonly x: number
  readonly y: number
  readonly red: number
  readonly green: number
  readonly blue: number
  readonly cb: number
  readonly cr: number
}

function clothSamples(picture: RgbaPicture, hint: Rgb): Sample[] {
  const { widthPx, heightPx, data } = picture
  const hintLuma = LUMA_R * hint[0] + LUMA_G * hint[1] + LUMA_B * hint[2]
  const hintCb = (hint[2] - hintLuma) * CB_PER_BLUE
  const hintCr = (hint[0] - hintLuma) * CR_PER_RED
  const strength = Math.hypot(hintCb, hintCr)
  const samples: Sample[] = []
  if (strength < 0.02) return samples
  for (let y = 0; y < heightPx; y += STEP) {
    for (let x = 0; x < widthPx; x += STEP) {
      const at = (y * widthPx + x) * 4
      if (data[at + 3]! < 250) continue
      const red = data[at]! / 255
      const green = data[at + 1]! / 255
      const blue = data[at + 2]! / 255
      const luma = LUMA_R * red + LUMA_G * green + LUMA_B * blue
      const cb = (blue - luma) * CB_PER_BLUE
      const cr = (red - luma) * CR_PER_RED
      const along = (cb * hintCb + cr * hintCr) / strength
      const across = Math.abs(cb * hintCr - cr * hintCb) / strength
      if (along < LEAST_CHROMA || across > HUE_REACH * along) continue
      samples.push({ x: ((x + 0.5) / widthPx) * 2 - 1, y: ((y + 0.5) / heightPx) * 2 - 1, red, green, blue, cb, cr })
    }
  }
  return samples
}

/** The colour difference that most samples have, stronger ones counting more: cloth is stronger than its spill. */
function commonest(samples: readonly Sample[]): { readonly cb: number; readonly cr: number } {
  const counts = new Float64Array(HISTOGRAM_CELLS * HISTOGRAM_CELLS)
  const cellOf = (value: number) => Math.min(HISTOGRAM_CELLS - 1, Math.max(0, Math.floor((value + 0.5) * HISTOGRAM_CELLS)))
  for (const { cb, cr } of samples) counts[cellOf(cr) * HISTOGRAM_CELLS + cellOf(cb)]! += Math.hypot(cb, cr)
  let best = 0
  for (let i = 0; i < counts.length; i += 1) if (counts[i]! > counts[best]!) best = i
  return { cb: ((best % HISTOGRAM_CELLS) + 0.5) / HISTOGRAM_CELLS - 0.5, cr: (Math.floor(best / HISTOGRAM_CELLS) + 0.5) / HISTOGRAM_CELLS - 0.5 }
}

function meanNear(samples: readonly Sample[], peak: { readonly cb: number; readonly cr: number }): Rgb {
  const near = samples.filter((sample) => Math.hypot(sample.cb - peak.cb, sample.cr - peak.cr) < 2 / HISTOGRAM_CELLS)
  const list = near.length > 0 ? near : samples
  const sum = [0, 0, 0]
  for (const { red, green, blue } of list) {
    sum[0]! += red
    sum[1]! += green
    sum[2]! += blue
  }
  return [sum[0]! / list.length, sum[1]! / list.length, sum[2]! / list.length]
}

/** Least squares of a quadratic surface per channel, with a ridge on all but its height. */
function fitSurface(samples: readonly Sample[]): number[] {
  const normal = Array.from({ length: SURFACE_TERMS }, () => new Float64Array(SURFACE_TERMS))
  const right = [0, 1, 2].map(() => new Float64Array(SURFACE_TERMS))
  for (const { x, y, red, green, blue } of samples) {
    const terms = [1, x, y, x * x, x * y, y * y]
    const values = [red, green, blue]
    for (let row = 0; row < SURFACE_TERMS; row += 1) {
      for (let column = 0; column < SURFACE_TERMS; column += 1) normal[row]![column]! += terms[row]! * terms[column]!
      for (let channel = 0; channel < 3; channel += 1) right[channel]![row]! += terms[row]! * values[channel]!
    }
  }
  for (let term = 1; term < SURFACE_TERMS; term += 1) normal[term]![term]! += RIDGE * samples.length
  const surface: number[] = []
  for (let channel = 0; channel < 3; channel += 1) surface.push(...solveLinear(normal, right[channel]!))
  const bounds = (['red', 'green', 'blue'] as const).map((name) => {
    const values = samples.map((sample) => sample[name])
    return [quantile(values, TRIM), quantile(values, 1 - TRIM)] as const
  })
  surface.push(...bounds.map(([least]) => least), ...bounds.map(([, most]) => most))
  if (surface.length !== SURFACE_NUMBERS) throw new RangeError(`a surface has ${SURFACE_NUMBERS} numbers, got ${surface.length}`)
  return surface.map((value) => Math.round(value * 1e5) / 1e5)
}

/** Gaussian elimination with partial pivoting. */
function solveLinear(matrix: readonly Float64Array[], right: Float64Array): number[] {
  const size = right.length
  const rows = matrix.map((row, i) => [...row, right[i]!])
  for (let column = 0; column < size; column += 1) {
    let pivot = column
    for (let row = column + 1; row < size; row += 1) if (Math.abs(rows[row]![column]!) > Math.abs(rows[pivot]![column]!)) pivot = row
    ;[rows[column], rows[pivot]] = [rows[pivot]!, rows[column]!]
    for (let row = column + 1; row < size; row += 1) {
      const factor = rows[row]![column]! / rows[column]![column]!
      for (let k = column; k <= size; k += 1) rows[row]![k]! -= factor * rows[column]![k]!
    }
  }
  const out = new Array<number>(size).fill(0)
  for (let row = size - 1; row >= 0; row -= 1) {
    let sum = rows[row]![size]!
    for (let k = row + 1; k < size; k += 1) sum -= rows[row]![k]! * out[k]!
    out[row] = sum / rows[row]![row]!
  }
  return out
}

const scratch = [0, 0, 0]

function distanceTo(surface: readonly number[], { x, y, red, green, blue }: Sample): number {
  surfaceColour(surface, x, y, scratch)
  return Math.hypot(red - scratch[0]!, green - scratch[1]!, blue - scratch[2]!)
}

function surfaceLuma(surface: readonly number[], x: number, y: number): number {
  surfaceColour(surface, x, y, scratch)
  return LUMA_R * scratch[0]! + LUMA_G * scratch[1]! + LUMA_B * scratch[2]!
}

/** The value that `share` of the list lies below; 0 for an empty list. */
export function quantile(values: readonly number[], share: number): number {
  if (values.length === 0) return 0
  const sorted = Float64Array.from(values).sort()
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!
}
