// Pictures drawn smaller: each pixel is the mean of what falls on it, so that thin lines keep their weight wherever they lie.
import type { Affine } from '../composite/affine.ts'
import { sampleBilinear } from './bilinear-sample.ts'
import type { FloatPicture } from './float-picture.ts'

/** How many pixels of a picture fall on one that is drawn, along its rows and down its columns; at least one. */
export interface Footprint {
  readonly across: number
  readonly down: number
}

/** Shares of a row or column of pixels, 1 together. */
export interface BoxShares {
  /** Of the pixel that has the first share. */
  readonly first: number
  readonly shares: readonly number[]
}

/** The footprint of a pixel, where `toNode` leads from what is drawn to the picture; of a turned one, of a box as long and as wide. */
export function footprintOf({ a, b, c, d }: Affine): Footprint {
  return { across: atLeastOne(Math.hypot(a, c)), down: atLeastOne(Math.hypot(b, d)) }
}

/** What is one but for rounding is one: a picture that is only turned is not made smaller. */
function atLeastOne(px: number): number {
  return px < 1 + 1e-6 ? 1 : px
}

/**
 * Which pixels of a row of `size` a box of `width` pixels covers, and how much of the box each is; `centre` in pixels, pixel centres at ½.
 * What reaches beyond the row counts as the pixel at its end. A box of one pixel is linear interpolation.
 */
export function boxShares(centre: number, width: number, size: number): BoxShares {
  const from = centre - width / 2
  const to = centre + width / 2
  const first = Math.min(size - 1, Math.max(0, Math.floor(from)))
  const last = Math.max(first, Math.min(size - 1, Math.ceil(to) - 1))
  const shares: number[] = []
  for (let pixel = first; pixel <= last; pixel += 1) {
    const start = pixel === 0 ? from : Math.max(from, pixel)
    const end = pixel === size - 1 ? to : Math.min(to, pixel + 1)
    shares.push(Math.max(0, end - start) / width)
  }
  return { first, shares }
}

/** Writes the mean of the box round (x, y) of a picture: four channels. */
export function sampleBox(picture: FloatPicture, x: number, y: number, { across, down }: Footprint, out: Float64Array): void {
  if (across === 1 && down === 1) return sampleBilinear(picture, x, y, out)
  const { widthPx, heightPx, data } = picture
  const columns = boxShares(x, across, widthPx)
  const rows = boxShares(y, down, heightPx)
  out.fill(0, 0, 4)
  rows.shares.forEach((rowShare, j) => {
    columns.shares.forEach((share, i) => {
      const at = ((rows.first + j) * widthPx + columns.first + i) * 4
      for (let channel = 0; channel < 4; channel += 1) out[channel]! += rowShare * share * data[at + channel]!
    })
  })
}
