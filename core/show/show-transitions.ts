// How scenes of a show follow each other: by the show's default, by the way a scene always comes, or by the way from one scene to another.
import { z } from 'zod'
import { LIMITS } from '../schema/limits.ts'
import { id } from '../schema/values.ts'
import { usualTransitions, type Transition } from '../transitions/index.ts'
import { transitionSchema } from '../transitions/schema.ts'
import type { Scene, Show } from './show.ts'

/** How one scene follows another. */
export interface TransitionPair {
  readonly fromId: string
  readonly toId: string
  readonly transition: Transition
}

export interface ShowTransitions {
  /** Where neither the scene nor the pair says otherwise. */
  readonly usual: Transition
  readonly pairs: readonly TransitionPair[]
}

/** A show that says nothing cuts. */
export const USUAL_TRANSITIONS: ShowTransitions = { usual: usualTransitions.cut, pairs: [] }

export const showTransitionsSchema: z.ZodType<ShowTransitions> = z.strictObject({
  usual: transitionSchema,
  pairs: z.array(z.strictObject({ fromId: id, toId: id, transition: transitionSchema })).max(LIMITS.transitionPairs),
})

/** Sets how scenes follow each other by default. */
export function setUsualTransition(show: Show, usual: Transition): Show {
  return { ...show, transitions: { ...show.transitions, usual } }
}

/** Sets how a scene comes, from whichever scene; null: by default. */
export function setSceneTransition(show: Show, sceneId: string, transition: Transition | null): Show {
  return { ...show, scenes: show.scenes.map((scene) => (scene.id === sceneId ? { ...scene, transition } : scene)) }
}

/** Sets how one scene follows another; null: as that scene always comes. */
export function setPairTransition(show: Show, fromId: string, toId: string, transition: Transition | null): Show {
  const isPair = (pair: TransitionPair) => pair.fromId === fromId && pair.toId === toId
  const { usual, pairs } = show.transitions
  if (transition === null) return { ...show, transitions: { usual, pairs: pairs.filter((pair) => !isPair(pair)) } }
  const next = { fromId, toId, transition }
  return { ...show, transitions: { usual, pairs: pairs.some(isPair) ? pairs.map((pair) => (isPair(pair) ? next : pair)) : [...pairs, next] } }
}

/** How a scene comes after another; `fromId` null or unknown: after one of another show. */
export function transitionTo({ transitions, scenes }: Pick<Show, 'transitions' | 'scenes'>, fromId: string | null, toId: string): Transition {
  const pair = transitions.pairs.find((one) => one.fromId === fromId && one.toId === toId)
  return pair?.transition ?? scenes.find(({ id: sceneId }) => sceneId === toId)?.transition ?? transitions.usual
}

/** Every transition that a show stores, with where it stands. */
export function storedTransitions(
  show: Pick<Show, 'transitions' | 'scenes'>,
): readonly (readonly [path: readonly (string | number)[], transition: Transition])[] {
  return [
    [['transitions', 'usual'], show.transitions.usual],
    ...show.transitions.pairs.map(({ transition }, index) => [['transitions', 'pairs', index, 'transition'], transition] as const),
    ...show.scenes.flatMap((scene, index) => (scene.transition === null ? [] : [[['scenes', index, 'transition'], scene.transition] as const])),
  ]
}

/** Transitions without those of scenes that have gone. */
export function withoutPairsOf(transitions: ShowTransitions, sceneId: string): ShowTransitions {
  const pairs = transitions.pairs.filter(({ fromId, toId }) => fromId !== sceneId && toId !== sceneId)
  return pairs.length === transitions.pairs.length ? transitions : { ...transitions, pairs }
}

/** A show and its scenes with every transition that needs an input as one that needs none. */
export function withoutTransitionsBy(show: Show, inputId: string): Show {
  const needs = (transition: Transition | null) => transition !== null && inputOfTransition(transition) === inputId
  if (!storedTransitions(show).some(([, transition]) => needs(transition))) return show
  const plain = <T extends Transition | null>(transition: T): T | Transition =>
    transition !== null && needs(transition) ? { ...usualTransitions.dissolve, durationMs: transition.durationMs, easing: transition.easing } : transition
  return {
    ...show,
    transitions: { usual: plain(show.transitions.usual), pairs: show.transitions.pairs.map((pair) => ({ ...pair, transition: plain(pair.transition) })) },
    scenes: show.scenes.map((scene): Scene => (needs(scene.transition) ? { ...scene, transition: plain(scene.transition) } : scene)),
  }
}

/** The input that a transition needs; null for none. */
export function inputOfTransition(transition: Transition): string | null {
  return 'inputId' in transition ? transition.inputId : null
}
