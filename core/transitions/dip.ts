import { parseHex } from '../colour/hex.ts'
import type { TransitionDefinition } from './definition.ts'
import { wholeItem } from './whole.ts'

export const dip: TransitionDefinition<'dip'> = {
  kind: 'dip',
  put: ({ place: { stack, widthPx, heightPx }, from, to }, { colour }, progress) => {
    if (progress < 0.5) from.put()
    else to.put()
    stack.put({
      ...wholeItem(widthPx, heightPx, { kind: 'plain', colour: parseHex(colour), opacity: 1 }),
      opacity: 1 - Math.abs(2 * progress - 1),
    })
  },
}
