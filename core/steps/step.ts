// The contract of a treatment step. A step is described by plain data, so that controls,
// the stored form, the documents and the tests can all be made from the one list.
import type { Rgb } from '../colour/hex.ts'
import type { PixelRect } from '../picture/picture.ts'

export type ParamUnit = 'stops' | 'percent' | 'times' | 'share' | 'kelvin' | 'plain'

/** A number a presenter sets: `min`..`max` inclusive, moved in steps of `step`. */
export interface NumberParam {
  readonly type: 'number'
  readonly min: number
  readonly max: number
  readonly step: number
  readonly default: number
  readonly unit: ParamUnit
}

/** An sRGB colour written "#rrggbb". */
export interface ColourParam {
  readonly type: 'colour'
  readonly default: string
}

export type ParamSpec = NumberParam | ColourParam
export type ParamSpecs = Readonly<Record<string, ParamSpec>>

/** Parameter values of a step, by name. */
export type ParamsOf<S extends ParamSpecs> = {
  -readonly [K in keyof S]: S[K] extends NumberParam ? number : string
}

/**
 * Changes one pixel in place: `pixel[0..2]` is straight sRGB-encoded colour, `pixel[3]` opacity,
 * all nominally 0..1. The colour written must depend on the colour read only; opacity may only be
 * multiplied. That is what lets any run of such steps be baked into one table.
 */
export type PointFunction = (pixel: Float64Array) => void

interface StepBase<Kind extends string, S extends ParamSpecs> {
  readonly kind: Kind
  readonly params: S
  /** Whether the step can make an opaque picture see-through. */
  readonly makesMatte: boolean
  /** Values that a colour clicked on the picture asks for; null when that colour can't be used. */
  readonly pick?: (colour: Rgb) => Readonly<Record<string, number | string>> | null
}

/** A step that looks at one pixel at a time. */
export interface PointStep<Kind extends string, S extends ParamSpecs> extends StepBase<Kind, S> {
  readonly shape: 'point'
  /** Builds the pixel function; null when these values change nothing. */
  readonly prepare: (params: ParamsOf<S>) => PointFunction | null
}

/** A step that clears everything outside a rectangle. */
export interface CutStep<Kind extends string, S extends ParamSpecs> extends StepBase<Kind, S> {
  readonly shape: 'cut'
  /** The rectangle that stays, for a picture of this size. */
  readonly keep: (params: ParamsOf<S>, widthPx: number, heightPx: number) => PixelRect
}

/** Default values of a step's parameters. */
export function defaultParams<S extends ParamSpecs>(specs: S): ParamsOf<S> {
  return Object.fromEntries(Object.entries(specs).map(([name, spec]) => [name, spec.default])) as ParamsOf<S>
}
