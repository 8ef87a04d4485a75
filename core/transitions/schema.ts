// The stored form of transitions, made from the list of them.
import { z } from 'zod'
import { easing } from '../motion/schema.ts'
import { RANGES } from '../schema/limits.ts'
import { number } from '../schema/values.ts'
import { transitions, type Transition } from './index.ts'

const [first, ...others] = Object.values(transitions).map(({ kind, stored }) =>
  z.strictObject({ durationMs: number(RANGES.motionMs), easing, kind: z.literal(kind), ...stored }),
)

/** A transition as it is written outside: its name and its settings. */
export const transitionSchema = z.discriminatedUnion('kind', [first!, ...others]) as unknown as z.ZodType<Transition>
