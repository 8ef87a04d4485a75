// A plan prepared for the current state of its sources: live or still, present or missing.
import type { SourceId } from '../../core/picture/source.ts'
import type { PixelRect } from '../../core/picture/picture.ts'
import type { FilteredNode, FramePlan, Item, NodeIndex, OutputId, StackNode, TreatedNode } from '../../core/plan/frame-plan.ts'
import type { SourceFrames } from '../executor.ts'
import { coversRect, EMPTY_RECT, isEmptyRect, meeting, unionOf, wholeOf, without } from '../../core/picture/pixel-rect.ts'
import { itemKeysOf, partRead, shownSharesOf, sourcesOfNodes } from '../stillness.ts'
import { canvasOver, copyRect, fillRect, type HeapCanvas } from './heap-canvas.ts'
import type { ItemJob, JobPicture, JobTools } from './item-job.ts'
import { pictureStamp } from '../picture-stamp.ts'
import { OPAQUE_BLACK, stackRunOf, type StackRun } from './stack-runs.ts'
import type { StillSupplies } from './still-run.ts'
import { bandsOf, seenParts } from './seen-parts.ts'
import type { Kept } from './surface-store.ts'
import type { HeapPicture } from './treatments.ts'

/** If the visible parts of a source add up to more than this multiple of its area, the whole source is treated once. */
const MOST_BY_ROWS = 1.6

export class PreparedPlan {
  readonly plan: FramePlan
  readonly itemKeys: ReadonlySet<string>
  readonly #tools: JobTools
  readonly #sourcesOf: readonly (readonly SourceId[])[]
  /** How much of each treated picture is shown. */
  readonly #shownShares: ReadonlyMap<string, number>
  /** Sources of the plan and how they were when it was made ready: absent, still or live. */
  readonly #presence: readonly (readonly [SourceId, boolean | null])[]
  readonly #keysBefore: ReadonlySet<string> | null
  readonly #stacks = new Map<NodeIndex, StackRun>()
  /** Pictures of nodes that were made in this frame, and which parts of them are there. */
  readonly #made = new Map<NodeIndex, { readonly picture: HeapPicture; readonly parts: readonly PixelRect[] }>()
  readonly #own = new Map<string, Kept>()
  readonly #hasMoving: boolean
  readonly #ownName = `run ${(runs += 1)}`
  readonly #supplies: StillSupplies = {
    stampOf: (id) => pictureStamp(this.#sources.get(id)),
    pictureFor: (item, region) => this.#pictureFor(item, [meeting(region, item.bounds)]),
  }
  #sources: SourceFrames

  /** `keysBefore`: item keys of the previous plan; new items count as moving. Null: none does. */
  constructor(tools: JobTools, plan: FramePlan, sources: SourceFrames, keysBefore: ReadonlySet<string> | null) {
    this.plan = plan
    this.itemKeys = itemKeysOf(plan)
    this.#tools = tools
    this.#sources = sources
    this.#keysBefore = keysBefore
    this.#sourcesOf = sourcesOfNodes(plan.nodes)
    this.#shownShares = shownSharesOf(plan)
    this.#presence = [...new Set(this.#sourcesOf.flat())].map((id) => [id, sources.get(id)?.isLive ?? null])
    this.#hasMoving = keysBefore !== null && [...this.itemKeys].some((key) => !keysBefore.has(key))
  }

