// Seeded plans of every sort of item: what the live executors are held to the reference on. Runs in browsers too.
import { blendModes, type BlendName } from '../../core/blend/index.ts'
import { followedBy, inverse, rotation, scaling, translation, type Affine } from '../../core/composite/affine.ts'
import type { Coverage } from '../../core/composite/coverage.ts'
import type { Shape } from '../../core/composite/shape.ts'
import { mappedBounds } from '../../core/box/placement.ts'
import type { GradientStop } from '../../core/paint/gradient.ts'
import type { Picture } from '../../core/picture/picture.ts'
import type { FramePlan, NodeIndex, Paint } from '../../core/plan/frame-plan.ts'
import { PlanBuilder, StackItems } from '../../core/plan/plan-builder.ts'
import { PICTURE } from '../../core/stage/plan-frame.ts'
import { withoutUnused } from '../../core/plan/without-unused.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { rgbaToI420 } from './i420.ts'
import { smoothPicture, usualCall } from './parity-cases.ts'
import { stepOf } from '../../core/steps/index.ts'

export const PLAN_SEEDS = Array.from({ length: 24 }, (_, i) => 101 + i)
/** Each layer and each group rounds once, and dodging, burning and whole colours pass on more than they were given. */
export const PLAN_LIMIT = 4
export const PLAN_ALLOWED_SHARE = 0.005

const WIDTH = 120
const HEIGHT = 76

export interface PlanCase {
  readonly plan: FramePlan
  readonly pictures: ReadonlyMap<string, Picture>
  /** Those that new pictures are expected of. */
  readonly live: ReadonlySet<string>
}

export interface PlanCaseOptions {
  readonly culls?: boolean
  /** A second output, with one item more. */
  readonly withSecond?: boolean
}

/** The case of a seed. `culls`: whether what is covered falls out. */
export function planCase(seed: number, { culls = true, withSecond = false }: PlanCaseOptions = {}): PlanCase {
  const random = seededRandom(seed)
  const pictures = new Map<string, Picture>([
    ['input:camera', rgbaToI420(smoothPicture(seed, 128, 80, true))],
    ['input:photo', smoothPicture(seed + 1, 200, 150, true)],
    ['input:mark', smoothPicture(seed + 2, 40, 40)],
    ['input:veil', smoothPicture(seed + 3, 60, 38, true)],
  ])
  const draft = new Draft(random, pictures, culls)
  const items = draft.stackItems(WIDTH, HEIGHT, 5, 2)
  const builder = draft.builder
  const outputs: Record<string, NodeIndex> = { [PICTURE]: builder.stack('black', WIDTH, HEIGHT, items.items) }
  if (withSecond) {
    draft.put(items, WIDTH, HEIGHT, 0)
    outputs['second'] = builder.stack('black', WIDTH, HEIGHT, items.items)
  }
  return {
    plan: { ...withoutUnused(builder.nodes, outputs), texts: [], outlines: [], missing: [], validUntilMs: Infinity },
    pictures,
    live: new Set(['input:camera']),
  }
}

class Draft {
  readonly builder = new PlanBuilder()
  readonly #random: () => number
  readonly #pictures: ReadonlyMap<string, Picture>
  readonly #culls: boolean
  #count = 0

  constructor(random: () => number, pictures: ReadonlyMap<string, Picture>, culls: boolean) {
    this.#random = random
    this.#pictures = pictures
    this.#culls = culls
  }

