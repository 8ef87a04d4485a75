// Collects the nodes of a plan, each once, and drops those that cannot be seen.
import type { SourceId, SourceInfo } from '../picture/source.ts'
import { mapPoint, type Affine } from '../composite/affine.ts'
import type { Coverage } from '../composite/coverage.ts'
import type { Shape } from '../composite/shape.ts'
import { apart, isEmptyRect } from '../picture/pixel-rect.ts'
import type { DrawnPart } from '../drawing/surface.ts'
import type { PixelRect } from '../picture/picture.ts'
import { hash53 } from '../random/hash.ts'
import { makesMatte } from '../steps/chain.ts'
import { NO_CALLS } from '../steps/treatment.ts'
import type { StepCall } from '../steps/index.ts'
import type { Item, MissingPicture, NodeIndex, OutlineJob, Paint, PlanNode, StackNode, TextJob } from './frame-plan.ts'

const jsonOf = new WeakMap<object, string>()

/** The JSON of a value that is never changed, worked out once. */
export function keyOf(value: object): string {
  const known = jsonOf.get(value)
  if (known !== undefined) return known
  const json = JSON.stringify(value)
  jsonOf.set(value, json)
  return json
}

const shortKeys = new WeakMap<object, string>()

/** A short name of a value that is never changed: equal for equal values. */
function shortKeyOf(value: object): string {
  let key = shortKeys.get(value)
  if (key === undefined) shortKeys.set(value, (key = shortened(keyOf(value))))
  return key
}

/** A name that stays short however much goes into it: plans are compared by their keys in every frame that something moves in. */
function shortened(text: string): string {
  return hash53(text).toString(36)
}

/** An item without its key. */
export type ItemParts = Omit<Item, 'key'>

export class PlanBuilder {
  readonly nodes: PlanNode[] = []
  readonly texts = new Map<SourceId, TextJob>()
  readonly outlines = new Map<SourceId, OutlineJob>()
  readonly #indexOf = new Map<string, NodeIndex>()
  #validUntilMs = Infinity

  /** How long the plan stays valid, in ms of the stage's clock. */
  get validUntilMs(): number {
    return this.#validUntilMs
  }

  /** Notes that something looks different from then on. */
  changesAt(timeMs: number): void {
    this.#validUntilMs = Math.min(this.#validUntilMs, timeMs)
  }

  /** Adds a node, or finds the one that is equal. */
  add(node: PlanNode): NodeIndex {
    const known = this.#indexOf.get(node.key)
    if (known !== undefined) return known
    const index = this.nodes.push(node) - 1
    this.#indexOf.set(node.key, index)
    return index
  }

  /** A source, cleaned, halved `mipLevel` times. */
  treated(sourceId: SourceId, info: SourceInfo, steps: readonly StepCall[], mipLevel: number): NodeIndex {
    const treatedKey = `${sourceId} ${shortKeyOf(steps)}`
    return this.add({
      kind: 'treated',
      key: `${treatedKey} /${mipLevel}`,
      treatedKey,
      widthPx: Math.max(1, info.widthPx >> mipLevel),
      heightPx: Math.max(1, info.heightPx >> mipLevel),
      isOpaque: info.isOpaque && !makesMatte(steps),
      sourceId,
      steps,
      mipLevel,
    })
  }

  /** A picture of strokes. */
  drawn({ sourceId, widthPx, heightPx }: DrawnPart): NodeIndex {
    return this.treated(sourceId, { widthPx, heightPx, isOpaque: false }, NO_CALLS, 0)
  }

  /** Another node of this plan, cleaned. */
  filtered(of: NodeIndex, steps: readonly StepCall[]): NodeIndex {
    const { key, widthPx, heightPx, isOpaque } = this.nodes[of]!
    return this.add({ kind: 'filtered', key: `(${key}) ${shortKeyOf(steps)}`, widthPx, heightPx, isOpaque: isOpaque && !makesMatte(steps), of, steps })
  }

  stack(ground: StackNode['ground'], widthPx: number, heightPx: number, items: readonly Item[]): NodeIndex {
    const key = shortened(`${ground} ${widthPx}×${heightPx} ${items.map((item) => item.key).join(' ')}`)
    return this.add({ kind: 'stack', key, widthPx, heightPx, isOpaque: ground === 'black', ground, items })
  }

  /** An item with its key. */
  item(parts: ItemParts): Item {
    return {
      ...parts,
      key: shortened(
        `${this.#paintKey(parts.paint)} ${coverageKey(parts.coverage, this.nodes)} ${affineKey(parts.toCoverage)} ${rectKey(parts.bounds)} ${parts.opacity} ${parts.blend}`,
      ),
    }
  }

  /** Whether a paint is opaque everywhere. */
  isOpaque(paint: Paint): boolean {
    if (paint.kind === 'node') return this.nodes[paint.node]!.isOpaque
    if (paint.kind === 'plain') return paint.opacity === 1
    return paint.gradient.stops.every((stop) => stop.opacity === 1)
  }

  #paintKey(paint: Paint): string {
    if (paint.kind === 'node') return `{${this.nodes[paint.node]!.key}} ${affineKey(paint.toNode)}`
    if (paint.kind === 'plain') return `${paint.colour.join()} ${paint.opacity}`
    return `${keyOf(paint.gradient)} ${affineKey(paint.toGradient)}`
  }
}

