import { z } from 'zod'
import type { MakeId } from '../random/make-id.ts'
import { RANGES } from '../schema/limits.ts'
import { whole } from '../schema/values.ts'
import { newStep } from '../steps/treatment.ts'
import type { Input, InputBase, InputDefinition } from './input.ts'
import { inputBase } from './schema.ts'
import { inputSourceId } from './source-ids.ts'

/** Where a screen's pictures come from. */
export type ScreenSource =
  | { readonly type: 'standin' }
  /** A window, a tab or a whole screen that the presenter shares anew each time: browsers let no page do so by itself. `label` is the last one's. */
  | { readonly type: 'shared'; readonly label: string }

export interface ScreenInput extends InputBase {
  readonly kind: 'screen'
  readonly source: ScreenSource
  /** Highest frame rate; while nothing moves no frames come. */
  readonly frameRate: number
}

const schema = z.strictObject({
  ...inputBase,
  kind: z.literal('screen'),
  source: z.discriminatedUnion('type', [
    z.strictObject({ type: z.literal('standin') }),
    z.strictObject({ type: z.literal('shared'), label: z.string().max(200) }),
  ]),
  frameRate: whole(RANGES.frameRate),
})

export const screen: InputDefinition<'screen'> = {
  kind: 'screen',
  schema,
  subject: 'page',
  pageRank: 0,
  isPageWhenWhole: true,
  canBeMark: false,
  fit: 'fit',
  hasPicture: true,
  sourceId: ({ id }) => inputSourceId(id),
  still: () => null,
  files: () => [],
  ahead: () => [],
  inCover: (input) => input,
  placeholder: 'window',
}

export const isScreen = (input: Input): input is ScreenInput => input.kind === 'screen'

/** Highest frame rate of a new screen. */
export const SCREEN_RATE = 30

/** A screen input, seen whole. */
export function newScreen(name: string, source: ScreenSource, makeId: MakeId): ScreenInput {
  return { id: makeId(), kind: 'screen', name, source, frameRate: SCREEN_RATE, treatment: [newStep('crop', makeId)] }
}