  stackItems(widthPx: number, heightPx: number, most: number, depth: number): StackItems {
    const items = new StackItems(this.builder, widthPx, heightPx, this.#culls)
    const count = 2 + Math.floor(this.#random() * most)
    for (let i = 0; i < count; i += 1) this.put(items, widthPx, heightPx, depth)
    return items
  }

  /** Puts one item of any sort into a stack. */
  put(items: StackItems, widthPx: number, heightPx: number, depth: number): void {
    const shape = this.#shape(widthPx, heightPx)
    const turn = this.#random() < 0.4 ? this.#random() * 360 : 0
    const isOnGrid = this.#random() < 0.5
    const place = () => (isOnGrid ? Math.round((this.#random() - 0.2) * 60) : (this.#random() - 0.2) * 60)
    const toStack = followedBy(
      followedBy(translation(-shape.width / 2, -shape.height / 2), rotation(turn)),
      translation(place() + shape.width / 2, place() + shape.height / 2),
    )
    const toCoverage = inverse(toStack)
    const coverage = this.#coverage(shape)
    const spread = coverage.sigmaPx * 4
    const grown = followedBy(translation(-spread, -spread), toStack)
    this.#count += 1
    items.put({
      layerId: `layer${this.#count}`,
      paint: this.#paint(shape, toCoverage, depth),
      coverage,
      toCoverage,
      bounds: mappedBounds(grown, shape.width + 2 * spread, shape.height + 2 * spread, widthPx, heightPx),
      opacity: this.#random() < 0.6 ? 1 : 0.2 + this.#random() * 0.8,
      blend: this.#blend(),
    })
  }

  #pick<T>(choices: readonly T[]): T {
    return choices[Math.floor(this.#random() * choices.length)]!
  }

  #blend(): BlendName {
    return this.#random() < 0.55 ? 'normal' : this.#pick(blendModes).name
  }

  #shape(widthPx: number, heightPx: number): Shape {
    if (this.#random() < 0.25) return { kind: 'roundedRect', width: widthPx, height: heightPx, cornerRadius: 0 }
    const width = 6 + Math.round(this.#random() * widthPx)
    const height = 6 + Math.round(this.#random() * heightPx)
    if (this.#random() < 0.3) return { kind: 'superellipse', width, height, exponent: this.#pick([2, 4, 5]) }
    return { kind: 'roundedRect', width, height, cornerRadius: this.#pick([0, 3, 12, 200]) }
  }

  #coverage(shape: Shape): Coverage {
    const sort = this.#random()
    const plain: Coverage = { shape, strokePx: null, sigmaPx: 0, hole: null, reveal: null }
    if (sort < 0.5) return plain
    if (sort < 0.65) return { ...plain, strokePx: 1 + this.#random() * 5 }
    if (sort < 0.8) return { ...plain, sigmaPx: 1 + this.#random() * 5, hole: this.#random() < 0.5 ? { dx: -3, dy: -4 } : null }
    if (sort < 0.92) {
      const [a, b] = this.#pick([
        [0.05, 0],
        [-0.5, 0],
        [0, 0.2],
        [0.03, -0.04],
      ] as const)
      return { ...plain, reveal: { kind: 'edge', a, b, c: -a * this.#random() * WIDTH - b * this.#random() * HEIGHT } }
    }
    const node = this.builder.treated('input:veil', { ...this.#sizeOf('input:veil'), isOpaque: true }, [], 0)
    return { ...plain, reveal: { kind: 'luma', node, toNode: scaling(60 / WIDTH, 38 / HEIGHT), level: this.#random(), slope: 4 } }
  }

  #sizeOf(sourceId: string) {
    const { widthPx, heightPx } = this.#pictures.get(sourceId)!
    return { widthPx, heightPx }
  }

  #paint(shape: Shape, toCoverage: Affine, depth: number): Paint {
    const sort = this.#random()
    const colour = () => [this.#random(), this.#random(), this.#random()] as const
    if (sort < 0.12) return { kind: 'plain', colour: colour(), opacity: this.#random() < 0.5 ? 1 : this.#random() }
    if (sort < 0.3) {
      const middle = this.#random()
      const stop = (at: number): GradientStop => ({ at, colour: colour(), opacity: this.#random() < 0.7 ? 1 : this.#random() })
      const stops = [stop(0), stop(middle), stop(1)]
      const gradient =
        this.#random() < 0.5
          ? { kind: 'linear' as const, fromX: 2, fromY: 3, toX: shape.width, toY: shape.height * this.#random(), stops }
          : { kind: 'radial' as const, centreX: shape.width / 2, centreY: 5, radius: 5 + shape.width / 2, stops }
      return { kind: 'gradient', gradient, toGradient: toCoverage }
    }
    if (sort < 0.5 && depth > 0) return this.#groupPaint(shape, toCoverage, depth)
    const sourceId = this.#pick(['input:camera', 'input:camera', 'input:photo', 'input:mark'])
    const size = this.#sizeOf(sourceId)
    const steps = this.#random() < 0.4 ? [usualCall(stepOf('tone'))] : []
    const mipLevel = this.#random() < 0.3 ? 1 : 0
    const node = this.builder.treated(sourceId, { ...size, isOpaque: sourceId !== 'input:mark' }, steps, mipLevel)
    return { kind: 'node', node, toNode: this.#toNode(node, shape, toCoverage) }
  }

  #groupPaint(shape: Shape, toCoverage: Affine, depth: number): Paint {
    const widthPx = Math.max(1, Math.round(shape.width))
    const heightPx = Math.max(1, Math.round(shape.height))
    const inner = this.stackItems(widthPx, heightPx, 3, depth - 1)
    let node = this.builder.stack(this.#random() < 0.2 ? 'black' : 'clear', widthPx, heightPx, inner.items)
    if (this.#random() < 0.3) node = this.builder.filtered(node, [usualCall(stepOf('tone'))])
    return { kind: 'node', node, toNode: toCoverage }
  }

  /** Over the whole shape, or pixel by pixel. */
  #toNode(node: NodeIndex, shape: Shape, toCoverage: Affine): Affine {
    const { widthPx, heightPx } = this.builder.nodes[node]!
    const fits = widthPx >= shape.width && heightPx >= shape.height
    return fits && this.#random() < 0.5 ? toCoverage : followedBy(toCoverage, scaling(widthPx / shape.width, heightPx / shape.height))
  }
}
