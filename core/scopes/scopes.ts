// What the scopes show, counted from a picture: histogram, waveform, vectorscope, clipping. Straight or opaque bytes.
import { ycbcrCoding, rgbToYcbcr } from '../colour/ycbcr.ts'
import { luma709 } from '../colour/luma.ts'
import type { RgbaPicture } from '../picture/picture.ts'

/** Pixels per 8-bit code. */
export interface Histogram {
  readonly red: Uint32Array
  readonly green: Uint32Array
  readonly blue: Uint32Array
  readonly luma: Uint32Array
}

/** Counts over a grid; row 0 is the top. */
export interface CountGrid {
  readonly columns: number
  readonly rows: number
  readonly counts: Uint32Array
}

/** Share of pixels with a channel at its end. */
export interface Clipping {
  readonly black: number
  readonly white: number
}

/** Codes up to here are black, from there on white: one code of room for rounding. */
export const CLIP_LOW = 1
export const CLIP_HIGH = 254

/** Counts every `step`-th pixel of every `step`-th row that is at least half opaque. */
export function histogramOf({ widthPx, heightPx, data }: RgbaPicture, step = 1): Histogram {
  const red = new Uint32Array(256)
  const green = new Uint32Array(256)
  const blue = new Uint32Array(256)
  const luma = new Uint32Array(256)
  for (let y = 0; y < heightPx; y += step) {
    for (let x = 0; x < widthPx; x += step) {
      const at = (y * widthPx + x) * 4
      if (data[at + 3]! < 128) continue
      red[data[at]!]! += 1
      green[data[at + 1]!]! += 1
      blue[data[at + 2]!]! += 1
      luma[Math.round(luma709(data[at]!, data[at + 1]!, data[at + 2]!))]! += 1
    }
  }
  return { red, green, blue, luma }
}

/** Luma codes per column of the picture, the picture's width stretched over `columns`; row 0 is code 255. */
export function waveformOf({ widthPx, heightPx, data }: RgbaPicture, columns: number, step = 1): CountGrid {
  const counts = new Uint32Array(columns * 256)
  for (let y = 0; y < heightPx; y += step) {
    for (let x = 0; x < widthPx; x += step) {
      const at = (y * widthPx + x) * 4
      if (data[at + 3]! < 128) continue
      const code = Math.round(luma709(data[at]!, data[at + 1]!, data[at + 2]!))
      const row = (255 - code) * columns
      // A column of a picture that is narrower than the waveform fills all the columns that it spans.
      const from = Math.floor((x * columns) / widthPx)
      const to = Math.max(from + 1, Math.floor(((x + step) * columns) / widthPx))
      for (let column = from; column < Math.min(columns, to); column += 1) counts[row + column]! += 1
    }
  }
  return { columns, rows: 256, counts }
}

const CODING = ycbcrCoding('bt709', 'limited')

/** Colour differences (BT.709, 8-bit limited range): Cb to the right, Cr upwards, a code a cell. */
export function vectorscopeOf({ widthPx, heightPx, data }: RgbaPicture, step = 1): CountGrid {
  const counts = new Uint32Array(256 * 256)
  const codes = new Float64Array(3)
  for (let y = 0; y < heightPx; y += step) {
    for (let x = 0; x < widthPx; x += step) {
      const at = (y * widthPx + x) * 4
      if (data[at + 3]! < 128) continue
      rgbToYcbcr(CODING, data[at]! / 255, data[at + 1]! / 255, data[at + 2]! / 255, codes)
      counts[(255 - Math.round(codes[2]!)) * 256 + Math.round(codes[1]!)]! += 1
    }
  }
  return { columns: 256, rows: 256, counts }
}

/** Shares of the opaque pixels with at least one channel at an end. */
export function clippingOf({ widthPx, heightPx, data }: RgbaPicture, step = 1): Clipping {
  let total = 0
  let black = 0
  let white = 0
  for (let y = 0; y < heightPx; y += step) {
    for (let x = 0; x < widthPx; x += step) {
      const at = (y * widthPx + x) * 4
      if (data[at + 3]! < 128) continue
      total += 1
      // All channels down, or any channel up, is where detail is lost.
      if (data[at]! <= CLIP_LOW && data[at + 1]! <= CLIP_LOW && data[at + 2]! <= CLIP_LOW) black += 1
      if (data[at]! >= CLIP_HIGH || data[at + 1]! >= CLIP_HIGH || data[at + 2]! >= CLIP_HIGH) white += 1
    }
  }
  return total === 0 ? { black: 0, white: 0 } : { black: black / total, white: white / total }
}

/** A place on the vectorscope: degrees from Cb towards Cr, and distance in units where full scale is ½. */
export interface VectorTarget {
  readonly name: 'red' | 'magenta' | 'blue' | 'cyan' | 'green' | 'yellow'
  readonly angleDeg: number
  readonly magnitude: number
}

const BARS: Readonly<Record<VectorTarget['name'], readonly [number, number, number]>> = {
  red: [1, 0, 0],
  magenta: [1, 0, 1],
  blue: [0, 0, 1],
  cyan: [0, 1, 1],
  green: [0, 1, 0],
  yellow: [1, 1, 0],
}

/** Where 75 % colour bars fall (BT.709). */
export function vectorTargets(amplitude = 0.75): readonly VectorTarget[] {
  const codes = new Float64Array(3)
  return (Object.keys(BARS) as VectorTarget['name'][]).map((name) => {
    const [red, green, blue] = BARS[name]
    rgbToYcbcr(CODING, red * amplitude, green * amplitude, blue * amplitude, codes)
    const cb = (codes[1]! - 128) / CODING.chromaScale
    const cr = (codes[2]! - 128) / CODING.chromaScale
    return { name, angleDeg: ((Math.atan2(cr, cb) * 180) / Math.PI + 360) % 360, magnitude: Math.hypot(cb, cr) }
  })
}

/** Where skin of any shade falls, within a few degrees (common practice, no source). */
export const SKIN_ANGLE_DEG = 123
