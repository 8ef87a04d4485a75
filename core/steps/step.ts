// The contract of a treatment step. A step is described by plain data, so that controls,
// the stored form, the documents and the tests can all be made from the one list.
import type { Rgb } from '../colour/hex.ts'
import type { Lut } from '../lut/lut.ts'
import type { FloatPicture, Plane } from '../picture/float-picture.ts'
import type { PixelRect, RgbaPicture } from '../picture/picture.ts'

export type ParamUnit = 'stops' | 'percent' | 'times' | 'share' | 'kelvin' | 'degrees' | 'pixels' | 'plain'

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

/** One of a few words. */
export interface ChoiceParam {
  readonly type: 'choice'
  readonly options: readonly string[]
  readonly default: string
}

/** The name of something outside the chain: a look, an asset by its SHA-256, an input by its id; '' for none. */
export interface ReferenceParam {
  readonly type: 'reference'
  readonly to: 'look' | 'plate' | 'input'
  readonly default: string
}

/** Measured numbers that no presenter types: none, or exactly `length`, each within ±`most`. */
export interface NumbersParam {
  readonly type: 'numbers'
  readonly length: number
  readonly most: number
  readonly default: readonly number[]
}

export type ParamSpec = NumberParam | ColourParam | ChoiceParam | ReferenceParam | NumbersParam
export type ParamSpecs = Readonly<Record<string, ParamSpec>>
export type ParamValue = number | string | readonly number[]

type ValueOf<P extends ParamSpec> = P extends NumberParam
  ? number
  : P extends ChoiceParam
    ? P['options'][number]
    : P extends NumbersParam
      ? readonly number[]
      : string

/** Parameter values of a step, by name. */
export type ParamsOf<S extends ParamSpecs> = { -readonly [K in keyof S]: ValueOf<S[K]> }

/**
 * Changes one pixel in place: `pixel[0..2]` is straight sRGB-encoded colour, `pixel[3]` opacity,
 * all nominally 0..1. The colour written must depend on the colour read only; opacity may only be
 * multiplied. That is what lets any run of such steps be baked into one table.
 */
export type PointFunction = (pixel: Float64Array) => void

/**
 * The same function for a graphics card: GLSL ES 3.00 text that defines `vec4 STEP(vec4 pixel)`. It may read the numbers
 * `VALUE[0]`… and the table at `vec3 TABLE(int index)`, and use what core/colour/glsl.ts offers. Equal text is compiled once.
 */
export interface PointShader {
  readonly source: string
  /** As many for the same text, always. */
  readonly values: readonly number[]
  readonly lut: Lut | null
}

/** What a step may need beside its values. */
export interface StepContext {
  readonly widthPx: number
  readonly heightPx: number
  /** A look-up table by its reference; null while it is not there. */
  readonly lut: (reference: string) => Lut | null
  /** A still picture by its reference; null while it is not there. */
  readonly picture: (reference: string) => RgbaPicture | null
}

/** What changes from frame to frame and is not in the picture itself. */
export interface FrameAids {
  /** How surely each place of the picture shows the person, 0..1, at any size; null where nobody looks for one. */
  readonly person: Plane | null
  /** What this work made of the frame before; null for a first frame or a still. */
  readonly before: FloatPicture | null
}

/** One pixel at a time, by colour alone. */
export interface PointWork {
  readonly shape: 'point'
  readonly apply: PointFunction
  readonly shader: PointShader
}

/** Everything outside a rectangle becomes clear. */
export interface CutWork {
  readonly shape: 'cut'
  readonly keep: PixelRect
}

/**
 * Work that looks at more than one pixel, or at its place. `settings` is plain data that any executor can
 * read; `treat` is the exact definition: straight alpha in and out, the picture given is not changed.
 */
export interface SpatialWork<Kind extends string = string, Settings = unknown> {
  readonly shape: 'spatial'
  readonly kind: Kind
  readonly settings: Settings
  /** Whether the work of one frame feeds on that of the last. */
  readonly isTemporal: boolean
  /** Whether it needs to know where the person is. */
  readonly needsPerson: boolean
  readonly treat: (picture: FloatPicture, aids: FrameAids) => FloatPicture
  /** Takes a mask of the picture along when the work moves it. */
  readonly moveMask?: (mask: Plane) => Plane
}

export type StepWork = PointWork | CutWork | SpatialWork

/** A step: its values, and what they ask to be done. */
export interface StepDefinition<Kind extends string, S extends ParamSpecs> {
  readonly kind: Kind
  readonly params: S
  /** Whether the step can make an opaque picture see-through with these values. */
  readonly makesMatte: (params: ParamsOf<S>) => boolean
  /** Values that a colour clicked on the picture asks for; null when that colour can't be used. */
  readonly pick?: (colour: Rgb) => Readonly<Record<string, number | string>> | null
  /** What these values ask to be done, in order; nothing when they change nothing. */
  readonly work: (params: ParamsOf<S>, context: StepContext) => readonly StepWork[]
}

/** Default values of a step's parameters. */
export function defaultParams<S extends ParamSpecs>(specs: S): ParamsOf<S> {
  return Object.fromEntries(Object.entries(specs).map(([name, spec]) => [name, spec.default])) as ParamsOf<S>
}

/** A list with the point function as its only work; empty for null. */
export function pointWork(apply: PointFunction | null, source: string, values: () => readonly number[], lut: Lut | null = null): readonly StepWork[] {
  return apply === null ? [] : [{ shape: 'point', apply, shader: { source, values: values(), lut } }]
}
