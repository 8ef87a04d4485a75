import type { TransitionDefinition, TransitionPlace } from './definition.ts'
import { pictureOf, wholeItem } from './whole.ts'

export const dissolve: TransitionDefinition<'dissolve'> = {
  kind: 'dissolve',
  put: (between, _transition, progress) => mixed(between, progress),
}

/** Both, each with its share. */
export function mixed({ place: { stack, widthPx, heightPx }, ground, from, to }: TransitionPlace, share: number): void {
  // Over an opaque picture that is the mean of the two; see-through ones have to be added, share by share.
  if (ground === 'black') from.put()
  else stack.put({ ...wholeItem(widthPx, heightPx, pictureOf(from.node())), opacity: 1 - share })
  stack.put({ ...wholeItem(widthPx, heightPx, pictureOf(to.node())), opacity: share, blend: ground === 'black' ? 'normal' : 'plus-lighter' })
}
