// The stored form of movement: how layers come and go.
import { z } from 'zod'
import { appearanceKinds, sides } from './appearance.ts'
import { stepPositions } from './easing.ts'
import { RANGES } from '../schema/limits.ts'
import { number, whole } from '../schema/values.ts'

export const easing = z.discriminatedUnion('kind', [
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
