import { z } from 'zod'
import { translation } from '../composite/affine.ts'
import { directions, sides, type Side } from '../motion/appearance.ts'
import type { TransitionBase, TransitionDefinition, TransitionPlace, TransitionSide } from './definition.ts'
import { wholeItem } from './whole.ts'

/** The next comes in from a side and pushes the other out. */
export interface Push extends TransitionBase {
  readonly kind: 'push'
  readonly side: Side
}

export const push: TransitionDefinition<Push> = {
  kind: 'push',
  usual: { side: 'right' },
  stored: { side: z.enum(sides) },
  put: (between, { side }, progress) => {
    const { widthPx, heightPx } = between.place
    // Away from the side that the next comes from.
    const [sideX, sideY] = directions[side]
    const [alongX, alongY] = [0 - sideX, 0 - sideY]
    // By whole pixels: nothing is sampled between them, so nothing grows soft on the way.
    const shiftX = alongX * Math.round(progress * widthPx)
    const shiftY = alongY * Math.round(progress * heightPx)
    putMoved(between, between.from, shiftX, shiftY)
    putMoved(between, between.to, shiftX - alongX * widthPx, shiftY - alongY * heightPx)
  },
}

function putMoved({ place: { stack, widthPx, heightPx } }: TransitionPlace, side: TransitionSide, dx: number, dy: number): void {
  const left = Math.max(0, dx)
  const top = Math.max(0, dy)
  const right = Math.min(widthPx, widthPx + dx)
  const bottom = Math.min(heightPx, heightPx + dy)
  if (right <= left || bottom <= top) return
  const toPicture = translation(-dx, -dy)
  const whole = wholeItem(widthPx, heightPx, { kind: 'node', node: side.node(), toNode: toPicture })
  stack.put({ ...whole, toCoverage: toPicture, bounds: { left, top, right, bottom } })
}
