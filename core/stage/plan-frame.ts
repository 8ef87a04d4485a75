// What to draw of a show at one moment.
import { newInputLayer } from '../layers/input.ts'
import type { SourceInfos, SourceInfo } from '../picture/source.ts'
import { putLayers } from '../compose/index.ts'
import { putSource } from '../compose/picture.ts'
import { type Place, type StageClock } from '../compose/place.ts'
import { inputSourceId } from '../inputs/source-ids.ts'
import type { Show } from '../show/show.ts'
import { isTransition, progressOf, settled, type SceneStage, type Stage } from './stage.ts'
import type { WallClock } from '../text/fields.ts'
import { putTransition } from '../transitions/index.ts'
import type { TransitionSide } from '../transitions/definition.ts'
import { pictureOf, wholeItem } from '../transitions/whole.ts'
import type { StepCall } from '../steps/index.ts'
import type { FramePlan, Item, MissingPicture, OutputId, StackNode } from '../plan/frame-plan.ts'
import { PlanBuilder, StackItems } from '../plan/plan-builder.ts'
import { withoutUnused } from '../plan/without-unused.ts'

/** The root that a plan for one stage has. */
export const PICTURE: OutputId = 'picture'

export interface PlanOptions {
  /** Pixels of the picture for one of the canvas, for small views: the plan is scaled, never the show. */
  readonly scale?: number
  /** Whether what nobody can see falls out; the picture is the same with and without. */
  readonly culls?: boolean
  /** What time it is for texts that tell it. */
  readonly wall?: WallClock
}

/** For those who have no clock: the first day of 1970. */
const NO_WALL: WallClock = { epochMs: 0, utcOffsetMin: 0, locale: 'en-GB' }

/**
 * What to draw of `show` as `stage` has it, at `timeMs` of the stage's clock. Pure and cheap; the result holds until the
 * show, the stage or a source's size changes, or `validUntilMs` is over.
 */
export function planFrame(show: Show, stage: Stage, timeMs: number, infos: SourceInfos, options: PlanOptions = {}): FramePlan {
  return planOutputs(show, { [PICTURE]: stage }, timeMs, infos, options)
}

interface Gathered {
  readonly ground: StackNode['ground']
  readonly items: readonly Item[]
  readonly missing: readonly MissingPicture[]
}

/** The same for several outputs over one list of nodes: what they share, from the back on, is made once. At least one. */
export function planOutputs(
  show: Show,
  stages: Readonly<Record<OutputId, Stage>>,
  timeMs: number,
  infos: SourceInfos,
  { scale = 1, culls = true, wall = NO_WALL }: PlanOptions = {},
): FramePlan {
  const builder = new PlanBuilder()
  const widthPx = Math.max(1, Math.round(show.canvas.widthPx * scale))
  const heightPx = Math.max(1, Math.round(show.canvas.heightPx * scale))
  const common = { show, infos, builder, scale, widthPx, heightPx, culls, wall, motion: null, putLayers }
  const gather = (stage: Stage): Gathered => {
    const stack = new StackItems(builder, widthPx, heightPx, culls)
    const ground = groundOf(stage)
    putStage({ ...common, stack, clock: { timeMs, enteredMs: null, leavesMs: null }, within: [] }, stage, ground)
    return { ground, items: stack.items, missing: stack.missing }
  }
  const gathered = Object.entries(stages).map(([id, stage]) => ({ id, ...gather(settled(stage, timeMs)) }))
  const outputs = Object.fromEntries(gathered.map(({ id, ground, items }) => [id, builder.stack(ground, widthPx, heightPx, items)]))
  const shared = sharedItems(gathered)
  if (shared.length > 0) {
    const { ground } = gathered[0]!
    const base = builder.item(wholeItem(widthPx, heightPx, pictureOf(builder.stack(ground, widthPx, heightPx, shared)), shared.at(-1)!.layerId))
    for (const { id, items } of gathered) {
      if (items.length > shared.length) outputs[id] = builder.stack(ground, widthPx, heightPx, [base, ...items.slice(shared.length)])
    }
  }
  const missing = new Map(gathered.flatMap((one) => one.missing.map((each) => [each.layerId, each] as const)))
  return planOf(builder, outputs, [...missing.values()])
}

