// A stack prepared for drawing: still items are flattened into runs, moving ones get a job each.
import type { SourceId } from '../../core/picture/source.ts'
import type { PixelRect } from '../../core/picture/picture.ts'
import { EMPTY_RECT, uniteRects, wholeOf } from '../../core/picture/pixel-rect.ts'
import type { FramePlan, Item, NodeIndex, StackNode } from '../../core/plan/frame-plan.ts'
import type { SourceFrames } from '../executor.ts'
import { hasAll, runsOf } from '../stillness.ts'
import { ItemJob, type JobTools } from './item-job.ts'
import { LumaItemJob, type Veil } from './luma-item-job.ts'
import { StillRun } from './still-run.ts'

export const OPAQUE_BLACK = 0xff000000

export interface LiveRun {
  readonly kind: 'live'
  readonly job: ItemJob
}

/** A stack with what it is made of, as long as plan and sources stay. */
export interface StackRun {
  readonly node: StackNode
  readonly back: StillRun | null
  readonly above: readonly (StillRun | LiveRun)[]
  /** Everything a live item may touch. */
  readonly liveBounds: PixelRect
  /** Where its pixels lie, and whether all of them are there from the last frame. */
  wholeAt: number | null
}

/** Facts about the plan that the stack belongs to. */
export interface StackFacts {
  readonly tools: JobTools
  readonly plan: FramePlan
  readonly sources: SourceFrames
  /** Item keys of the previous plan: new items count as moving. Null: none does. */
  readonly keysBefore: ReadonlySet<string> | null
  /** The sources that a node reads. */
  readonly sourcesOf: readonly (readonly SourceId[])[]
  readonly veilOf: (node: NodeIndex) => Veil
}

/** Makes a stack ready. */
export function stackRunOf(node: StackNode, facts: StackFacts): StackRun {
  const jobs = new Map<number, ItemJob>()
  const jobOf = (at: number) => {
    const job = jobs.get(at) ?? jobFor(node.items[at]!, facts)
    jobs.set(at, job)
    return job
  }
  const { back, above, isStill } = runsOf(
    node,
    (at) => isItemLive(node.items[at]!, facts),
    (at) => isAbsent(node.items[at]!, facts),
  )
  const whole = wholeOf(node)
  const runs = above.map((indices, i) => (isStill[i] ? stillRunOf(indices.map(jobOf), null, whole, facts) : { kind: 'live' as const, job: jobOf(indices[0]!) }))
  return {
    node,
    back: back.length === 0 ? null : stillRunOf(back.map(jobOf), node.ground === 'black' ? OPAQUE_BLACK : 0, whole, facts),
    above: runs,
    liveBounds: runs.reduce((all, run) => (run.kind === 'live' ? uniteRects(all, run.job.item.bounds) : all), EMPTY_RECT),
    wholeAt: null,
  }
}

function jobFor(item: Item, { tools, plan, veilOf }: StackFacts): ItemJob {
  const { paint, coverage } = item
  const isOpaque = paint.kind === 'node' ? plan.nodes[paint.node]!.isOpaque : paint.kind === 'plain' && paint.opacity === 1
  if (coverage.reveal?.kind !== 'luma') return new ItemJob(tools, item, isOpaque)
  return new LumaItemJob(tools, item, coverage.reveal, veilOf(coverage.reveal.node))
}

function isItemLive({ key, paint, coverage }: Item, { keysBefore, sourcesOf, sources }: StackFacts): boolean {
  if (keysBefore !== null && !keysBefore.has(key)) return true
  const isNodeLive = (index: NodeIndex) => sourcesOf[index]!.some((id) => sources.get(id)?.isLive === true)
  return (paint.kind === 'node' && isNodeLive(paint.node)) || (coverage.reveal?.kind === 'luma' && isNodeLive(coverage.reveal.node))
}

/** Whether the item's own picture is missing; a group with missing pictures inside counts as present. */
function isAbsent({ paint }: Item, { plan, sources }: StackFacts): boolean {
  if (paint.kind !== 'node') return false
  let node = plan.nodes[paint.node]!
  while (node.kind === 'filtered') node = plan.nodes[node.of]!
  return node.kind === 'treated' && !hasAll([node.sourceId], sources)
}

function stillRunOf(jobs: readonly ItemJob[], ground: number | null, whole: PixelRect, { tools, sourcesOf }: StackFacts): StillRun {
  const nodes = jobs.flatMap(({ item: { paint } }) => (paint.kind === 'node' ? [paint.node] : []))
  const veils = jobs.flatMap((job) => (job instanceof LumaItemJob ? [job.veilNode] : []))
  const read = new Set([...nodes, ...veils].flatMap((index) => sourcesOf[index]!))
  return new StillRun(tools, jobs, ground, whole, [...read])
}
