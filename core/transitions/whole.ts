import { translation } from '../composite/affine.ts'
import { plainCoverage } from '../composite/coverage.ts'
import type { Paint } from '../plan/frame-plan.ts'
import type { ItemParts } from '../plan/plan-builder.ts'

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
