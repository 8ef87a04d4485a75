// From one stage to the next: what each way is told.
import { namedEasings, type Easing } from '../motion/easing.ts'
import type { Side } from '../motion/appearance.ts'

interface TransitionBase {
  readonly durationMs: number
  readonly easing: Easing
}

export type Transition = TransitionBase &
  (
    | { readonly kind: 'cut' }
    | { readonly kind: 'dissolve' }
    /** An edge goes over the canvas at an angle as CSS has it: 90 to the right. `softness` is its width, 0..1 of the way. */
    | { readonly kind: 'wipe'; readonly angleDeg: number; readonly softness: number }
    /** The next comes in from a side and pushes the other out. */
    | { readonly kind: 'push'; readonly side: Side }
    /** To a colour, "#rrggbb", and out of it. */
    | { readonly kind: 'dip'; readonly colour: string }
    | { readonly kind: 'grow' }
    /** Where a picture of the show is dark the next comes first. `softness` 0..1 of its greys. */
    | { readonly kind: 'pictureWipe'; readonly inputId: string; readonly softness: number }
    /** Layers that both have move from place to place. */
    | { readonly kind: 'glide' }
  )
export type TransitionName = Transition['kind']

const USUAL = { durationMs: 600, easing: namedEasings.easeInOut } as const

/** Each transition that needs no more than its name, with its usual settings. */
export const usualTransitions = {
  cut: { ...USUAL, kind: 'cut' },
  dissolve: { ...USUAL, kind: 'dissolve' },
  wipe: { ...USUAL, kind: 'wipe', angleDeg: 90, softness: 0.1 },
  push: { ...USUAL, kind: 'push', side: 'right' },
  dip: { ...USUAL, kind: 'dip', colour: '#000000' },
  grow: { ...USUAL, kind: 'grow' },
  glide: { ...USUAL, kind: 'glide' },
} as const satisfies { readonly [K in Exclude<TransitionName, 'pictureWipe'>]: Extract<Transition, { kind: K }> }
