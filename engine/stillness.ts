// Which items of a plan stay as they are from frame to frame, for the live executors: pure, without pictures.
import type { FramePlan, NodeIndex, PlanNode, SourceId, StackNode } from '../core/plan/frame-plan.ts'
import type { SourceFrames } from './executor.ts'

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

/** How often each treated picture is put somewhere. */
export function usesOf({ nodes }: FramePlan): ReadonlyMap<string, number> {
  const uses = new Map<string, number>()
  const note = (index: NodeIndex) => {
    const node = nodes[index]!
    if (node.kind === 'treated') uses.set(node.treatedKey, (uses.get(node.treatedKey) ?? 0) + 1)
  }
  for (const node of nodes) {
    if (node.kind === 'filtered') note(node.of)
    if (node.kind !== 'stack') continue
    for (const { paint, coverage } of node.items) {
      if (paint.kind === 'node') note(paint.node)
      if (coverage.reveal?.kind === 'luma') note(coverage.reveal.node)
    }
  }
  return uses
}

/** How many items read each node of a plan; a node that cleans it, or a reveal by it, needs all of it and counts twice. */
export function readersOf({ nodes }: FramePlan): readonly number[] {
  const readers = nodes.map(() => 0)
  for (const node of nodes) {
    if (node.kind === 'filtered') readers[node.of]! += 2
    if (node.kind !== 'stack') continue
    for (const { paint, coverage } of node.items) {
      if (paint.kind === 'node') readers[paint.node]! += 1
      if (coverage.reveal?.kind === 'luma') readers[coverage.reveal.node]! += 2
    }
  }
  return readers
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
