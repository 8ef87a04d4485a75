// What a transition is given to work with, and what it is.
import type { Place } from '../compose/place.ts'
import type { Layer } from '../layers/layer.ts'
import type { NodeIndex } from '../plan/frame-plan.ts'
import type { Transition, TransitionName } from './transition.ts'

/** A side of a transition: a scene at its moment, or whatever is there while an earlier transition is under way. */
export interface TransitionSide {
  /** Puts what it shows into the stack itself. */
  readonly put: () => void
  /** It as a picture of the stack's size. */
  readonly node: () => NodeIndex
  /** The layers of its scene, and the place for them; null while it is a transition itself. */
  readonly scene: { readonly layers: readonly Layer[]; readonly place: Place } | null
}

export interface TransitionPlace {
  readonly place: Place
  readonly ground: 'black' | 'clear'
  readonly from: TransitionSide
  readonly to: TransitionSide
}

/** A transition: one file, and one line in index.ts. */
export interface TransitionDefinition<K extends TransitionName> {
  readonly kind: K
  /** Puts the moment into the stack; `progress` is 0..1, and at both ends it is one of the two, whole. */
  readonly put: (between: TransitionPlace, transition: Extract<Transition, { kind: K }>, progress: number) => void
}
