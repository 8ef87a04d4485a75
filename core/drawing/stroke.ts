// A stroke as it is stored: what the hand did, not how it looks. Places are shares of the surface that it is on, so that it fits at any size.
import { z } from 'zod'
import { LIMITS, RANGES } from '../schema/limits.ts'
import { colour, id, number } from '../schema/values.ts'

export const strokeTools = ['pen', 'marker', 'line', 'arrow', 'rectangle', 'ellipse'] as const
export type StrokeTool = (typeof strokeTools)[number]

export interface Stroke {
  readonly id: string
  readonly tool: StrokeTool
  readonly colour: string
  /** Of its line, as a share of the surface's height. */
  readonly width: number
  /** Three numbers a point: across (0..1 of the width), down (0..1 of the height), pressure (0..1). Forms have two points, their corners. */
  readonly points: readonly number[]
}

/** Width of the lines that are offered, as shares of the surface's height. */
export const strokeWidths = { fine: 0.005, medium: 0.01, broad: 0.02 } as const
export type StrokeWidth = keyof typeof strokeWidths

/** Numbers of a point in `points`. */
export const PER_POINT = 3
/** Ten thousandths of a pixel of the largest canvas matter to nobody. */
const DIGITS = 1e5

const place = number(RANGES.strokePlace)
const points = z
  .array(z.number())
  .min(PER_POINT, 'must hold at least one point')
  .max(LIMITS.strokePoints * PER_POINT)
  .refine((numbers) => numbers.length % PER_POINT === 0, 'must hold three numbers a point: across, down, pressure')
  .refine(
    (numbers) => numbers.every((value, index) => (index % PER_POINT === 2 ? number(RANGES.share) : place).safeParse(value).success),
    `must lie within ${RANGES.strokePlace.min} to ${RANGES.strokePlace.max} of the surface, with a pressure from 0 to 1`,
  )

export const strokeSchema: z.ZodType<Stroke> = z.strictObject({ id, tool: z.enum(strokeTools), colour, width: number(RANGES.strokeWidth), points })

/** Strokes that are kept, from the lowest to the topmost. */
export const strokesSchema = z.array(strokeSchema).max(LIMITS.strokes)

/** A point as it is stored: within the bounds, and no more digits than are seen. */
export function storedPoint(x: number, y: number, pressure: number): readonly [number, number, number] {
  const { min, max } = RANGES.strokePlace
  const stored = (value: number, from: number, to: number) => Math.round(Math.min(to, Math.max(from, value)) * DIGITS) / DIGITS + 0
  return [stored(x, min, max), stored(y, min, max), stored(pressure, 0, 1)]
}

export function pointCount({ points }: Pick<Stroke, 'points'>): number {
  return points.length / PER_POINT
}

/** Forms are two corners; pens follow the hand. */
export function isForm(tool: StrokeTool): boolean {
  return tool !== 'pen' && tool !== 'marker'
}

/** 0..1: a marker lets through what it marks. */
export function strokeOpacity(tool: StrokeTool): number {
  return tool === 'marker' ? 0.4 : 1
}
