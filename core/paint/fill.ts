// What an area is filled with.
import { z } from 'zod'
import { parseHex } from '../colour/hex.ts'
import { LIMITS, RANGES } from '../schema/limits.ts'
import { number } from '../schema/values.ts'
import { paintColour as colour } from '../style/style-names.ts'
import type { Gradient, GradientStop } from './gradient.ts'

/** A colour at a place of a gradient. */
export interface FillStop {
  /** 0..1 */
  readonly at: number
  readonly colour: string
  readonly opacity: number
}

export type Fill =
  | { readonly kind: 'plain'; readonly colour: string; readonly opacity: number }
  /** Across the box at an angle as CSS has it: 0 runs upwards, 90 to the right. `stops` in order of `at`. */
  | { readonly kind: 'linear'; readonly angleDeg: number; readonly stops: readonly FillStop[] }
  /** From the middle to the farther side. */
  | { readonly kind: 'radial'; readonly stops: readonly FillStop[] }

const stops = z
  .array(z.strictObject({ at: number(RANGES.share), colour, opacity: number(RANGES.share) }))
  .min(2, 'must hold at least two colours')
  .max(LIMITS.stops)
  .refine((list) => list.every((stop, i) => i === 0 || stop.at >= list[i - 1]!.at), 'must be in order of "at"')
export const fillSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('plain'), colour, opacity: number(RANGES.share) }),
  z.strictObject({ kind: z.literal('linear'), angleDeg: number(RANGES.angleDeg), stops }),
  z.strictObject({ kind: z.literal('radial'), stops }),
])

/** The least opacity that a fill has anywhere. */
export function leastOpacity(fill: Fill): number {
  return fill.kind === 'plain' ? fill.opacity : Math.min(...fill.stops.map(({ opacity }) => opacity))
}

/** The gradient of a box: CSS Images Level 3 §3.1.1 for the length of a linear one, farthest-side for a radial one (§3.2.2), as a circle. */
export function gradientOf(fill: Exclude<Fill, { kind: 'plain' }>, width: number, height: number): Gradient {
  const stops = fill.stops.map(stopOf)
  if (fill.kind === 'radial') return { kind: 'radial', centreX: width / 2, centreY: height / 2, radius: Math.max(width, height) / 2, stops }
  const angle = (fill.angleDeg * Math.PI) / 180
  const half = (Math.abs(width * Math.sin(angle)) + Math.abs(height * Math.cos(angle))) / 2
  const alongX = Math.sin(angle) * half
  const alongY = -Math.cos(angle) * half
  return { kind: 'linear', fromX: width / 2 - alongX, fromY: height / 2 - alongY, toX: width / 2 + alongX, toY: height / 2 + alongY, stops }
}

function stopOf({ at, colour, opacity }: FillStop): GradientStop {
  return { at, colour: parseHex(colour), opacity }
}
