// What to draw of a show at one moment.
import { putLayers } from '../layers/index.ts'
import { activeSteps, putSource, type Place, type SourceInfos } from '../layers/place.ts'
import { inputSourceId, plainSourceId } from '../layers/sources.ts'
import { newInputLayer } from '../show/create.ts'
import type { Scene, Show } from '../show/show.ts'
import type { StepCall } from '../steps/index.ts'
import type { FramePlan, NodeIndex, OutputId, SourceInfo, StackNode } from './frame-plan.ts'
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
export function planFrame(show: Show, stage: Stage, _timeMs: number, infos: SourceInfos, { scale = 1, culls = true }: PlanOptions = {}): FramePlan {
  const builder = new PlanBuilder()
  const widthPx = Math.max(1, Math.round(show.canvas.widthPx * scale))
  const heightPx = Math.max(1, Math.round(show.canvas.heightPx * scale))
  const stack = new StackItems(builder, widthPx, heightPx, culls)
  putLayers({ show, infos, builder, stack, scale, widthPx, heightPx, culls, within: [stage.scene.id], putLayers }, stage.scene.layers)
  return planOf(builder, builder.stack(stage.ground ?? 'black', widthPx, heightPx, stack.items), stack.missing)
}

function planOf(builder: PlanBuilder, root: NodeIndex, missing: FramePlan['missing']): FramePlan {
  const { nodes, outputs } = withoutUnused(builder.nodes, { [PICTURE]: root })
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
  return planOf(builder, builder.stack('clear', widthPx, heightPx, stack.items), [])
}