function affineKey({ a, b, c, d, e, f }: Affine): string {
  return `${a},${b},${c},${d},${e},${f}`
}

function rectKey({ left, top, right, bottom }: PixelRect): string {
  return `${left},${top},${right},${bottom}`
}

/** Equal for two coverages that are the same, of whatever plan. */
export function coverageKey({ shape, strokePx, sigmaPx, hole, reveal }: Coverage, nodes: readonly PlanNode[]): string {
  const form = shape.kind === 'roundedRect' ? `r${shape.cornerRadius}` : `s${shape.exponent}`
  const shown =
    reveal === null
      ? ''
      : reveal.kind === 'edge'
        ? `${reveal.a},${reveal.b},${reveal.c}`
        : `{${nodes[reveal.node]!.key}} ${affineKey(reveal.toNode)} ${reveal.level} ${reveal.slope}`
  return `${form} ${shape.width}×${shape.height} ${strokePx ?? ''} ${sigmaPx} ${hole === null ? '' : `${hole.dx},${hole.dy}`} ${shown}`
}

/** Room for rounding in the affine maps: far less than any pixel's share that could be seen. */
const ROUNDING_PX = 1e-6

/** How far a rectangle inside the shape stays from its sides. */
function insetOf(shape: Shape): readonly [across: number, down: number] {
  if (shape.kind === 'superellipse') return [(shape.width / 2) * (1 - Math.SQRT1_2) + 1, (shape.height / 2) * (1 - Math.SQRT1_2) + 1]
  if (shape.cornerRadius === 0) return [0, 0]
  const corner = Math.min(shape.cornerRadius, shape.width / 2, shape.height / 2) * (1 - Math.SQRT1_2) + 1
  return [corner, corner]
}

/** Whether a rectangle of pixels lies wholly inside an opaque item's shape, so that nothing under it shows there. */
function hides(item: Item, rect: PixelRect): boolean {
  const { bounds, toCoverage, opacity, blend } = item
  const { shape, strokePx, sigmaPx, hole, reveal } = item.coverage
  if (rect.left < bounds.left || rect.top < bounds.top || rect.right > bounds.right || rect.bottom > bounds.bottom) return false
  if (opacity !== 1 || blend !== 'normal' || strokePx !== null || sigmaPx !== 0 || hole !== null || reveal !== null) return false
  const [across, down] = insetOf(shape)
  // Both shapes are convex: if all corners of the other are inside, all of it is.
  return [rect.left, rect.right].every((x) =>
    [rect.top, rect.bottom].every((y) => {
      const [atX, atY] = mapPoint(toCoverage, x, y)
      return atX >= across - ROUNDING_PX && atX <= shape.width - across + ROUNDING_PX && atY >= down - ROUNDING_PX && atY <= shape.height - down + ROUNDING_PX
    }),
  )
}

/** The items of one stack as they are gathered, from back to front. */
export class StackItems {
  readonly #builder: PlanBuilder
  readonly #whole: PixelRect
  readonly #culls: boolean
  #items: Item[] = []
  #missing: MissingPicture[] = []

  constructor(builder: PlanBuilder, widthPx: number, heightPx: number, culls: boolean) {
    this.#builder = builder
    this.#whole = { left: 0, top: 0, right: widthPx, bottom: heightPx }
    this.#culls = culls
  }

  get items(): readonly Item[] {
    return [...this.#items]
  }

  /** What has no picture and would not be hidden. */
  get missing(): readonly MissingPicture[] {
    return this.#missing
  }

  /** Whether one of them hides whatever lies under all of them. */
  get coversAll(): boolean {
    return this.#items.some((item) => this.#builder.isOpaque(item.paint) && hides(item, this.#whole))
  }

  /**
   * Where they look otherwise than a picture of the same size on the same ground, in parts that don't meet: what both have at the very
   * back is the same there. None where nothing is.
   */
  differencesFrom(node: NodeIndex): readonly PixelRect[] {
    const beside = this.#builder.nodes[node]!
    if (beside.kind !== 'stack') return [this.#whole]
    let same = 0
    while (same < this.#items.length && this.#items[same]!.key === beside.items[same]?.key) same += 1
    return apart([...this.#items.slice(same), ...beside.items.slice(same)].map(({ bounds }) => bounds))
  }

  miss(missing: MissingPicture): void {
    this.#missing.push(missing)
  }

  /** Adds an item in front and drops the items it covers completely; no pixel changes. Null if the item itself is invisible. */
  put(parts: ItemParts): Item | null {
    if (isEmptyRect(parts.bounds) || parts.opacity === 0) return null
    const item = this.#builder.item(parts)
    this.putAgain(item)
    return item
  }

  /** Puts an item that was made before; its node is one of this plan. */
  putAgain(item: Item): void {
    if (this.#culls && this.#builder.isOpaque(item.paint)) {
      // Most hide nothing of what there is.
      if (this.#items.some((under) => hides(item, under.bounds))) this.#items = this.#items.filter((under) => !hides(item, under.bounds))
      if (hides(item, this.#whole)) this.#missing = []
    }
    this.#items.push(item)
  }
}
