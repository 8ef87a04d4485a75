// A drawn outline as it is stored: a polygon, an arrow, whatever path data says.
import { z } from 'zod'
import { LIMITS, RANGES } from '../schema/limits.ts'
import { number } from '../schema/values.ts'
import { paintColour as colour } from '../style/style-names.ts'
import { checkOutline, OutlineError } from './read-outline.ts'

/** A line along an outline, half of it inside. */
export interface Stroke {
  readonly widthPx: number
  readonly colour: string
  /** 0..1 */
  readonly opacity: number
}

export interface Outline {
  /** Path data as SVG 2 §9.3 has it, in a box of `width` × `height`, which is stretched over the layer's. */
  readonly path: string
  readonly width: number
  readonly height: number
  readonly stroke: Stroke | null
}

export const outlineSchema = z.strictObject({
  path: z
    .string()
    .max(LIMITS.pathLength)
    .superRefine((path, context) => {
      try {
        if (!checkOutline(path)) context.addIssue({ code: 'custom', message: 'must draw something, as "M0 0 L100 0 L50 80 Z" does' })
      } catch (error) {
        if (!(error instanceof OutlineError)) throw error
        context.addIssue({ code: 'custom', message: `must be path data as SVG has it; it ${error.message}` })
      }
    }),
  width: number(RANGES.size),
  height: number(RANGES.size),
  stroke: z.strictObject({ widthPx: number(RANGES.borderPx), colour, opacity: number(RANGES.share) }).nullable(),
})
