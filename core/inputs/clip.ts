import { z } from 'zod'
import { RANGES } from '../schema/limits.ts'
import { number } from '../schema/values.ts'
import type { Input, InputBase, InputDefinition } from './input.ts'
import type { MakeId } from '../random/make-id.ts'
import { assetSchema, inputBase } from './schema.ts'
import { inputSourceId } from './source-ids.ts'

/** Moving backgrounds of our own. */
export const movingBackgrounds = ['drift', 'tide', 'motes'] as const
export type MovingBackground = (typeof movingBackgrounds)[number]

/** A moving picture from a file. */
export interface ClipInput extends InputBase {
  readonly kind: 'clip'
  /** SHA-256 of the file, lower-case hex. */
  readonly asset: string
  /** The part that is played, in ms of the file; `toMs` null: to its end. */
  readonly fromMs: number
  readonly toMs: number | null
  /** 1: as fast as it was made. */
  readonly rate: number
  /** Whether it begins again at its end, or holds its last picture. */
  readonly loops: boolean
  /** Which background of our own the file is, drawn anew when the show's colours change; null for any other file. */
  readonly moving: MovingBackground | null
}

const schema = z
  .strictObject({
    ...inputBase,
    kind: z.literal('clip'),
    asset: assetSchema,
    fromMs: number(RANGES.clipMs),
    toMs: number(RANGES.clipMs).nullable(),
    rate: number(RANGES.clipRate),
    loops: z.boolean(),
    moving: z.enum(movingBackgrounds).nullable(),
  })
  .refine(({ fromMs, toMs }) => toMs === null || toMs > fromMs, { path: ['toMs'], message: 'must be later than fromMs' })

export const clip: InputDefinition<'clip'> = {
  kind: 'clip',
  schema,
  subject: 'page',
  pageRank: 2,
  isPageWhenWhole: false,
  canBeMark: true,
  fit: 'fill',
  hasPicture: true,
  sourceId: ({ id }) => inputSourceId(id),
  still: () => null,
  files: ({ asset }) => [asset],
  ahead: () => [],
  // The file's first frame is its picture.
  inCover: ({ id, name, asset, treatment }) => ({ id, kind: 'picture', name, asset, treatment }),
  placeholder: 'film',
}

export const isClip = (input: Input): input is ClipInput => input.kind === 'clip'

/** A clip that plays whole, again and again. */
export function newClip(name: string, asset: string, makeId: MakeId, moving: MovingBackground | null = null): ClipInput {
  return { id: makeId(), kind: 'clip', name, asset, fromMs: 0, toMs: null, rate: 1, loops: true, moving, treatment: [] }
}
