import { z } from 'zod'
import type { Input, InputBase, InputDefinition } from './input.ts'
import { assetSchema, inputBase } from './schema.ts'
import { inputSourceId } from './source-ids.ts'

export interface PictureInput extends InputBase {
  readonly kind: 'picture'
  /** SHA-256 of the file, lower-case hex. */
  readonly asset: string
}

export const picture: InputDefinition<'picture'> = {
  kind: 'picture',
  schema: z.strictObject({ ...inputBase, kind: z.literal('picture'), asset: assetSchema }),
  subject: 'page',
  pageRank: 3,
  isPageWhenWhole: false,
  canBeMark: true,
  fit: 'fit',
  hasPicture: true,
  sourceId: ({ id }) => inputSourceId(id),
  still: ({ asset }) => ({ type: 'asset', asset }),
  files: ({ asset }) => [asset],
  ahead: () => [],
  inCover: (input) => input,
  placeholder: null,
}

export const isPicture = (input: Input): input is PictureInput => input.kind === 'picture'
