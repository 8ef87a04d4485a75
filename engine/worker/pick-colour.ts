import { activeSteps } from '../../core/steps/treatment.ts'
import type { Rgb } from '../../core/colour/hex.ts'
import type { Picture } from '../../core/picture/picture.ts'
import { i420Reader } from '../../core/picture/i420.ts'
import type { Step } from '../../core/show/show.ts'
import { plainContext, prepareChain } from '../../core/steps/chain.ts'

const RADIUS_PX = 6

/**
 * The mean colour in a small square about (x, y), 0..1 across the picture, as it looks when it
 * reaches the step `beforeStepId` (null: untreated), so that a pick after a correction still fits.
 */
export function pickColour(picture: Picture, treatment: readonly Step[], beforeStepId: string | null, x: number, y: number): Rgb {
  const until = treatment.findIndex((step) => step.id === beforeStepId)
  // Where colours are looked at one by one, steps that move or blur the picture make no difference.
  const { runs } = prepareChain(activeSteps(until < 0 ? [] : treatment.slice(0, until)), plainContext(picture.widthPx, picture.heightPx))
  const points = runs.flatMap((run) => run.points)
  const read = pixelReader(picture)
  const pixel = new Float64Array(4)
  const sum = [0, 0, 0]
  let count = 0
  const centreX = Math.floor(x * picture.widthPx)
  const centreY = Math.floor(y * picture.heightPx)
  for (let row = centreY - RADIUS_PX; row <= centreY + RADIUS_PX; row += 1) {
    for (let column = centreX - RADIUS_PX; column <= centreX + RADIUS_PX; column += 1) {
      if (row < 0 || column < 0 || row >= picture.heightPx || column >= picture.widthPx) continue
      read(column, row, pixel)
      pixel[3] = 1
      for (const point of points) point(pixel)
      for (let channel = 0; channel < 3; channel += 1) sum[channel] = sum[channel]! + pixel[channel]!
      count += 1
    }
  }
  if (count === 0) return [0, 0, 0]
  return [sum[0]! / count, sum[1]! / count, sum[2]! / count]
}

function pixelReader(picture: Picture): (x: number, y: number, out: Float64Array) => void {
  if (picture.format === 'i420') return i420Reader(picture)
  return (x, y, out) => {
    const at = (y * picture.widthPx + x) * 4
    for (let channel = 0; channel < 3; channel += 1) out[channel] = picture.data[at + channel]! / 255
  }
}