  /** Whether it is still valid for these sources; if so, switches to them. */
  takes(sources: SourceFrames): boolean {
    if (this.#hasMoving) return false
    for (const [id, isLive] of this.#presence) if ((sources.get(id)?.isLive ?? null) !== isLive) return false
    this.#sources = sources
    this.#made.clear()
    return true
  }

  /** Draws a root into the canvas that lies at `at`. */
  drawOutput(id: OutputId, at: number): void {
    const index = this.plan.outputs[id]!
    const node = this.plan.nodes[index]!
    const whole = wholeOf(node)
    const out = canvasOver(at, whole)
    if (node.kind === 'stack' && !this.#made.has(index)) {
      this.#drawStack(index, node, out, at, whole)
      // Whatever else shows this picture has it from here.
      this.#made.set(index, { picture: { widthPx: node.widthPx, heightPx: node.heightPx, at }, parts: [whole] })
      return
    }
    const picture = this.#pictureOf(index, whole)
    this.#tools.heap.kernels.copyRows(picture.at, at, node.widthPx * 4, node.widthPx * 4, node.heightPx)
  }

  /** Frees what no later plan can reuse. */
  dispose(): void {
    for (const kept of this.#own.values()) this.#tools.treatments.surfaces.drop(kept)
    this.#own.clear()
  }

  #drawStack(index: NodeIndex, node: StackNode, out: HeapCanvas, at: number, wanted: PixelRect): void {
    const stack = this.#refreshed(index, node)
    const isWhole = stack.wholeAt === at
    const region = isWhole ? meeting(stack.liveBounds, wanted) : wanted
    // A throw in the middle leaves nothing that counts as whole.
    stack.wholeAt = null
    for (const band of bandsOf(region)) this.#compose(stack, out, band)
    stack.wholeAt = isWhole || coversRect(wanted, wholeOf(node)) ? at : null
  }

  /** The stack with its still runs up to date. */
  #refreshed(index: NodeIndex, node: StackNode): StackRun {
    const stack = this.#stackOf(index, node)
    const isNew = stack.back?.refresh(this.#supplies) === true
    const areNew = stack.above.map((run) => run.kind === 'still' && run.refresh(this.#supplies))
    if (isNew || areNew.includes(true)) stack.wholeAt = null
    return stack
  }

  #compose({ node, back, above }: StackRun, out: HeapCanvas, region: PixelRect): void {
    const ground = node.ground === 'black' ? OPAQUE_BLACK : 0
    const { kernels } = this.#tools.heap
    const { seen, behindAll } = seenParts(
      above.map((run) => (run.kind === 'live' ? run.job.hidden : EMPTY_RECT)),
      region,
    )
    let base = out
    const first = above[0]
    // The first live item reads the still back and writes the frame; what it doesn't touch is copied.
    if (back !== null && first?.kind === 'live' && coversRect(back.bounds, region) && coversRect(first.job.item.bounds, region)) base = back.canvas
    else {
      for (const part of behindAll) {
        if (back === null || !coversRect(back.bounds, part)) fillRect(kernels, out, part, ground)
        if (back !== null) copyRect(kernels, back.canvas, out, meeting(back.bounds, part))
      }
    }
    above.forEach((run, i) => {
      const parts = seen[i]!
      if (run.kind === 'still') for (const part of parts) run.overlay(out, part)
      else this.#drawLive(run.job, base, out, parts)
      base = out
    })
  }

  #drawLive(job: ItemJob, base: HeapCanvas, out: HeapCanvas, parts: readonly PixelRect[]): void {
    const seen = parts.map((part) => meeting(part, job.item.bounds)).filter((part) => !isEmptyRect(part))
    const left = seen.flatMap((part) => (this.#drawInPlace(job, out, meeting(part, job.hidden)) ? without(part, job.hidden) : [part]))
    if (left.length === 0) return
    const picture = this.#pictureFor(job.item, left)
    for (const part of left) job.run(picture, base, out, part)
  }

  /** Draws the stack of an untransformed item directly into the target, without an intermediate picture; false if that is not possible. */
  #drawInPlace({ item: { paint } }: ItemJob, out: HeapCanvas, part: PixelRect): boolean {
    if (isEmptyRect(part) || paint.kind !== 'node' || this.#made.has(paint.node)) return false
    const node = this.plan.nodes[paint.node]!
    const { a, b, c, d, e, f } = paint.toNode
    if (node.kind !== 'stack' || this.#isStill(paint.node) || a !== 1 || b !== 0 || c !== 0 || d !== 1 || !Number.isInteger(e) || !Number.isInteger(f))
      return false
    const stack = this.#refreshed(paint.node, node)
    stack.wholeAt = null
    const canvas = { at: out.at - f * out.strideBytes - e * 4, strideBytes: out.strideBytes }
    this.#compose(stack, canvas, { left: part.left + e, top: part.top + f, right: part.right + e, bottom: part.bottom + f })
    return true
  }

  /** What an item is drawn from, right where it is seen within its bounds; null for a paint without a picture. */
  #pictureFor({ paint }: Item, seen: readonly PixelRect[]): JobPicture | null {
    if (paint.kind !== 'node') return null
    const node = this.plan.nodes[paint.node]!
    if (node.kind === 'treated') return this.#treatedFor(node, paint.node)
    return { kind: 'made', picture: this.#pictureOf(paint.node, partRead(node, paint.toNode, unionOf(seen))) }
  }

  #treatedFor(node: TreatedNode, index: NodeIndex): JobPicture {
    const frame = this.#sources.get(node.sourceId)!
    // A source of which little is visible is treated while it is drawn, even if it is drawn twice.
    if (this.#shownShares.get(node.treatedKey)! <= MOST_BY_ROWS) return { kind: 'source', node, frame }
    return { kind: 'made', picture: this.#pictureOf(index, wholeOf(node)) }
  }

  /** The picture of a node, right in `needed` at least. */
  #pictureOf(index: NodeIndex, needed: PixelRect): HeapPicture {
    const node = this.plan.nodes[index]!
    const known = this.#made.get(index)
    if (known?.parts.some((part) => coversRect(part, needed)) === true) return known.picture
    if (node.kind === 'stack') return this.#stackPicture(index, node, needed)
    const picture = node.kind === 'treated' ? this.#tools.treatments.treated(node, this.#sources.get(node.sourceId)!) : this.#filteredPicture(index, node)
    this.#made.set(index, { picture, parts: [wholeOf(node)] })
    return picture
  }

  /** Cached surfaces are drawn in full; others only in the requested area. */
  #stackPicture(index: NodeIndex, node: StackNode, needed: PixelRect): HeapPicture {
    const { widthPx, heightPx } = node
    const { kept, isNew } = this.#surfaceOf(index, widthPx * heightPx * 4)
    const { at } = kept.block
    const part = this.#isStill(index) ? wholeOf(node) : needed
    if (isNew) this.#making(kept, () => this.#drawStack(index, node, canvasOver(at, wholeOf(node)), at, part))
    const before = this.#made.get(index)
    const parts = before?.picture.at === at ? before.parts : []
    this.#made.set(index, { picture: { widthPx, heightPx, at }, parts: [...parts, part] })
    return { widthPx, heightPx, at }
  }

  #filteredPicture(index: NodeIndex, node: FilteredNode): HeapPicture {
    const { widthPx, heightPx, steps, key } = node
    const bytes = widthPx * heightPx * 4
    const { kept, isNew } = this.#surfaceOf(index, bytes)
    const { treatments, heap } = this.#tools
    if (isNew) {
      this.#making(kept, () => {
        const before = this.#pictureOf(node.of, wholeOf(node))
        const straight = this.#ownSurface(`straight ${index}`, bytes)
        heap.kernels.unpremultiplyRow(before.at, straight.block.at, widthPx * heightPx)
        const picture = { format: 'rgba', widthPx, heightPx, data: new Uint8Array(0) } as const
        treatments.treatInto(treatments.runner(steps, key, picture), picture, straight.block.at, kept.block.at, null, 'premultiplied')
      })
    }
    return { widthPx, heightPx, at: kept.block.at }
  }

  /** The surface for a node: cached under its content key if it is still, otherwise temporary. `isNew`: it has to be drawn. */
  #surfaceOf(index: NodeIndex, byteLength: number): { kept: Kept; isNew: boolean } {
    const { surfaces } = this.#tools.treatments
    if (!this.#isStill(index)) return { kept: this.#ownSurface(`node ${index}`, byteLength), isNew: true }
    const key = `node ${this.#contentKey(index)}`
    const known = surfaces.find(key)
    return known === undefined ? { kept: this.#keep(key, byteLength), isNew: true } : { kept: known, isNew: false }
  }

  /** A new surface: nothing that was drawn where it lies is there any more. */
  #keep(key: string, byteLength: number): Kept {
    const kept = this.#tools.treatments.surfaces.keep(key, byteLength, null)
    for (const stack of this.#stacks.values()) if (stack.wholeAt === kept.block.at) stack.wholeAt = null
    return kept
  }

  /** Draws a cached surface; if that throws, the entry is removed so that a half-drawn one is never reused. */
  #making(kept: Kept, make: () => void): void {
    try {
      make()
    } catch (error) {
      this.#tools.treatments.surfaces.drop(kept)
      throw error
    }
  }

  /** Names what a node shows now. */
  #contentKey(index: NodeIndex): string {
    const stamps = this.#sourcesOf[index]!.map((id) => pictureStamp(this.#sources.get(id)))
    return `${this.plan.nodes[index]!.key} ${this.#tools.treatments.generation} ${stamps.join()}`
  }