/** Puts a stage into a stack: a scene's layers, or two stages on the way from one to the other. */
function putStage(place: Place, stage: Stage, ground: StackNode['ground']): void {
  const { timeMs } = place.clock
  if (!isTransition(stage)) {
    const { scene } = stage
    place.putLayers({ ...place, clock: clockOf(stage, timeMs), within: [scene.id] }, scene.layers)
    return
  }
  place.builder.changesAt(timeMs)
  const side = (one: Stage): TransitionSide => ({
    put: () => putStage(place, one, ground),
    node: () => {
      const { builder, widthPx, heightPx, culls } = place
      const stack = new StackItems(builder, widthPx, heightPx, culls)
      putStage({ ...place, stack }, one, ground)
      for (const missing of stack.missing) place.stack.miss(missing)
      return builder.stack(ground, widthPx, heightPx, stack.items)
    },
    scene: isTransition(one) ? null : { layers: one.scene.layers, place: { ...place, clock: clockOf(one, timeMs), within: [one.scene.id] } },
  })
  putTransition({ place, ground, from: side(stage.from), to: side(stage.to) }, stage.transition, progressOf(stage, timeMs))
}

function clockOf({ enteredMs, leavesMs }: SceneStage, timeMs: number): StageClock {
  return { timeMs, enteredMs: enteredMs ?? null, leavesMs: leavesMs ?? null }
}

function groundOf(stage: Stage): StackNode['ground'] {
  return (isTransition(stage) ? stage.to.ground : stage.ground) ?? 'black'
}

/** The items at the back that all outputs have, if that is worth a picture of its own: more than one output, and more than one item. */
function sharedItems(gathered: readonly { readonly ground: StackNode['ground']; readonly items: readonly Item[] }[]): readonly Item[] {
  const [first, ...others] = gathered
  if (others.length === 0 || others.some(({ ground }) => ground !== first!.ground)) return []
  const differs = first!.items.findIndex((item, i) => others.some(({ items }) => items[i]?.key !== item.key))
  const shared = differs < 0 ? first!.items : first!.items.slice(0, differs)
  return shared.length > 1 ? shared : []
}

function planOf(builder: PlanBuilder, roots: FramePlan['outputs'], missing: FramePlan['missing']): FramePlan {
  const { nodes, outputs } = withoutUnused(builder.nodes, roots)
  const shown = new Set(nodes.map((node) => (node.kind === 'treated' ? node.sourceId : '')))
  const areShown = <T extends { readonly sourceId: string }>(jobs: Iterable<T>) => [...jobs].filter(({ sourceId }) => shown.has(sourceId))
  const { texts, outlines, validUntilMs } = builder
  return { nodes, outputs, texts: areShown(texts.values()), outlines: areShown(outlines.values()), missing, validUntilMs }
}

/** A plan for one input alone, filling a picture; `steps` as given. Clear ground. */
export function planInput(inputId: string, info: SourceInfo, steps: readonly StepCall[], widthPx: number, heightPx: number): FramePlan {
  const builder = new PlanBuilder()
  const stack = new StackItems(builder, widthPx, heightPx, false)
  const canvas = { widthPx, heightPx, frameRate: 30 }
  const layer = newInputLayer({ id: inputId, kind: 'picture', name: '', asset: '', treatment: [] }, canvas, () => 'alone')
  const place: Pick<Place, 'builder' | 'stack' | 'scale' | 'widthPx' | 'heightPx' | 'culls' | 'motion'> = {
    builder,
    stack,
    scale: 1,
    widthPx,
    heightPx,
    culls: false,
    motion: null,
  }
  putSource(place as Place, layer, layer.placement, inputSourceId(inputId), info, steps)
  return planOf(builder, { [PICTURE]: builder.stack('clear', widthPx, heightPx, stack.items) }, [])
}
