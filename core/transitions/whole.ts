import { translation } from '../composite/affine.ts'
import { plainCoverage } from '../composite/coverage.ts'
import type { Paint } from '../plan/frame-plan.ts'
import type { ItemParts } from '../plan/plan-builder.ts'
import type { TransitionPlace } from './definition.ts'

/** An item over all of a stack of a size. */
export function wholeItem(widthPx: number, heightPx: number, paint: Paint, layerId = ''): ItemParts {
  return {
    layerId,
    paint,
    coverage: plainCoverage({ kind: 'roundedRect', width: widthPx, height: heightPx, cornerRadius: 0 }),
    toCoverage: translation(0, 0),
    bounds: { left: 0, top: 0, right: widthPx, bottom: heightPx },
    opacity: 1,
    blend: 'normal',
  }
}

/** A picture of the stack's size, as it lies. */
export function pictureOf(node: number): Paint {
  return { kind: 'node', node, toNode: translation(0, 0) }
}

/**
 * The next picture over the one that was put before, as it lies: an item for each part that differs. Where both are the same, which is
 * where one camera fills both scenes, nothing has to be drawn twice. (Over a see-through ground all of it is put.)
 */
export function nextItems({ place: { stack, widthPx, heightPx }, ground, to }: TransitionPlace): readonly ItemParts[] {
  const node = to.node()
  const whole = wholeItem(widthPx, heightPx, pictureOf(node))
  return ground === 'black' ? stack.differencesFrom(node).map((bounds) => ({ ...whole, bounds })) : [whole]
}
