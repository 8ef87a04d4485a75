// Every transition. A new one is a file here, and its name in this list.
import { namedEasings } from '../motion/easing.ts'
import { cut } from './cut.ts'
import type { TransitionDefinition, TransitionPlace } from './definition.ts'
import { dip } from './dip.ts'
import { dissolve } from './dissolve.ts'
import { glide } from './glide.ts'
import { grow } from './grow.ts'
import { pictureWipe } from './picture-wipe.ts'
import { push } from './push.ts'
import { wipe } from './wipe.ts'

const definitions = { cut, dissolve, wipe, push, dip, grow, pictureWipe, glide }
type Definitions = typeof definitions

/** From one stage to the next: what each way is told. */
export type Transition = { [K in keyof Definitions]: Definitions[K] extends TransitionDefinition<infer S, infer _U> ? S : never }[keyof Definitions]
export type TransitionName = Transition['kind']

export const transitions: { readonly [K in TransitionName]: TransitionDefinition<Extract<Transition, { kind: K }>, Definitions[K]['usual']> } = definitions

type UsualName = { [K in TransitionName]: Definitions[K]['usual'] extends null ? never : K }[TransitionName]

/** Each transition that needs no more than its name, with its usual settings. */
export const usualTransitions = Object.fromEntries(
  Object.values(transitions).flatMap(({ kind, usual }) =>
    usual === null ? [] : [[kind, { durationMs: 600, easing: namedEasings.easeInOut, kind, ...usual }] as const],
  ),
) as { readonly [K in UsualName]: Extract<Transition, { kind: K }> }

/** Puts the moment of a transition into a stack. */
export function putTransition(between: TransitionPlace, transition: Transition, progress: number): void {
  const { put } = transitions[transition.kind] as TransitionDefinition<Transition, unknown>
  put(between, transition, progress)
}
