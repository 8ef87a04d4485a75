// What a transition is given to work with, and what it is.
import type { z } from 'zod'
import type { Place } from '../compose/place.ts'
import type { Layer } from '../layers/layer.ts'
import type { NodeIndex } from '../plan/frame-plan.ts'
import type { Easing } from '../motion/easing.ts'

/** A side of a transition: a scene at its moment, or whatever is there while an earlier transition is under way. */
export interface TransitionSide {
  /** Puts what it shows into the stack itself. */
  readonly put: () => void
  /** It as a picture of the stack's size. */
  readonly node: () => NodeIndex
  /** The layers of its scene, and the place for them; null while it is a transition itself. */
  readonly scene: SceneSide | null
}

export interface SceneSide {
  readonly sceneId: string
  readonly layers: readonly Layer[]
  readonly place: Place
}

export interface TransitionPlace {
  readonly place: Place
  readonly ground: 'black' | 'clear'
  readonly from: TransitionSide
  readonly to: TransitionSide
}

/** What every transition is told. */
export interface TransitionBase {
  readonly durationMs: number
  readonly easing: Easing
}

type Settings = TransitionBase & { readonly kind: string }

/** A transition: one file with its settings, and its name in index.ts. */
export interface TransitionDefinition<S extends Settings, U = Omit<S, keyof Settings>> {
  readonly kind: S['kind']
  /** Its usual settings; null for one that needs more than its name. */
  readonly usual: U
  /** How its own settings are written outside. */
  readonly stored: { readonly [P in Exclude<keyof S, keyof Settings>]: z.ZodType<S[P]> }
  /** Puts the moment into the stack; `progress` is 0..1, and at both ends it is one of the two, whole. */
  readonly put: (between: TransitionPlace, transition: S, progress: number) => void
}
