// The oracle: runs a frame plan on doubles, exactly and slowly. Premultiplied between steps.
import { mapPoint } from '../composite/affine.ts'
import { roundedRectCoverage } from '../composite/coverage.ts'
import { sourceOver } from '../composite/source-over.ts'
import type { Picture, RgbaPicture } from '../picture/picture.ts'
import type { Draw, FramePlan, SourceId } from '../plan/frame-plan.ts'
import { sampleBilinear } from '../picture/bilinear-sample.ts'
import { clamp01, type FloatPicture } from '../picture/float-picture.ts'
import { halve } from '../picture/halve.ts'
import { premultiply } from '../picture/premultiply.ts'
import { treatReference, type TreatAids } from './treat-reference.ts'

/** Pictures by source; a plan's draws must all be found here. */
export type SourcePictures = ReadonlyMap<SourceId, Picture>

/** Renders a plan over its ground; premultiplied. Throws a RangeError when a source has no picture. */
export function renderReference(plan: FramePlan, sources: SourcePictures, aidsOf: (sourceId: SourceId) => TreatAids = () => ({})): FloatPicture {
  const data = new Float64Array(plan.widthPx * plan.heightPx * 4)
  if (plan.ground === 'black') for (let at = 3; at < data.length; at += 4) data[at] = 1
  const treated = new Map<string, FloatPicture>()
  for (const draw of plan.draws) drawReference(plan, draw, treatedFor(draw, sources, treated, aidsOf(draw.sourceId)), data)
  return { widthPx: plan.widthPx, heightPx: plan.heightPx, data }
}

function treatedFor(draw: Draw, sources: SourcePictures, treated: Map<string, FloatPicture>, aids: TreatAids): FloatPicture {
  const key = `${draw.treatedKey} /${draw.halvings}`
  const known = treated.get(key)
  if (known !== undefined) return known
  const picture = sources.get(draw.sourceId)
  if (picture === undefined) throw new RangeError(`the plan needs source "${draw.sourceId}", which has no picture`)
  let result = premultiply(treatReference(picture, draw.steps, aids))
  for (let i = 0; i < draw.halvings; i += 1) result = halve(result)
  treated.set(key, result)
  return result
}

function drawReference(plan: FramePlan, draw: Draw, picture: FloatPicture, out: Float64Array): void {
  const { bounds, frame } = draw
  const sample = new Float64Array(4)
  for (let y = bounds.top; y < bounds.bottom; y += 1) {
    for (let x = bounds.left; x < bounds.right; x += 1) {
      const [frameX, frameY] = mapPoint(draw.toFrame, x + 0.5, y + 0.5)
      const coverage = roundedRectCoverage(frameX, frameY, frame.width, frame.height, frame.cornerRadius)
      if (coverage === 0) continue
      const [sourceX, sourceY] = mapPoint(draw.toSource, x + 0.5, y + 0.5)
      sampleBilinear(picture, sourceX, sourceY, sample)
      sourceOver(out, (y * plan.widthPx + x) * 4, sample, 0, coverage * draw.opacity)
    }
  }
}

/** Eight-bit RGBA of a float picture, rounded to nearest, values beyond 0..1 at the ends; a pixel without opacity is all zero. */
export function toRgba8(picture: FloatPicture): RgbaPicture {
  const data = new Uint8Array(picture.data.length)
  for (let at = 0; at < data.length; at += 4) {
    const alpha = byteOf(picture.data[at + 3]!)
    if (alpha === 0) continue
    for (let channel = 0; channel < 3; channel += 1) data[at + channel] = byteOf(picture.data[at + channel]!)
    data[at + 3] = alpha
  }
  return { format: 'rgba', widthPx: picture.widthPx, heightPx: picture.heightPx, data }
}

function byteOf(value: number): number {
  return Math.round(clamp01(value) * 255)
}
