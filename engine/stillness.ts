// Which items of a plan stay as they are from frame to frame, for the live executors: pure, without pictures.
import type { SourceId } from '../core/picture/source.ts'
import type { Affine } from '../core/composite/affine.ts'
import type { PixelRect } from '../core/picture/picture.ts'
import type { FramePlan, NodeIndex, PlanNode, StackNode } from '../core/plan/frame-plan.ts'
import type { SourceFrames } from './executor.ts'
import { apart, areaOf, EMPTY_RECT, isEmptyRect, meeting, wholeOf } from '../core/picture/pixel-rect.ts'

/** The sources that each node of a plan reads, itself or by others. */
export function sourcesOfNodes(nodes: readonly PlanNode[]): readonly (readonly SourceId[])[] {
  const all: (readonly SourceId[])[] = []
  for (const node of nodes) all.push([...new Set(sourcesOf(node, all))])
  return all
}

function sourcesOf(node: PlanNode, before: readonly (readonly SourceId[])[]): readonly SourceId[] {
  if (node.kind === 'treated') return [node.sourceId]
  if (node.kind === 'filtered') return before[node.of]!
  return node.items.flatMap(({ paint, coverage }) => [
    ...(paint.kind === 'node' ? before[paint.node]! : []),
    ...(coverage.reveal?.kind === 'luma' ? before[coverage.reveal.node]! : []),
  ])
}

/** Keys of all items of a plan, to tell what moves in the next one. */
export function itemKeysOf({ nodes }: FramePlan): ReadonlySet<string> {
  return new Set(nodes.flatMap((node) => (node.kind === 'stack' ? node.items.map((item) => item.key) : [])))
}

/**
 * How much of each treated picture is put somewhere, as a multiple of its area: what is shown twice counts twice, what a stack shows
 * counts as far as somebody reads that part of the stack. Infinity where all of it is needed: to clean it further, to halve it, to
 * uncover something by it.
 */
export function shownSharesOf({ nodes, outputs }: FramePlan): ReadonlyMap<string, number> {
  const shares = new Map<string, number>()
  /** Of each node, the parts that somebody reads. */
  const read: (readonly PixelRect[])[] = nodes.map(() => [])
  for (const index of Object.values(outputs)) read[index] = [wholeOf(nodes[index]!)]
  const note = (index: NodeIndex, parts: readonly PixelRect[] | null) => {
    const node = nodes[index]!
    if (node.kind !== 'treated') return void (read[index] = parts === null ? [wholeOf(node)] : apart([...read[index]!, ...parts]))
    const isWhole = parts === null || node.mipLevel > 0
    const share = isWhole ? Infinity : parts.reduce((sum, part) => sum + areaOf(part), 0) / areaOf(wholeOf(node))
    return void shares.set(node.treatedKey, (shares.get(node.treatedKey) ?? 0) + share)
  }
  // A node reads earlier ones only: from the last on, who reads it is known.
  for (let index = nodes.length - 1; index >= 0; index -= 1) {
    const node = nodes[index]!
    if (node.kind === 'filtered') note(node.of, null)
    if (node.kind !== 'stack') continue
    for (const { paint, coverage, bounds } of node.items) {
      if (coverage.reveal?.kind === 'luma') note(coverage.reveal.node, null)
      if (paint.kind !== 'node') continue
      const painted = nodes[paint.node]!
      const parts = read[index]!.map((part) => meeting(part, bounds)).filter((part) => !isEmptyRect(part))
      note(paint.node, painted.kind === 'treated' ? parts : parts.map((part) => partRead(painted, paint.toNode, part)))
    }
  }
  return shares
}

/** The pixels of a node that an item reads to fill a part of its stack; all of them when it is turned. */
export function partRead(node: PlanNode, { a, b, c, d, e, f }: Affine, part: PixelRect): PixelRect {
  if (isEmptyRect(part)) return EMPTY_RECT
  if (b !== 0 || c !== 0) return wholeOf(node)
  return meeting(wholeOf(node), {
    left: Math.floor(Math.min(a * part.left, a * part.right) + e) - 1,
    top: Math.floor(Math.min(d * part.top, d * part.bottom) + f) - 1,
    right: Math.ceil(Math.max(a * part.left, a * part.right) + e) + 1,
    bottom: Math.ceil(Math.max(d * part.top, d * part.bottom) + f) + 1,
  })
}

export interface Runs {
  /** Indices of the items at the back that are still, on the ground. */
  readonly back: readonly number[]
  /** What follows: one live item, or still ones that may be flattened over nothing. */
  readonly above: readonly (readonly number[])[]
  /** Whether each of `above` is still. */
  readonly isStill: readonly boolean[]
}

/**
 * Splits the items of a stack into maximal still runs and live items. Above a live item only what is blended normally may be flattened
 * on its own; else it is drawn anew each time. `isLive` says so of an item by its index; those left out (`isAbsent`) are in no run.
 */
export function runsOf({ items }: StackNode, isLive: (index: number) => boolean, isAbsent: (index: number) => boolean): Runs {
  const back: number[] = []
  const above: number[][] = []
  const isStill: boolean[] = []
  items.forEach((item, index) => {
    if (isAbsent(index)) return
    const live = isLive(index)
    if (above.length === 0 && !live) return back.push(index)
    const flattens = !live && item.blend === 'normal'
    if (flattens && isStill.at(-1) === true) return above.at(-1)!.push(index)
    above.push([index])
    return isStill.push(flattens)
  })
  return { back, above, isStill }
}

/** Whether every source of a list has a picture. */
export function hasAll(sourceIds: readonly SourceId[], frames: SourceFrames): boolean {
  return sourceIds.every((id) => frames.has(id))
}
