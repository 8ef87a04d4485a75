import type { TransitionBase, TransitionDefinition, TransitionPlace } from './definition.ts'
import { nextItems, pictureOf, wholeItem } from './whole.ts'

export interface Dissolve extends TransitionBase {
  readonly kind: 'dissolve'
}

export const dissolve: TransitionDefinition<Dissolve> = {
  kind: 'dissolve',
  usual: {},
  stored: {},
  put: (between, _transition, progress) => mixed(between, progress),
}

/** Both, each with its share. */
export function mixed(between: TransitionPlace, share: number): void {
  const { place, ground, from } = between
  const { stack, widthPx, heightPx } = place
  // Over an opaque picture that is the mean of the two; see-through ones have to be added, share by share.
  if (ground === 'black') from.put()
  else stack.put({ ...wholeItem(widthPx, heightPx, pictureOf(from.node())), opacity: 1 - share })
  for (const next of nextItems(between)) stack.put({ ...next, opacity: share, blend: ground === 'black' ? 'normal' : 'plus-lighter' })
}
