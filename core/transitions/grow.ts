import { followedBy, scaling, translation } from '../composite/affine.ts'
import type { TransitionBase, TransitionDefinition } from './definition.ts'
import { pictureOf, wholeItem } from './whole.ts'

/** As large as it is at first: half of a picture can be had without a finer one flickering through. */
const FIRST_SCALE = 0.5
/** By then it hides what is behind it, though it still grows. */
const OPAQUE_AT = 0.25

export interface Grow extends TransitionBase {
  readonly kind: 'grow'
}

export const grow: TransitionDefinition<Grow> = {
  kind: 'grow',
  usual: {},
  stored: {},
  put: ({ place: { stack, widthPx, heightPx }, from, to }, _transition, progress) => {
    if (progress === 1) return to.put()
    from.put()
    const scale = FIRST_SCALE + (1 - FIRST_SCALE) * progress
    const width = widthPx * scale
    const height = heightPx * scale
    const left = (widthPx - width) / 2
    const top = (heightPx - height) / 2
    const back = translation(-left, -top)
    const whole = wholeItem(widthPx, heightPx, pictureOf(to.node()))
    stack.put({
      ...whole,
      paint: { kind: 'node', node: to.node(), toNode: followedBy(back, scaling(1 / scale, 1 / scale)) },
      coverage: { ...whole.coverage, shape: { kind: 'roundedRect', width, height, cornerRadius: 0 } },
      toCoverage: back,
      bounds: { left: Math.floor(left), top: Math.floor(top), right: Math.ceil(left + width), bottom: Math.ceil(top + height) },
      opacity: Math.min(1, progress / OPAQUE_AT),
    })
  },
}
