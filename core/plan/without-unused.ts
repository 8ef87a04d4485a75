import type { FramePlan, Item, NodeIndex, PlanNode } from './frame-plan.ts'

/** The nodes that the outputs need, in the same order; nodes used only by covered items are left out. */
export function withoutUnused(nodes: readonly PlanNode[], outputs: FramePlan['outputs']): Pick<FramePlan, 'nodes' | 'outputs'> {
  const used = new Set<NodeIndex>()
  const use = (index: NodeIndex): void => {
    if (used.has(index)) return
    used.add(index)
    readBy(nodes[index]!).forEach(use)
  }
  Object.values(outputs).forEach(use)
  if (used.size === nodes.length) return { nodes, outputs }
  const placeOf = new Map<NodeIndex, NodeIndex>()
  const kept = nodes.flatMap((node, index) => {
    if (!used.has(index)) return []
    placeOf.set(index, placeOf.size)
    return [moved(node, (old) => placeOf.get(old)!)]
  })
  return { nodes: kept, outputs: Object.fromEntries(Object.entries(outputs).map(([id, index]) => [id, placeOf.get(index)!])) }
}

/** The nodes that a node reads. */
export function readBy(node: PlanNode): NodeIndex[] {
  if (node.kind === 'treated') return []
  if (node.kind === 'filtered') return [node.of]
  return node.items.flatMap(({ paint, coverage: { reveal } }) => [
    ...(paint.kind === 'node' ? [paint.node] : []),
    ...(reveal?.kind === 'luma' ? [reveal.node] : []),
  ])
}

function moved(node: PlanNode, placeOf: (index: NodeIndex) => NodeIndex): PlanNode {
  if (node.kind === 'treated') return node
  if (node.kind === 'filtered') return { ...node, of: placeOf(node.of) }
  return { ...node, items: node.items.map((item) => movedItem(item, placeOf)) }
}

function movedItem(item: Item, placeOf: (index: NodeIndex) => NodeIndex): Item {
  const { paint, coverage } = item
  const { reveal } = coverage
  return {
    ...item,
    paint: paint.kind === 'node' ? { ...paint, node: placeOf(paint.node) } : paint,
    coverage: reveal?.kind === 'luma' ? { ...coverage, reveal: { ...reveal, node: placeOf(reveal.node) } } : coverage,
  }
}
