import { z } from 'zod'
import { shadowSchema } from '../box/schema.ts'
import { LIMITS, RANGES } from '../schema/limits.ts'
import { number } from '../schema/values.ts'
import { fromShow, paintColour as colour, styleFaces } from '../style/style-names.ts'
import { textFamilies } from './text-content.ts'

/** The stored form of a text. */
export const textContentSchema = z.strictObject({
  family: z.enum([...textFamilies, ...styleFaces.map(fromShow)]),
  align: z.enum(['start', 'centre', 'end']),
  blocks: z
    .array(
      z.strictObject({
        text: z.string().max(LIMITS.textLength),
        weight: number(RANGES.textWeight),
        sizePx: number(RANGES.textSizePx),
        colour,
      }),
    )
    .min(1)
    .max(LIMITS.blocks),
  lineHeight: number(RANGES.lineHeight),
  letterSpacingEm: number(RANGES.letterSpacingEm),
  outline: z.strictObject({ widthPx: number(RANGES.outlinePx), colour }).nullable(),
  shadow: shadowSchema.nullable(),
  plate: z
    .strictObject({
      colour,
      opacity: number(RANGES.share),
      paddingPx: number(RANGES.platePaddingPx),
      accent: colour.nullable(),
    })
    .nullable(),
})
