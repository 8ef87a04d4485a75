// What to draw of a show at one moment.
import { newInputLayer } from '../layers/input.ts'
import type { SourceInfos, SourceInfo } from '../picture/source.ts'
import { putLayers } from '../compose/index.ts'
import { putSceneDrawing } from '../compose/drawing.ts'
import { putSource } from '../compose/picture.ts'
import { type Place, type StageClock } from '../compose/place.ts'
import { inputSourceId } from '../inputs/source-ids.ts'
import type { Show } from '../show/show.ts'
import { styledScene, styledShow } from '../show/style.ts'
import { putPointer } from './pointer.ts'
import { isTransition, progressOf, settled, type OutputStage, type SceneStage, type Stage } from './stage.ts'
import type { WallClock } from '../text/fields.ts'
import { putTransition } from '../transitions/index.ts'
import type { TransitionSide } from '../transitions/definition.ts'
import { pictureOf, wholeItem } from '../transitions/whole.ts'
import type { StepCall } from '../steps/index.ts'
import type { FramePlan, Item, MissingPicture, NodeIndex, OutputId, StackNode } from '../plan/frame-plan.ts'
import { PlanBuilder, StackItems } from '../plan/plan-builder.ts'
import { withoutUnused } from '../plan/without-unused.ts'

/** The root that a plan for one stage has. */
export const PICTURE: OutputId = 'picture'

export interface PlanOptions {
  /** Pixels of the picture for one of the canvas, for small views: the plan is scaled, never the show. */
  readonly scale?: number
  /** Whether invisible items are dropped; the picture is the same either way. */
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
  readonly id: OutputId
  readonly widthPx: number
  readonly heightPx: number
  readonly ground: StackNode['ground']
  readonly items: readonly Item[]
  readonly missing: readonly MissingPicture[]
}

/** The same for several outputs over one list of nodes: what those of one size share, from the back on, is made once. At least one. */
export function planOutputs(
  given: Show,
  stages: Readonly<Record<OutputId, Stage | OutputStage>>,
  timeMs: number,
  infos: SourceInfos,
  { scale: usualScale = 1, culls = true, wall = NO_WALL }: PlanOptions = {},
): FramePlan {
  const show = styledShow(given)
  const builder = new PlanBuilder()
  const gathered = Object.entries(stages).map(([id, one]): Gathered => {
    const { stage, over, scale, pointer }: OutputStage = 'over' in one ? one : { stage: one, over: [], scale: usualScale }
    const widthPx = Math.max(1, Math.round(show.canvas.widthPx * scale))
    const heightPx = Math.max(1, Math.round(show.canvas.heightPx * scale))
    const stack = new StackItems(builder, widthPx, heightPx, culls)
    const clock = { timeMs, enteredMs: null, leavesMs: null }
    const place: ShowPlace = { show, infos, builder, stack, scale, widthPx, heightPx, culls, wall, drawings: null, motion: null, putLayers, clock, within: [] }
    const seen = settled(stage, timeMs)
    const ground = groundOf(seen)
    putStage(place, seen, ground)
    for (const each of over) putStage(place, each, ground)
    if (pointer !== undefined) putPointer(stack, pointer, widthPx, heightPx)
    return { id, widthPx, heightPx, ground, items: stack.items, missing: stack.missing }
  })
  const outputs = outputsOf(builder, gathered)
  const missing = new Map(gathered.flatMap((one) => one.missing.map((each) => [each.layerId, each] as const)))
  const plan = planOf(builder, outputs, [...missing.values()])
  return gathered.length === 1 ? plan : { ...plan, missingOf: Object.fromEntries(gathered.map((one) => [one.id, one.missing])) }
}

/** One stack per output. Items that outputs of the same size share form a stack of their own, drawn once. */
function outputsOf(builder: PlanBuilder, gathered: readonly Gathered[]): Record<OutputId, NodeIndex> {
  const outputs: Record<OutputId, NodeIndex> = {}
  for (const { id, ground, widthPx, heightPx, items } of gathered) outputs[id] = builder.stack(ground, widthPx, heightPx, items)
  const isAlike = (one: Gathered) => (other: Gathered) => one.widthPx === other.widthPx && one.heightPx === other.heightPx
  for (const first of gathered.filter((one, index) => gathered.findIndex(isAlike(one)) === index)) {
    const alike = gathered.filter(isAlike(first))
    const shared = sharedItems(alike)
    if (shared.length === 0) continue
    const { ground, widthPx, heightPx } = first
    const base = builder.item(wholeItem(widthPx, heightPx, pictureOf(builder.stack(ground, widthPx, heightPx, shared)), shared.at(-1)!.layerId))
    for (const { id, items } of alike) {
      if (items.length > shared.length) outputs[id] = builder.stack(ground, widthPx, heightPx, [base, ...items.slice(shared.length)])
    }
  }
  return outputs
}

/** A place that knows the whole show, with its style. */
type ShowPlace = Place & { readonly show: Show }

const sideOf = (place: ShowPlace, { scene }: SceneStage) => ({ sceneId: scene.id, layers: styledScene(place.show.style, scene).layers, place })

/** A place for the layers of a scene: its own show's, which may have another canvas than the one that is planned. */
function placeOf(place: ShowPlace, { show: own, scene, drawings, ...stage }: SceneStage): ShowPlace {
  const show = own === undefined ? place.show : styledShow(own)
  const canvasScale = show === place.show ? 1 : Math.min(place.show.canvas.widthPx / show.canvas.widthPx, place.show.canvas.heightPx / show.canvas.heightPx)
  return {
    ...place,
    show,
    scale: place.scale * canvasScale,
    drawings: drawings ?? null,
    clock: clockOf({ scene, ...stage }, place.clock.timeMs),
    within: [scene.id],
  }
}

/** Puts a stage into a stack: a scene's layers, or two stages on the way from one to the other. */
function putStage(place: ShowPlace, stage: Stage, ground: StackNode['ground']): void {
  const { timeMs } = place.clock
  if (!isTransition(stage)) {
    const inPlace = placeOf(place, stage)
    place.putLayers(inPlace, styledScene(inPlace.show.style, stage.scene).layers)
    putSceneDrawing(inPlace, stage.scene.id)
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
    scene: isTransition(one) ? null : sideOf(placeOf(place, one), one),
  })
  putTransition({ place, ground, from: side(stage.from), to: side(stage.to) }, stage.transition, progressOf(stage, timeMs))
}

function clockOf({ enteredMs, leavesMs }: SceneStage, timeMs: number): StageClock {
  return { timeMs, enteredMs: enteredMs ?? null, leavesMs: leavesMs ?? null }
}

function groundOf(stage: Stage): StackNode['ground'] {
  return (isTransition(stage) ? stage.to.ground : stage.ground) ?? 'black'
}

/** The items at the back that all outputs share; empty unless there are several outputs and several such items. */
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
