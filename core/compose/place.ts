// Where the layers of a list are put: a stack of a plan, and what their pictures are known by.
import { inverse, type Affine } from '../composite/affine.ts'
import type { EdgeReveal } from '../composite/coverage.ts'
import { boxToCanvas, type Placement } from '../box/placement.ts'
import type { Drawings } from '../drawing/surface.ts'
import type { Input } from '../inputs/input.ts'
import type { SourceInfos } from '../picture/source.ts'
import type { PlanBuilder, StackItems } from '../plan/plan-builder.ts'
import type { Content, Layer, LayerKind, LayerOf } from '../layers/layer.ts'
import type { FieldSource, WallClock } from '../text/fields.ts'

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

/** What layers need of the show that they belong to. */
export interface ShownShow {
  readonly canvas: { readonly widthPx: number; readonly heightPx: number }
  readonly inputs: readonly Input[]
  readonly contents: readonly Content[]
  readonly scenes: readonly { readonly id: string; readonly layers: readonly Layer[] }[]
  readonly presenter: FieldSource
}

export interface Place {
  readonly show: ShownShow
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
  /** What is drawn on pages and over scenes; null: not to be put. */
  readonly drawings: Drawings | null
  /** Of the layer that is put now; null at rest. */
  readonly motion: LayerMotion | null
  /** Scenes that this one is shown in; none of them is shown again. */
  readonly within: readonly string[]
  /** Puts a list of layers somewhere: a group and a scene do so with theirs. */
  readonly putLayers: (place: Place, layers: readonly Layer[]) => void
}

/** Puts a visible layer of a kind into a stack, or notes what it lacks. */
export type PutLayer<K extends LayerKind> = (place: Place, layer: LayerOf<K>) => void

export function scaledPlacement(placement: Placement, scale: number): Placement {
  if (scale === 1) return placement
  const { x, y, width, height } = placement
  return { ...placement, x: x * scale, y: y * scale, width: width * scale, height: height * scale }
}

/** From pixels of a stack to those of a box that lies in it. */
export function toBox(placement: Placement): Affine {
  return inverse(boxToCanvas(placement))
}
