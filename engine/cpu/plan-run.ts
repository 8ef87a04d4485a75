// One plan, made ready for the pictures of its sources as they are now: live or still, there or not.
import type { PixelRect } from '../../core/picture/picture.ts'
import type { FramePlan, Item, NodeIndex, OutputId, PlanNode, SourceId, StackNode } from '../../core/plan/frame-plan.ts'
import type { SourceFrames } from '../executor.ts'
import { hasAll, itemKeysOf, readersOf, runsOf, sourcesOfNodes, usesOf } from '../stillness.ts'
import { canvasOver, copyRect, coversRect, EMPTY_RECT, fillRect, isEmptyRect, meeting, uniteRects, wholeOf, type HeapCanvas } from './heap-canvas.ts'
import { ItemJob, type JobPicture, type JobTools } from './item-job.ts'
import { LumaItemJob } from './luma-item-job.ts'
import { pictureStamp } from './picture-stamp.ts'
import { StillRun, type StillSupplies } from './still-run.ts'
import type { Kept } from './surface-store.ts'
import type { HeapPicture } from './treatments.ts'

const OPAQUE_BLACK = 0xff000000

interface LiveRun {
  readonly kind: 'live'
  readonly job: ItemJob
}

/** A stack with what it is made of, as long as plan and sources stay. */
interface StackRun {
  readonly node: StackNode
  readonly back: StillRun | null
  readonly above: readonly (StillRun | LiveRun)[]
  /** Everything a live item may touch. */
  readonly liveBounds: PixelRect
  /** Where its pixels lie, and whether all of them are there from the last frame. */
  wholeAt: number | null
  /** Grows when a still run is made anew. */
  stillsMade: number
}

export class PlanRun {
  readonly plan: FramePlan
  readonly itemKeys: ReadonlySet<string>
  readonly #tools: JobTools
  readonly #sourcesOf: readonly (readonly SourceId[])[]
  readonly #uses: ReadonlyMap<string, number>
  /** How many items or nodes read each node; who reads all of it counts twice. */
  readonly #readers: readonly number[]
  /** Sources of the plan and how they were when it was made ready: absent, still or live. */
  readonly #presence: readonly (readonly [SourceId, boolean | null])[]
  readonly #keysBefore: ReadonlySet<string> | null
  readonly #stacks = new Map<NodeIndex, StackRun>()
  /** Pictures of nodes that were made in this frame. */
  readonly #made = new Map<NodeIndex, HeapPicture>()
  readonly #own = new Map<string, Kept>()
  readonly #hasMoving: boolean
  readonly #ownName = `run ${(runs += 1)}`
  readonly #supplies: StillSupplies = {
    stampOf: (id) => pictureStamp(this.#sources.get(id)),
    pictureFor: (item, region) => this.#pictureFor(item, region),
  }
  #sources: SourceFrames

  /** `keysBefore`: of the items of the plan before; what was not there moves. Null: nothing does. */
  constructor(tools: JobTools, plan: FramePlan, sources: SourceFrames, keysBefore: ReadonlySet<string> | null) {
    this.plan = plan
    this.itemKeys = itemKeysOf(plan)
    this.#tools = tools
    this.#sources = sources
    this.#keysBefore = keysBefore
    this.#sourcesOf = sourcesOfNodes(plan.nodes)
    this.#uses = usesOf(plan)
    this.#readers = readersOf(plan)
    this.#presence = [...new Set(this.#sourcesOf.flat())].map((id) => [id, sources.get(id)?.isLive ?? null])
    this.#hasMoving = keysBefore !== null && [...this.itemKeys].some((key) => !keysBefore.has(key))
  }

