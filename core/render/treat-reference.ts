// Straight alpha, sRGB-encoded, float, origin top left: what the live executors are measured against.
import { blankPicture, clamp01, type FloatPicture } from '../picture/float-picture.ts'
import type { Picture } from '../picture/picture.ts'
import { i420Reader } from '../picture/i420.ts'
import { plainContext, prepareChain, type Run } from '../steps/chain.ts'
import type { StepCall } from '../steps/index.ts'
import type { FrameAids, StepContext } from '../steps/step.ts'

/** What a treatment may need beside picture and values; all optional. */
export interface TreatAids {
  readonly context?: StepContext
  readonly person?: FrameAids['person']
  /** What each temporal work made of the frame before, by its place among the runs; filled in for the next frame. */
  readonly memory?: Map<number, FloatPicture>
}

/** Runs a chain of steps on a picture, exactly; straight alpha in and out. */
export function treatReference(picture: Picture, calls: readonly StepCall[], aids: TreatAids = {}): FloatPicture {
  return treatFloat(readPicture(picture), calls, aids)
}

/** The same on a picture of doubles, which it may change in place. */
export function treatFloat(picture: FloatPicture, calls: readonly StepCall[], aids: TreatAids = {}): FloatPicture {
  const { widthPx, heightPx } = picture
  const { runs } = prepareChain(calls, aids.context ?? plainContext(widthPx, heightPx))
  let current = picture
  let person = aids.person ?? null
  runs.forEach((run, index) => {
    runPoints(current, run)
    if (run.then === null) return
    const before = run.then.isTemporal ? (aids.memory?.get(index) ?? null) : null
    current = run.then.treat(current, { person, before })
    if (person !== null && run.then.moveMask !== undefined) person = run.then.moveMask(person)
    if (run.then.isTemporal) aids.memory?.set(index, { ...current, data: current.data.slice() })
  })
  return current
}

function runPoints({ widthPx, heightPx, data }: FloatPicture, { keep, points }: Run): void {
  const pixel = new Float64Array(4)
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const at = (y * widthPx + x) * 4
      if (x < keep.left || x >= keep.right || y < keep.top || y >= keep.bottom) {
        data.fill(0, at, at + 4)
        continue
      }
      for (let channel = 0; channel < 4; channel += 1) pixel[channel] = data[at + channel]!
      for (const point of points) point(pixel)
      for (let channel = 0; channel < 4; channel += 1) data[at + channel] = clamp01(pixel[channel]!)
    }
  }
}

/** Any picture as doubles of 0..1. */
function readPicture(picture: Picture): FloatPicture {
  const { widthPx, heightPx } = picture
  const out = blankPicture(widthPx, heightPx)
  if (picture.format === 'rgba') {
    for (let i = 0; i < out.data.length; i += 1) out.data[i] = picture.data[i]! / 255
    return out
  }
  const read = i420Reader(picture)
  const pixel = new Float64Array(4)
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      read(x, y, pixel)
      pixel[3] = 1
      out.data.set(pixel, (y * widthPx + x) * 4)
    }
  }
  return out
}
