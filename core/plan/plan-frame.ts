// What to draw of a show at one moment.
import { translation } from '../composite/affine.ts'
import { plainCoverage } from '../composite/coverage.ts'
import { putLayers } from '../layers/index.ts'
import { activeSteps, putSource, type Place, type SourceInfos } from '../layers/place.ts'
import { inputSourceId, plainSourceId } from '../layers/sources.ts'
import { newInputLayer } from '../show/create.ts'
import type { Scene, Show } from '../show/show.ts'
import type { StepCall } from '../steps/index.ts'
import type { FramePlan, Item, NodeIndex, OutputId, SourceInfo, StackNode } from './frame-plan.ts'
import { PlanBuilder, StackItems } from './plan-builder.ts'
import { withoutUnused } from './without-unused.ts'

export { activeSteps, inputSourceId, plainSourceId, type SourceInfos }

/** What an output shows. */
export interface Stage {
  readonly scene: Scene
  /** What lies under the scene; black unless it says otherwise. */
  readonly ground?: StackNode['ground']
}

/** The root that a plan for one stage has. */
export const PICTURE: OutputId = 'picture'

export interface PlanOptions {
  /** Pixels of the picture for one of the canvas, for small views: the plan is scaled, never the show. */
  readonly scale?: number
  /** Whether what nobody can see falls out; the picture is the same with and without. */
  readonly culls?: boolean
}

/**
 * What to draw of `show` as `stage` has it, `timeMs` after the clock of the stage began. Pure and cheap; the result holds until the
 * show, the stage or a source's size changes, or `validUntilMs` is over.
 */
export function planFrame(show: Show, stage: Stage, timeMs: number, infos: SourceInfos, options: PlanOptions = {}): FramePlan {
  return planOutputs(show, { [PICTURE]: stage }, timeMs, infos, options)
}

/** The same for several outputs over one list of nodes: what they share, from the back on, is made once. At least one. */
export function planOutputs(
  show: Show,
  stages: Readonly<Record<OutputId, Stage>>,
  _timeMs: number,
  infos: SourceInfos,
  { scale = 1, culls = true }: PlanOptions = {},
): FramePlan {
  const builder = new PlanBuilder()
  const widthPx = Math.max(1, Math.round(show.canvas.widthPx * scale))
  const heightPx = Math.max(1, Math.round(show.canvas.heightPx * scale))
  const gathered = Object.entries(stages).map(([id, { scene, ground = 'black' }]) => {
    const stack = new StackItems(builder, widthPx, heightPx, culls)
    putLayers({ show, infos, builder, stack, scale, widthPx, heightPx, culls, within: [scene.id], putLayers }, scene.layers)
    return { id, ground, items: stack.items, missing: stack.missing }
  })
  const outputs = Object.fromEntries(gathered.map(({ id, ground, items }) => [id, builder.stack(ground, widthPx, heightPx, items)]))
  const shared = sharedItems(gathered)
  if (shared.length > 0) {
    const { ground } = gathered[0]!
    const base = builder.item({ ...wholeOf(builder.stack(ground, widthPx, heightPx, shared), widthPx, heightPx), layerId: shared.at(-1)!.layerId })
    for (const { id, items } of gathered) {
      if (items.length > shared.length) outputs[id] = builder.stack(ground, widthPx, heightPx, [base, ...items.slice(shared.length)])
    }
  }
  const missing = new Map(gathered.flatMap((one) => one.missing.map((each) => [each.layerId, each] as const)))
  return planOf(builder, outputs, [...missing.values()])
}

/** The items at the back that all outputs have, if that is worth a picture of its own: more than one output, and more than one item. */
function sharedItems(gathered: readonly { readonly ground: StackNode['ground']; readonly items: readonly Item[] }[]): readonly Item[] {
  const [first, ...others] = gathered
  if (others.length === 0 || others.some(({ ground }) => ground !== first!.ground)) return []
  const differs = first!.items.findIndex((item, i) => others.some(({ items }) => items[i]?.key !== item.key))
  const shared = differs < 0 ? first!.items : first!.items.slice(0, differs)
  return shared.length > 1 ? shared : []
}

/** A node over all of a stack of its size. */
function wholeOf(node: NodeIndex, widthPx: number, heightPx: number) {
  return {
    paint: { kind: 'node' as const, node, toNode: translation(0, 0) },
    coverage: plainCoverage({ kind: 'roundedRect', width: widthPx, height: heightPx, cornerRadius: 0 }),
    toCoverage: translation(0, 0),
    bounds: { left: 0, top: 0, right: widthPx, bottom: heightPx },
    opacity: 1,
    blend: 'normal' as const,
  }
}

function planOf(builder: PlanBuilder, roots: FramePlan['outputs'], missing: FramePlan['missing']): FramePlan {
  const { nodes, outputs } = withoutUnused(builder.nodes, roots)
  const shown = new Set(nodes.map((node) => (node.kind === 'treated' ? node.sourceId : '')))
  return { nodes, outputs, texts: [...builder.texts.values()].filter((text) => shown.has(text.sourceId)), missing, validUntilMs: Infinity }
}

/** A plan for one input alone, filling a picture; `steps` as given. Clear ground. */
export function planInput(inputId: string, info: SourceInfo, steps: readonly StepCall[], widthPx: number, heightPx: number): FramePlan {
  const builder = new PlanBuilder()
  const stack = new StackItems(builder, widthPx, heightPx, false)
  const canvas = { widthPx, heightPx, frameRate: 30 }
  const layer = newInputLayer({ id: inputId, kind: 'picture', name: '', asset: '', treatment: [] }, canvas, () => 'alone')
  const place: Pick<Place, 'builder' | 'stack' | 'scale' | 'widthPx' | 'heightPx' | 'culls'> = { builder, stack, scale: 1, widthPx, heightPx, culls: false }
  putSource(place as Place, layer, layer.placement, inputSourceId(inputId), info, steps)
  return planOf(builder, { [PICTURE]: builder.stack('clear', widthPx, heightPx, stack.items) }, [])
}
