// The stored form of movement: how layers come and go, and scenes follow each other.
import { z } from 'zod'
import { appearanceKinds, sides } from './appearance.ts'
import { stepPositions } from './easing.ts'
import { RANGES } from '../schema/limits.ts'
import { colour, id, number, whole } from '../schema/values.ts'

const easing = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('linear') }),
  z.strictObject({
    kind: z.literal('cubicBezier'),
    x1: number(RANGES.share),
    y1: number(RANGES.curve),
    x2: number(RANGES.share),
    y2: number(RANGES.curve),
  }),
  z
    .strictObject({ kind: z.literal('steps'), count: whole(RANGES.stairs), position: z.enum(stepPositions) })
    .refine(({ count, position }) => position !== 'none' || count > 1, {
      path: ['count'],
      message: 'must be 2 or more for steps without a jump at either end',
    }),
])
export const appearance = z.strictObject({
  kind: z.enum(appearanceKinds),
  durationMs: number(RANGES.motionMs),
  delayMs: number(RANGES.motionMs),
  easing,
  side: z.enum(sides),
})

const way = { durationMs: number(RANGES.motionMs), easing }
/** A transition as it is written outside: its name and its settings. */
export const transitionSchema = z.discriminatedUnion('kind', [
  z.strictObject({ ...way, kind: z.literal('cut') }),
  z.strictObject({ ...way, kind: z.literal('dissolve') }),
  z.strictObject({ ...way, kind: z.literal('wipe'), angleDeg: number(RANGES.angleDeg), softness: number(RANGES.share) }),
  z.strictObject({ ...way, kind: z.literal('push'), side: z.enum(sides) }),
  z.strictObject({ ...way, kind: z.literal('dip'), colour }),
  z.strictObject({ ...way, kind: z.literal('grow') }),
  z.strictObject({ ...way, kind: z.literal('pictureWipe'), inputId: id, softness: number(RANGES.share) }),
  z.strictObject({ ...way, kind: z.literal('glide') }),
])
