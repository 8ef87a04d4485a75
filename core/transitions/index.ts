// Every transition. A new one is a file here, its settings in transition.ts, and a line in this list.
import { cut } from './cut.ts'
import { dip } from './dip.ts'
import { dissolve } from './dissolve.ts'
import { glide } from './glide.ts'
import { grow } from './grow.ts'
import { pictureWipe } from './picture-wipe.ts'
import { push } from './push.ts'
import type { TransitionDefinition, TransitionPlace } from './definition.ts'
import type { Transition, TransitionName } from './transition.ts'
import { wipe } from './wipe.ts'

export const transitions = [cut, dissolve, wipe, push, dip, grow, pictureWipe, glide] as const

/** Puts the moment of a transition into a stack. */
export function putTransition(between: TransitionPlace, transition: Transition, progress: number): void {
  const definition = transitions.find(({ kind }) => kind === transition.kind) as unknown as TransitionDefinition<TransitionName>
  definition.put(between, transition, progress)
}
