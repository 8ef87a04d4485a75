import { z } from 'zod'
import { blendModes, type BlendName } from '../blend/index.ts'
import { cropSchema, frameSchema, placementSchema } from '../box/schema.ts'
import { appearance } from '../motion/schema.ts'
import { RANGES } from '../schema/limits.ts'
import { id, name, number } from '../schema/values.ts'
import { treatmentSchema } from '../steps/schema.ts'
import { layerParts } from './layer.ts'

/** The stored form of what all layers have. */
export const layerBase = {
  id,
  name,
  visible: z.boolean(),
  locked: z.boolean(),
  part: z.enum(layerParts).nullable(),
  placement: placementSchema,
  crop: cropSchema.nullable(),
  opacity: number(RANGES.share),
  blend: z.enum(blendModes.map((mode) => mode.name) as [BlendName, ...BlendName[]]),
  frame: frameSchema,
  entrance: appearance.nullable(),
  exit: appearance.nullable(),
  treatment: treatmentSchema,
}