  /** A temporary surface: its content changes with every frame. */
  #ownSurface(name: string, byteLength: number): Kept {
    const { surfaces } = this.#tools.treatments
    const key = `${this.#ownName} ${name}`
    const known = this.#own.get(key)
    if (known !== undefined && !known.isEvicted) {
      surfaces.touch(known)
      return known
    }
    const kept = this.#keep(key, byteLength)
    this.#own.set(key, kept)
    return kept
  }

  #isStill(index: NodeIndex): boolean {
    const node = this.plan.nodes[index]!
    if (this.#sourcesOf[index]!.some((id) => this.#sources.get(id)?.isLive === true)) return false
    if (this.#keysBefore === null || node.kind === 'treated') return true
    if (node.kind === 'filtered') return this.#isStill(node.of)
    return node.items.every((item) => this.#keysBefore!.has(item.key))
  }

  #stackOf(index: NodeIndex, node: StackNode): StackRun {
    const known = this.#stacks.get(index)
    if (known !== undefined) return known
    const stack = stackRunOf(node, {
      tools: this.#tools,
      plan: this.plan,
      sources: this.#sources,
      keysBefore: this.#keysBefore,
      sourcesOf: this.#sourcesOf,
      veilOf: (of) => ({ key: () => this.#contentKey(of), picture: () => this.#pictureOf(of, wholeOf(this.plan.nodes[of]!)) }),
    })
    this.#stacks.set(index, stack)
    return stack
  }
}

let runs = 0
