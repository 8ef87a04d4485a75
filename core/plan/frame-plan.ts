import type { Affine } from '../composite/affine.ts'
import type { Rect } from '../layout/fit.ts'
import type { PixelRect } from '../picture/picture.ts'
import type { StepCall } from '../steps/index.ts'
import type { TextContent } from '../text/text-content.ts'

/** Names a picture that an executor is given: "input:ID", "text:LAYER" or "colour:#rrggbb". */
export type SourceId = string

/** A text picture to be laid out before the plan runs; equal keys are equal pictures. */
export interface TextJob {
  readonly sourceId: SourceId
  readonly key: string
  readonly content: TextContent
  readonly widthPx: number
  readonly heightPx: number
}

/** One source put on the canvas. Everything is in canvas pixels unless it says otherwise. */
export interface Draw {
  readonly layerId: string
  readonly sourceId: SourceId
  /** Treatment, everywhere first, then here only. */
  readonly steps: readonly StepCall[]
  /** Equal for two draws that need the same treated picture. */
  readonly treatedKey: string
  /** Times the treated picture is halved (2×2 mean) before it is sampled. */
  readonly halvings: number
  /** From canvas pixels to pixels of the halved, treated picture; pixel centres at ½. */
  readonly toSource: Affine
  /** From canvas pixels to the frame, which spans 0..frame.width × 0..frame.height. */
  readonly toFrame: Affine
  readonly frame: { readonly width: number; readonly height: number; readonly cornerRadius: number }
  /** Whole-pixel bounds on the canvas, clipped to it. */
  readonly bounds: PixelRect
  readonly opacity: number
  /** Part of the source that the frame shows, in source pixels. */
  readonly sourceRect: Rect
}

/** What to do for one frame, as plain data. Every executor makes the same picture of it. */
export interface FramePlan {
  readonly widthPx: number
  readonly heightPx: number
  /** What lies under everything: opaque black, or nothing. */
  readonly ground: 'black' | 'clear'
  /** From back to front; hidden and wholly covered layers are not here. */
  readonly draws: readonly Draw[]
  /** Text pictures the draws refer to. */
  readonly texts: readonly TextJob[]
  /** Visible layers whose input has no picture. */
  readonly missing: readonly MissingPicture[]
}

/** A layer that could be seen, were its picture there. */
export interface MissingPicture {
  readonly layerId: string
  readonly sourceId: SourceId
}

/** Size of a source that has a picture, and whether every pixel of it is opaque. */
export interface SourceInfo {
  readonly widthPx: number
  readonly heightPx: number
  readonly isOpaque: boolean
}
