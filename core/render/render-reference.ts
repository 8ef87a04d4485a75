// The oracle: runs a frame plan on doubles, exactly and slowly. Premultiplied between steps.
import type { SourceId } from '../picture/source.ts'
import { compose } from '../blend/compose.ts'
import { luma709 } from '../colour/luma.ts'
import { mapPoint } from '../composite/affine.ts'
import { coverageAt, edgeRevealAt, type Coverage } from '../composite/coverage.ts'
import { gradientAt } from '../paint/gradient.ts'
import { sampleBilinear } from '../picture/bilinear-sample.ts'
import { clamp01, type FloatPicture } from '../picture/float-picture.ts'
import { footprintOf, sampleBox } from '../picture/box-sample.ts'
import { halve } from '../picture/halve.ts'
import type { Picture, RgbaPicture } from '../picture/picture.ts'
import { premultiply, unpremultiply } from '../picture/premultiply.ts'
import type { FramePlan, Item, NodeIndex, OutputId, PlanNode, StackNode, TreatedNode } from '../plan/frame-plan.ts'
import { treatFloat, treatReference, type TreatAids } from './treat-reference.ts'

/** Pictures by source; all that a plan's nodes read must be found here. */
export type SourcePictures = ReadonlyMap<SourceId, Picture>

/** What a treatment needs beside its picture: of a source, or of a picture of the plan (null) of that size. */
export type AidsOf = (sourceId: SourceId | null, widthPx: number, heightPx: number) => TreatAids

/** Renders the roots of a plan; premultiplied. Throws a RangeError when a source has no picture. */
export function renderOutputs(plan: FramePlan, sources: SourcePictures, aidsOf: AidsOf = () => ({})): Map<OutputId, FloatPicture> {
  const treated = new Map<string, FloatPicture>()
  const made: FloatPicture[] = []
  for (const node of plan.nodes) made.push(renderNode(node, made))
  return new Map(Object.entries(plan.outputs).map(([id, index]) => [id, made[index]!]))

  function renderNode(node: PlanNode, before: readonly FloatPicture[]): FloatPicture {
    switch (node.kind) {
      case 'treated':
        return treatedFor(node)
      case 'filtered':
        return premultiply(treatFloat(unpremultiply(before[node.of]!), node.steps, aidsOf(null, node.widthPx, node.heightPx)))
      case 'stack':
        return renderStack(node, before)
      default:
        return node satisfies never
    }
  }

  function treatedFor({ treatedKey, mipLevel, sourceId, steps }: TreatedNode): FloatPicture {
    const key = `${treatedKey} /${mipLevel}`
    const known = treated.get(key)
    if (known !== undefined) return known
    const picture = sources.get(sourceId)
    if (picture === undefined) throw new RangeError(`the plan needs source "${sourceId}", which has no picture`)
    let result = premultiply(treatReference(picture, steps, aidsOf(sourceId, picture.widthPx, picture.heightPx)))
    for (let i = 0; i < mipLevel; i += 1) result = halve(result)
    treated.set(key, result)
    return result
  }
}

/** The only root of a plan that has one. */
export function renderReference(plan: FramePlan, sources: SourcePictures, aidsOf?: AidsOf): FloatPicture {
  return renderOutputs(plan, sources, aidsOf).values().next().value!
}

function renderStack({ widthPx, heightPx, ground, items }: StackNode, before: readonly FloatPicture[]): FloatPicture {
  const data = new Float64Array(widthPx * heightPx * 4)
  if (ground === 'black') for (let at = 3; at < data.length; at += 4) data[at] = 1
  const out = { widthPx, heightPx, data }
  for (const item of items) drawReference(item, before, out)
  return out
}

function drawReference(item: Item, before: readonly FloatPicture[], out: FloatPicture): void {
  const { bounds, coverage, toCoverage, opacity, blend } = item
  const paint = painter(item, before)
  const pixel = new Float64Array(4)
  for (let y = bounds.top; y < bounds.bottom; y += 1) {
    for (let x = bounds.left; x < bounds.right; x += 1) {
      const [atX, atY] = mapPoint(toCoverage, x + 0.5, y + 0.5)
      const share = coverageAt(coverage, atX, atY, toCoverage.a, toCoverage.c)
      if (share === 0) continue
      const seen = share * revealAt(coverage.reveal, before, x + 0.5, y + 0.5) * opacity
      if (seen === 0) continue
      paint(x + 0.5, y + 0.5, pixel)
      compose(blend, out.data, (y * out.widthPx + x) * 4, pixel, 0, seen)
    }
  }
}

/** Writes the premultiplied colour of an item at a point of its stack. */
function painter({ paint }: Item, before: readonly FloatPicture[]): (x: number, y: number, out: Float64Array) => void {
  if (paint.kind === 'node') {
    const { toNode } = paint
    const picture = before[paint.node]!
    const footprint = footprintOf(toNode)
    return (x, y, out) => sampleBox(picture, ...mapPoint(toNode, x, y), footprint, out)
  }
  if (paint.kind === 'gradient') {
    const { gradient, toGradient } = paint
    return (x, y, out) => gradientAt(gradient, ...mapPoint(toGradient, x, y), out)
  }
  const { colour, opacity } = paint
  return (_x, _y, out) => {
    for (let channel = 0; channel < 3; channel += 1) out[channel] = colour[channel]! * opacity
    out[3] = opacity
  }
}

const seen = new Float64Array(4)

function revealAt(reveal: Coverage['reveal'], before: readonly FloatPicture[], x: number, y: number): number {
  if (reveal === null) return 1
  if (reveal.kind === 'edge') return edgeRevealAt(reveal, x, y)
  sampleBilinear(before[reveal.node as NodeIndex]!, ...mapPoint(reveal.toNode, x, y), seen)
  return clamp01((reveal.level - luma709(seen[0]!, seen[1]!, seen[2]!)) * reveal.slope + 0.5)
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
