// The stored form of a layer's box: its place, crop and frame.
import { z } from 'zod'
import { RANGES } from '../schema/limits.ts'
import { number } from '../schema/values.ts'
import { paintColour as colour } from '../style/style-names.ts'
import { borderSides, frameForms } from './frame.ts'

export const placementSchema = z.strictObject({
  x: number(RANGES.position),
  y: number(RANGES.position),
  width: number(RANGES.size),
  height: number(RANGES.size),
  angleDeg: number(RANGES.angleDeg),
  fit: z.enum(['fit', 'fill', 'stretch']),
})

export const cropSchema = z
  .strictObject({ left: number(RANGES.cropShare), top: number(RANGES.cropShare), right: number(RANGES.cropShare), bottom: number(RANGES.cropShare) })
  .refine(({ left, top, right, bottom }) => left + right <= RANGES.cropShare.max && top + bottom <= RANGES.cropShare.max, 'must leave a hundredth of each side')

export const shadowSchema = z.strictObject({
  dx: number(RANGES.shadowOffsetPx),
  dy: number(RANGES.shadowOffsetPx),
  blurPx: number(RANGES.blurPx),
  colour,
  opacity: number(RANGES.share),
})

const border = z.strictObject({ widthPx: number(RANGES.borderPx), colour, opacity: number(RANGES.share), side: z.enum(borderSides) })
export const frameSchema = z.strictObject({
  form: z.enum(frameForms),
  cornerRadiusPx: number(RANGES.cornerRadiusPx),
  border: border.nullable(),
  shadow: shadowSchema.nullable(),
})
