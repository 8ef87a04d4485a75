// Where the layers of a list are put: a stack of a plan, and what their pictures are known by.
import { inverse, type Affine } from '../composite/affine.ts'
import type { EdgeReveal } from '../composite/coverage.ts'
import { boxToCanvas } from '../layout/placement.ts'
import type { SourceId, SourceInfo } from '../plan/frame-plan.ts'
import type { PlanBuilder, StackItems } from '../plan/plan-builder.ts'
import type { Layer, Placement, Show, Step } from '../show/show.ts'
import type { StepCall } from '../steps/index.ts'
import type { WallClock } from '../text/fields.ts'

/** Sizes of the sources that have a picture now. */
export type SourceInfos = ReadonlyMap<SourceId, SourceInfo>

/** The clock of what is on stage, in ms. */
export interface StageClock {
  readonly timeMs: number
  /** When the scene came, and its layers with it; null: they have been there for ever. */
  readonly enteredMs: number | null
  /** When it begins to go; null: it stays. */
  readonly leavesMs: number | null
}

/** What a moment makes of a layer that comes or goes, beside its place. */
export interface LayerMotion {
  /** Where it rests, in pixels of the show's canvas: its words are set, and its layers planned, as large as there. */
  readonly rest: Placement
  readonly reveal: EdgeReveal | null
  /** Share of its letters that are there. */
  readonly typed: number
}

export interface Place {
  readonly show: Show
  readonly infos: SourceInfos
  readonly builder: PlanBuilder
  readonly stack: StackItems
  /** Pixels of the stack for one of the show's canvas. */
  readonly scale: number
  readonly widthPx: number
  readonly heightPx: number
  readonly culls: boolean
  readonly clock: StageClock
  readonly wall: WallClock
  /** Of the layer that is put now; null at rest. */
  readonly motion: LayerMotion | null
  /** Scenes that this one is shown in; none of them is shown again. */
  readonly within: readonly string[]
  /** Puts a list of layers somewhere: a group and a scene do so with theirs. */
  readonly putLayers: (place: Place, layers: readonly Layer[]) => void
}

/** A layer kind: one file, and one line in index.ts. */
export interface LayerKindDefinition<K extends Layer['kind']> {
  readonly kind: K
  /** Puts a visible layer of this kind into a stack, or notes what it lacks. */
  readonly put: (place: Place, layer: Extract<Layer, { kind: K }>) => void
}

export function scaledPlacement(placement: Placement, scale: number): Placement {
  if (scale === 1) return placement
  const { x, y, width, height } = placement
  return { ...placement, x: x * scale, y: y * scale, width: width * scale, height: height * scale }
}

/** From pixels of a stack to those of a box that lies in it. */
export function toBox(placement: Placement): Affine {
  return inverse(boxToCanvas(placement))
}

const callsCache = new WeakMap<readonly Step[], WeakMap<readonly Step[], readonly StepCall[]>>()
export const NO_STEPS: readonly Step[] = []
export const NO_CALLS: readonly StepCall[] = []

/** The steps that are on of a treatment and of what follows it; the same list for the same two. */
export function callsOf(everywhere: readonly Step[], here: readonly Step[]): readonly StepCall[] {
  let known = callsCache.get(everywhere)
  if (known === undefined) callsCache.set(everywhere, (known = new WeakMap()))
  let calls = known.get(here)
  if (calls === undefined) known.set(here, (calls = [...activeSteps(everywhere), ...activeSteps(here)]))
  return calls
}

/** The steps of a treatment that are on. */
export function activeSteps(treatment: readonly Step[]): StepCall[] {
  return treatment.filter((step) => step.on).map(({ kind, params }) => ({ kind, params }) as StepCall)
}
