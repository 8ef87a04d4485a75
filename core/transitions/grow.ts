import { followedBy, scaling, translation } from '../composite/affine.ts'
import type { TransitionDefinition } from './definition.ts'
import { pictureOf, wholeItem } from './whole.ts'

/** As large as it is at first: half of a picture can be had without a finer one flickering through. */
const FIRST_SCALE = 0.5
/** By then it hides what is behind it, though it still grows. */
const OPAQUE_AT = 0.25

export const grow: TransitionDefinition<'grow'> = {
  kind: 'grow',
  put: ({ place: { stack, widthPx, heightPx }, from, to }, _transition, progress) => {
    if (progress === 1) return to.put()
    from.put()
    const scale = FIRST_SCALE + (1 - FIRST_SCALE) * progress
    // On whole pixels: its edge is sharp all the way.
    const left = Math.round((widthPx * (1 - scale)) / 2)
    const top = Math.round((heightPx * (1 - scale)) / 2)
    const width = Math.max(1, widthPx - 2 * left)
    const height = Math.max(1, heightPx - 2 * top)
    const back = translation(-left, -top)
    const whole = wholeItem(widthPx, heightPx, pictureOf(to.node()))
    stack.put({
      ...whole,
      paint: { kind: 'node', node: to.node(), toNode: followedBy(back, scaling(widthPx / width, heightPx / height)) },
      coverage: { ...whole.coverage, shape: { kind: 'roundedRect', width, height, cornerRadius: 0 } },
      toCoverage: back,
      bounds: { left, top, right: left + width, bottom: top + height },
      opacity: Math.min(1, progress / OPAQUE_AT),
    })
  },
}
