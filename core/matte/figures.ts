// How good a keyed picture is, measured on itself: no true matte is needed. Straight alpha, bytes.
import { CB_PER_BLUE, CR_PER_RED, luma709 } from '../colour/luma.ts'
import type { Rgb } from '../colour/hex.ts'
import type { RgbaPicture } from '../picture/picture.ts'

export interface KeyFigures {
  /** Mean of the backdrop's colour left in the edge, in 8-bit codes along its hue, weighted by opacity. */
  readonly fringe: number
  /** Share of the presenter's inside that is less than 97 % opaque. */
  readonly seeThrough: number
  /** Share of the backdrop that is more than 3 % opaque. */
  readonly veil: number
  /** Share of the picture that is neither nearly clear nor nearly opaque: edge, or doubt. */
  readonly unsure: number
  /** Share of the picture that is well inside the presenter; next to nothing means that nobody is left. */
  readonly presenter: number
}

/** Less of a presenter than this is none: a face in a corner is more (common practice, no source). */
export const LEAST_PRESENTER = 0.005

/** So far from the matte's edge a pixel is inside or outside, in pixels of a picture 720 high. */
const EDGE_REACH = 8
const OPAQUE = 0.97 * 255
const CLEAR = 0.03 * 255

/** Measures a keyed picture against the backdrop's colour. */
export function keyFigures(picture: RgbaPicture, key: Rgb): KeyFigures {
  const { widthPx, heightPx, data } = picture
  const reach = Math.max(2, Math.round((EDGE_REACH * heightPx) / 720))
  const near = nearEdge(picture, reach)
  const excess = excessMeter(key)
  let inside = 0
  let thin = 0
  let outside = 0
  let veiled = 0
  let unsure = 0
  let weight = 0
  let sum = 0
  for (let i = 0; i < widthPx * heightPx; i += 1) {
    const alpha = data[i * 4 + 3]!
    if (alpha > CLEAR && alpha < OPAQUE) unsure += 1
    if (near[i] === 1) {
      if (alpha < CLEAR) continue
      weight += alpha
      sum += alpha * excess(data[i * 4]!, data[i * 4 + 1]!, data[i * 4 + 2]!)
    } else if (alpha > 127) {
      inside += 1
      if (alpha < OPAQUE) thin += 1
    } else {
      outside += 1
      if (alpha > CLEAR) veiled += 1
    }
  }
  return {
    fringe: weight === 0 ? 0 : sum / weight,
    seeThrough: inside === 0 ? 0 : thin / inside,
    veil: outside === 0 ? 0 : veiled / outside,
    unsure: unsure / (widthPx * heightPx),
    presenter: inside / (widthPx * heightPx),
  }
}

/** Codes of colour along the backdrop's hue, beyond half of what lies across it; 0 for none. */
function excessMeter([red, green, blue]: Rgb): (red: number, green: number, blue: number) => number {
  const luma = luma709(red, green, blue)
  const cb = (blue - luma) * CB_PER_BLUE
  const cr = (red - luma) * CR_PER_RED
  const strength = Math.hypot(cb, cr)
  if (strength < 0.02) return () => 0
  const alongCb = cb / strength
  const alongCr = cr / strength
  return (r, g, b) => {
    const y = luma709(r, g, b)
    const u = (b - y) * CB_PER_BLUE
    const v = (r - y) * CR_PER_RED
    return Math.max(0, u * alongCb + v * alongCr - 0.5 * Math.abs(u * alongCr - v * alongCb))
  }
}

/** 1 within `reach` pixels, across or down, of where opacity passes one half. */
function nearEdge({ widthPx, heightPx, data }: RgbaPicture, reach: number): Uint8Array {
  const edge = new Uint8Array(widthPx * heightPx)
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const i = y * widthPx + x
      const isIn = data[i * 4 + 3]! > 127
      if ((x > 0 && data[i * 4 - 1]! > 127 !== isIn) || (y > 0 && data[(i - widthPx) * 4 + 3]! > 127 !== isIn)) edge[i] = 1
    }
  }
  return spread(spread(edge, widthPx, heightPx, 1, widthPx, reach), heightPx, widthPx, widthPx, 1, reach)
}

function spread(from: Uint8Array, length: number, lines: number, step: number, lineStep: number, reach: number): Uint8Array {
  const out = new Uint8Array(from.length)
  for (let line = 0; line < lines; line += 1) {
    let left = 0
    // Once forwards and once backwards: each mark lasts for `reach` more.
    for (let i = 0; i < length; i += 1) {
      const at = line * lineStep + i * step
      if (from[at] === 1) left = reach + 1
      if (left > 0) {
        out[at] = 1
        left -= 1
      }
    }
    left = 0
    for (let i = length - 1; i >= 0; i -= 1) {
      const at = line * lineStep + i * step
      if (from[at] === 1) left = reach + 1
      if (left > 0) {
        out[at] = 1
        left -= 1
      }
    }
  }
  return out
}
