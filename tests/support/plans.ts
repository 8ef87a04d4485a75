// Plans made by hand, for tests of what is done with them.
import type { SourceId } from '../../core/picture/source.ts'
import { plainCoverage } from '../../core/composite/coverage.ts'
import { translation } from '../../core/composite/affine.ts'
import type { FramePlan, Item, StackNode } from '../../core/plan/frame-plan.ts'
import { PlanBuilder } from '../../core/plan/plan-builder.ts'
import { PICTURE } from '../../core/stage/plan-frame.ts'
import type { StepCall } from '../../core/steps/index.ts'

/** Pictures of 4 × 4 pixels over each other. */
export function planOfLayers(layers: readonly { readonly layerId: string; readonly sourceId: SourceId }[]): FramePlan {
  const builder = new PlanBuilder()
  const items = layers.map(({ layerId, sourceId }) =>
    builder.item({
      layerId,
      paint: { kind: 'node', node: builder.treated(sourceId, { widthPx: 4, heightPx: 4, isOpaque: true }, [], 0), toNode: translation(0, 0) },
      coverage: plainCoverage({ kind: 'roundedRect', width: 4, height: 4, cornerRadius: 0 }),
      toCoverage: translation(0, 0),
      bounds: { left: 0, top: 0, right: 4, bottom: 4 },
      opacity: 1,
      blend: 'normal',
    }),
  )
  const root = builder.stack('black', 4, 4, items)
  return { nodes: builder.nodes, outputs: { [PICTURE]: root }, texts: [], outlines: [], missing: [], validUntilMs: Infinity }
}

/** The plan with other items at its root. */
export function withItems(plan: FramePlan, ground: StackNode['ground'], change: (items: readonly Item[]) => readonly Omit<Item, 'key'>[]): FramePlan {
  const builder = new PlanBuilder()
  builder.nodes.push(...plan.nodes)
  const root = plan.nodes[plan.outputs[PICTURE]!] as StackNode
  const index = builder.stack(
    ground,
    root.widthPx,
    root.heightPx,
    change(root.items).map((parts) => builder.item(parts)),
  )
  return { ...plan, nodes: builder.nodes, outputs: { [PICTURE]: index } }
}

/** The plan with other steps for a source. */
export function withSteps(plan: FramePlan, sourceId: SourceId, steps: readonly StepCall[], treatedKey: string): FramePlan {
  const nodes = plan.nodes.map((node) =>
    node.kind === 'treated' && node.sourceId === sourceId ? { ...node, steps, treatedKey, key: `${treatedKey} /${node.mipLevel}` } : node,
  )
  return { ...plan, nodes }
}
