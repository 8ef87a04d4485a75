import { z } from 'zod'
import { colour as colourSchema } from '../schema/values.ts'
import type { Input, InputBase, InputDefinition } from './input.ts'
import { inputBase } from './schema.ts'
import { plainSourceId } from './source-ids.ts'

/** A plain wall. */
export interface ColourInput extends InputBase {
  readonly kind: 'colour'
  readonly colour: string
}

export const colour: InputDefinition<'colour'> = {
  kind: 'colour',
  schema: z.strictObject({ ...inputBase, kind: z.literal('colour'), colour: colourSchema }),
  subject: 'wall',
  pageRank: null,
  isPageWhenWhole: false,
  canBeMark: false,
  fit: 'fill',
  hasPicture: false,
  sourceId: (input) => plainSourceId(input.colour),
  still: (input) => ({ type: 'colour', colour: input.colour }),
  files: () => [],
  ahead: () => [],
  inCover: (input) => input,
  placeholder: null,
}

export const isColour = (input: Input): input is ColourInput => input.kind === 'colour'
