// Questions to a plan.
import type { SourceId } from '../picture/source.ts'
import { firstOutput, type FramePlan, type Item, type OutputId, type PlanNode, type StackNode, type TreatedNode } from './frame-plan.ts'
import { withoutUnused } from './without-unused.ts'

/** The stack of a plan's only output. Throws a RangeError when it is no stack. */
export function rootOf(plan: FramePlan): StackNode {
  const root = plan.nodes[plan.outputs[firstOutput(plan)]!]!
  if (root.kind !== 'stack') throw new RangeError(`the output is a ${root.kind} node, not a stack`)
  return root
}

/** The treated nodes of a plan. */
export function treatedNodes({ nodes }: FramePlan): readonly TreatedNode[] {
  return nodes.filter((node) => node.kind === 'treated')
}

/** The node that an item shows; null for a plain colour or a gradient. */
export function nodeOf({ nodes }: Pick<FramePlan, 'nodes'>, { paint }: Item): PlanNode | null {
  return paint.kind === 'node' ? nodes[paint.node]! : null
}

/** A layer that a plan places. `sourceId` is null for a colour and for a group; the layers of a group are listed separately. */
export interface PlacedLayer {
  readonly layerId: string
  readonly sourceId: SourceId | null
}

/** Every layer that is put somewhere, of all stacks, each from back to front. */
export function placedLayers(plan: FramePlan): readonly PlacedLayer[] {
  return plan.nodes.flatMap((stack) =>
    stack.kind !== 'stack'
      ? []
      : stack.items.map((item) => {
          const node = nodeOf(plan, item)
          return { layerId: item.layerId, sourceId: node?.kind === 'treated' ? node.sourceId : null }
        }),
  )
}

/** What of a plan concerns one output; the plan itself where it has no other. Null where it has no such output. */
export function outputPlan(plan: FramePlan, id: OutputId): FramePlan | null {
  const root = plan.outputs[id]
  if (root === undefined) return null
  if (Object.keys(plan.outputs).length === 1) return plan
  return { ...plan, ...withoutUnused(plan.nodes, { [id]: root }), missing: plan.missingOf?.[id] ?? plan.missing }
}
