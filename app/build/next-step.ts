// What a presenter would sensibly do next: one thing at a time, from what the show has already.
import { isCamera } from '../../core/inputs/camera.ts'
import { inputOf } from '../../core/layers/index.ts'
import { isText } from '../../core/layers/text.ts'
import { layersOf } from '../../core/layers/tree.ts'
import { ownScenesOf } from '../../core/show/edits.ts'
import type { Scene, Show } from '../../core/show/show.ts'

export const nextSteps = ['cleanUp', 'text', 'scene', 'feed'] as const
export type NextStep = (typeof nextSteps)[number]

export interface NextStepFacts {
  readonly show: Show
  readonly scene: Scene
  readonly isFeedOn: boolean
  /** Steps that the presenter waved away, for good. */
  readonly dismissed: readonly string[]
}

/** The first step that is open, and the input that it is about; null when there is nothing left to say. */
export function nextStepOf({ show, scene, isFeedOn, dismissed }: NextStepFacts): { readonly step: NextStep; readonly inputId: string | null } | null {
  const layers = layersOf(scene)
  // The stage itself says how to begin.
  if (layers.length === 0) return null
  const uncleaned = layers.map((layer) => inputOf(show, layer)).find((input) => input !== undefined && isCamera(input) && !input.treatment.some(({ on }) => on))
  const isOpen: Readonly<Record<NextStep, boolean>> = {
    cleanUp: uncleaned !== undefined,
    text: !layers.some(isText),
    scene: ownScenesOf(show).length === 1,
    feed: !isFeedOn,
  }
  const step = nextSteps.find((name) => isOpen[name] && !dismissed.includes(name))
  return step === undefined ? null : { step, inputId: step === 'cleanUp' ? uncleaned!.id : null }
}