  /** Whether it holds for these sources, and goes on with them. */
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
      this.#made.set(index, { widthPx: node.widthPx, heightPx: node.heightPx, at })
      return
    }
    const picture = this.#pictureOf(index, whole)
    this.#tools.heap.kernels.copyRows(picture.at, at, node.widthPx * 4, node.widthPx * 4, node.heightPx)
  }

  /** Gives back what is no use to a later plan. */
  dispose(): void {
    for (const kept of this.#own.values()) this.#tools.treatments.surfaces.drop(kept)
    this.#own.clear()
  }

  #drawStack(index: NodeIndex, node: StackNode, out: HeapCanvas, at: number, wanted: PixelRect): void {
    const stack = this.#stackOf(index, node)
    const madeBefore = stack.stillsMade
    if (stack.back?.refresh(this.#supplies) === true) stack.stillsMade += 1
    for (const run of stack.above) if (run.kind === 'still' && run.refresh(this.#supplies)) stack.stillsMade += 1
    const isWhole = stack.wholeAt === at && stack.stillsMade === madeBefore
    const region = isWhole ? meeting(stack.liveBounds, wanted) : wanted
    // A throw in the middle leaves nothing that counts as whole.
    stack.wholeAt = null
    if (!isEmptyRect(region)) this.#compose(stack, out, region)
    stack.wholeAt = isWhole || coversRect(wanted, wholeOf(node)) ? at : null
  }

  #compose({ node, back, above }: StackRun, out: HeapCanvas, region: PixelRect): void {
    const ground = node.ground === 'black' ? OPAQUE_BLACK : 0
    let base = out
    const [lowest] = above
    // What the lowest item hides needs no ground.
    if (back === null) {
      if (lowest?.kind !== 'live' || !lowest.job.hides(region)) fillRect(this.#tools.heap.kernels, out, region, ground)
    } else {
      const behind = back.canvas
      const first = above[0]
      // The first live item reads the still back and writes the frame; what it doesn't touch is copied.
      if (first?.kind === 'live' && coversRect(back.bounds, region) && coversRect(first.job.item.bounds, region)) base = behind
      else {
        if (!coversRect(back.bounds, region)) fillRect(this.#tools.heap.kernels, out, region, ground)
        copyRect(this.#tools.heap.kernels, behind, out, meeting(back.bounds, region))
      }
    }
    for (const run of above) {
      if (run.kind === 'still') run.overlay(out, region)
      else run.job.run(this.#pictureFor(run.job.item, region), base, out, region)
      base = out
    }
  }

  /** What an item is drawn from; null for a paint without a picture. */
  #pictureFor({ paint, bounds }: Item, region: PixelRect): JobPicture | null {
    if (paint.kind !== 'node') return null
    const node = this.plan.nodes[paint.node]!
    if (node.kind === 'treated') return this.#treatedFor(node, paint.node)
    const { toNode } = paint
    const part = meeting(bounds, region)
    const isUpright = toNode.b === 0 && toNode.c === 0
    const needed = isUpright
      ? meeting(wholeOf(node), {
          left: Math.floor(Math.min(toNode.a * part.left, toNode.a * part.right) + toNode.e) - 1,
          top: Math.floor(Math.min(toNode.d * part.top, toNode.d * part.bottom) + toNode.f) - 1,
          right: Math.ceil(Math.max(toNode.a * part.left, toNode.a * part.right) + toNode.e) + 1,
          bottom: Math.ceil(Math.max(toNode.d * part.top, toNode.d * part.bottom) + toNode.f) + 1,
        })
      : wholeOf(node)
    return { kind: 'made', picture: this.#pictureOf(paint.node, needed) }
  }

  #treatedFor(node: Extract<PlanNode, { kind: 'treated' }>, index: NodeIndex): JobPicture {
    const frame = this.#sources.get(node.sourceId)!
    if (this.#uses.get(node.treatedKey) === 1 && node.mipLevel === 0) return { kind: 'source', node, frame }
    const known = this.#made.get(index)
    if (known !== undefined) return { kind: 'made', picture: known }
    const picture = this.#tools.treatments.treated(node, frame)
    this.#made.set(index, picture)
    return { kind: 'made', picture }
  }

  /** The picture of a node, right in `needed` at least. */
  #pictureOf(index: NodeIndex, needed: PixelRect): HeapPicture {
    const node = this.plan.nodes[index]!
    if (node.kind === 'treated') return this.#tools.treatments.treated(node, this.#sources.get(node.sourceId)!)
    const known = this.#made.get(index)
    if (known !== undefined) return known
    // What several items read is made whole.
    const picture =
      node.kind === 'stack' ? this.#stackPicture(index, node, this.#readers[index] === 1 ? needed : wholeOf(node)) : this.#filteredPicture(index, node)
    this.#made.set(index, picture)
    return picture
  }

  #stackPicture(index: NodeIndex, node: StackNode, needed: PixelRect): HeapPicture {
    const { widthPx, heightPx } = node
    const { kept, isNew } = this.#surfaceOf(index, widthPx * heightPx * 4)
    const { at } = kept.block
    if (isNew) this.#making(kept, () => this.#drawStack(index, node, canvasOver(at, wholeOf(node)), at, this.#isStill(index) ? wholeOf(node) : needed))
    return { widthPx, heightPx, at }
  }

  #filteredPicture(index: NodeIndex, node: Extract<PlanNode, { kind: 'filtered' }>): HeapPicture {
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

  /** Where a node's picture goes: kept by what it shows if that stays, else for this run alone. `isNew`: it has to be made. */
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

  /** Makes what is to be kept; half made, it must not be found again. */
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

  /** A surface that nobody else can use, since what it shows changes from frame to frame. */
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
    const jobs = new Map<number, ItemJob>()
    const jobOf = (at: number) => {
      const job = jobs.get(at) ?? this.#jobFor(node.items[at]!)
      jobs.set(at, job)
      return job
    }
    const { back, above, isStill } = runsOf(
      node,
      (at) => this.#isItemLive(node.items[at]!),
      (at) => this.#isAbsent(node.items[at]!),
    )
    const ground = node.ground === 'black' ? OPAQUE_BLACK : 0
    const whole = wholeOf(node)
    const runs = above.map((indices, i) => (isStill[i] ? this.#stillRun(indices.map(jobOf), null, whole) : { kind: 'live' as const, job: jobOf(indices[0]!) }))
    const stack: StackRun = {
      node,
      back: back.length === 0 ? null : this.#stillRun(back.map(jobOf), ground, whole),
      above: runs,
      liveBounds: runs.reduce((all, run) => (run.kind === 'live' ? uniteRects(all, run.job.item.bounds) : all), EMPTY_RECT),
      wholeAt: null,
      stillsMade: 0,
    }
    this.#stacks.set(index, stack)
    return stack
  }

  #jobFor(item: Item): ItemJob {
    const { paint, coverage } = item
    const isOpaque = paint.kind === 'node' ? this.plan.nodes[paint.node]!.isOpaque : paint.kind === 'plain' && paint.opacity === 1
    if (coverage.reveal?.kind !== 'luma') return new ItemJob(this.#tools, item, isOpaque)
    const { reveal } = coverage
    return new LumaItemJob(this.#tools, item, reveal, {
      key: () => this.#contentKey(reveal.node),
      picture: () => this.#pictureOf(reveal.node, wholeOf(this.plan.nodes[reveal.node]!)),
    })
  }

  #isItemLive({ key, paint, coverage }: Item): boolean {
    if (this.#keysBefore !== null && !this.#keysBefore.has(key)) return true
    const isNodeLive = (index: NodeIndex) => this.#sourcesOf[index]!.some((id) => this.#sources.get(id)?.isLive === true)
    return (paint.kind === 'node' && isNodeLive(paint.node)) || (coverage.reveal?.kind === 'luma' && isNodeLive(coverage.reveal.node))
  }

  /** Whether the picture that an item shows by itself is not there; a group without some of its pictures is there. */
  #isAbsent({ paint }: Item): boolean {
    if (paint.kind !== 'node') return false
    let node = this.plan.nodes[paint.node]!
    while (node.kind === 'filtered') node = this.plan.nodes[node.of]!
    return node.kind === 'treated' && !hasAll([node.sourceId], this.#sources)
  }

  #stillRun(jobs: readonly ItemJob[], ground: number | null, whole: PixelRect): StillRun {
    const nodes = jobs.flatMap(({ item: { paint } }) => (paint.kind === 'node' ? [paint.node] : []))
    const veils = jobs.flatMap((job) => (job instanceof LumaItemJob ? [job.veilNode] : []))
    const sources = new Set([...nodes, ...veils].flatMap((index) => this.#sourcesOf[index]!))
    return new StillRun(this.#tools, jobs, ground, whole, [...sources])
  }
}

let runs = 0
