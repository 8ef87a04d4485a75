// One moment as plain data: a list of pictures made of earlier pictures, and which of them goes where. Motion is numbers already
// worked out. Every executor makes the same pictures of it.
import type { BlendName } from '../blend/index.ts'
import type { Affine } from '../composite/affine.ts'
import type { Coverage } from '../composite/coverage.ts'
import type { DrawnOutline } from '../outline/outline-picture.ts'
import type { Gradient } from '../paint/gradient.ts'
import type { PixelRect } from '../picture/picture.ts'
import type { SourceId } from '../picture/source.ts'
import type { StepCall } from '../steps/index.ts'
import type { TextContent } from '../text/text-content.ts'

/** Names a root of a plan: the webcam feed, a view. */
export type OutputId = string

/** Into `FramePlan.nodes`; a node reads earlier nodes only. */
export type NodeIndex = number

/** A text picture to be laid out before the plan runs; equal sources are equal pictures. */
export interface TextJob {
  readonly sourceId: SourceId
  /** The text layer this is a state of. While its letters load, the previous state is drawn instead. */
  readonly contentId: string
  readonly content: TextContent
  /** How many letters are visible; hidden ones keep their places. Null: all. */
  readonly lettersShown: number | null
  readonly widthPx: number
  readonly heightPx: number
}

/** A picture of a drawn outline, to be made before the plan runs; equal sources are equal pictures. */
export interface OutlineJob {
  readonly sourceId: SourceId
  readonly outline: DrawnOutline
  readonly widthPx: number
  readonly heightPx: number
}

interface NodeBase {
  /** Equal keys are equal pictures, given equal sources. */
  readonly key: string
  readonly widthPx: number
  readonly heightPx: number
  readonly isOpaque: boolean
}

/** A source, cleaned. */
export interface TreatedNode extends NodeBase {
  readonly kind: 'treated'
  readonly sourceId: SourceId
  /** Everywhere first, then here only. */
  readonly steps: readonly StepCall[]
  /** Equal for two nodes that need the same treated picture, at whatever level. */
  readonly treatedKey: string
  /** Times the treated picture is halved (2×2 mean). */
  readonly mipLevel: number
}

/** Another node of this plan with a treatment applied: a group that has its own steps. */
export interface FilteredNode extends NodeBase {
  readonly kind: 'filtered'
  readonly of: NodeIndex
  readonly steps: readonly StepCall[]
}

/** Things put over each other: a scene, a group, a transition. */
export interface StackNode extends NodeBase {
  readonly kind: 'stack'
  /** What lies under everything: opaque black, or nothing. */
  readonly ground: 'black' | 'clear'
  /** From back to front, without hidden or fully covered items. */
  readonly items: readonly Item[]
}

export type PlanNode = TreatedNode | FilteredNode | StackNode

/** What an item shows. Colours are straight, sRGB-encoded, 0..1. */
export type Paint =
  /** `toNode` leads from pixels of the stack to pixels of the node; pixel centres at ½. */
  | { readonly kind: 'node'; readonly node: NodeIndex; readonly toNode: Affine }
  | { readonly kind: 'plain'; readonly colour: readonly [red: number, green: number, blue: number]; readonly opacity: number }
  /** `toGradient` leads from pixels of the stack to the gradient's own. */
  | { readonly kind: 'gradient'; readonly gradient: Gradient; readonly toGradient: Affine }

/** One paint through one coverage. Everything is in pixels of its stack unless it says otherwise. */
export interface Item {
  readonly key: string
  readonly layerId: string
  readonly paint: Paint
  readonly coverage: Coverage
  /** From pixels of the stack to the coverage's shape: moved and turned, never scaled. */
  readonly toCoverage: Affine
  /** Whole pixels outside of which nothing is covered, clipped to the stack. */
  readonly bounds: PixelRect
  readonly opacity: number
  readonly blend: BlendName
}

export interface FramePlan {
  readonly nodes: readonly PlanNode[]
  readonly outputs: Readonly<Record<OutputId, NodeIndex>>
  /** Text pictures the nodes refer to. */
  readonly texts: readonly TextJob[]
  /** Pictures of outlines they refer to. */
  readonly outlines: readonly OutlineJob[]
  /** Visible layers whose input has no picture. */
  readonly missing: readonly MissingPicture[]
  /** Of them, those of each output, where there are several. */
  readonly missingOf?: Readonly<Record<OutputId, readonly MissingPicture[]>>
  /** Until when the plan holds as long as nothing is edited, on the clock it was planned by; no later than then: something moves. */
  readonly validUntilMs: number
}

/** The only output of a plan that has one. */
export function firstOutput({ outputs }: FramePlan): OutputId {
  return Object.keys(outputs)[0]!
}

/** A layer that could be seen, were its picture there. */
export interface MissingPicture {
  readonly layerId: string
  readonly sourceId: SourceId
}
