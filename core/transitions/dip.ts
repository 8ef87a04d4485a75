import { colour } from '../schema/values.ts'
import { parseHex } from '../colour/hex.ts'
import type { TransitionBase, TransitionDefinition } from './definition.ts'
import { wholeItem } from './whole.ts'

/** To a colour, "#rrggbb", and out of it. */
export interface Dip extends TransitionBase {
  readonly kind: 'dip'
  readonly colour: string
}

export const dip: TransitionDefinition<Dip> = {
  kind: 'dip',
  usual: { colour: '#000000' },
  stored: { colour },
  put: ({ place: { stack, widthPx, heightPx }, from, to }, { colour: through }, progress) => {
    if (progress < 0.5) from.put()
    else to.put()
    stack.put({
      ...wholeItem(widthPx, heightPx, { kind: 'plain', colour: parseHex(through), opacity: 1 }),
      opacity: 1 - Math.abs(2 * progress - 1),
    })
  },
}
