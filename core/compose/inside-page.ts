// A presenter inside a page: what lies between a page and its multiplied ink is darkened by that ink, and nothing else is. The page's
// own colours stay as they are wherever nobody stands.
import { translation } from '../composite/affine.ts'
import { plainCoverage } from '../composite/coverage.ts'
import { showsSame } from '../layers/index.ts'
import { isEmptyRect, unionOf } from '../picture/pixel-rect.ts'
import type { PixelRect } from '../picture/picture.ts'
import { StackItems } from '../plan/plan-builder.ts'
import type { Layer } from '../layers/layer.ts'
import type { Place } from './place.ts'

/** Whether a layer is the ink of a page that darkens what is under it. */
const darkens = (layer: Layer) => layer.part === 'ink' && layer.blend === 'multiply' && layer.visible

/** Where in a list the ink of the layer at `index` is; −1 when it has none, or is not seen itself. */
export function inkAbove(layers: readonly Layer[], index: number): number {
  const page = layers[index]!
  if (!page.visible || page.part === 'ink') return -1
  const ink = layers.findIndex((layer, i) => i > index && darkens(layer) && showsSame(layer, page))
  // Of two layers that show the page, the ink belongs to the nearer one.
  return layers.some((layer, i) => i > index && i < ink && layer.visible && layer.part !== 'ink' && showsSame(layer, page)) ? -1 : ink
}

/** Whether some layer of a list stands inside a page, so that they cannot be drawn one by one. */
export function hasInkInside(layers: readonly Layer[]): boolean {
  return layers.some((_, index) => inkAbove(layers, index) >= 0)
}

/** Puts what lies between a page and its ink, and the ink on that alone: an isolated group as W3C Compositing and Blending Level 1 §3.3 has it. */
export function putBetween(place: Place, between: readonly Layer[], ink: Layer): void {
  const { builder, stack, widthPx, heightPx, culls, putLayers } = place
  // What is hidden by the ink in the end is seen through it: nothing may be left out.
  const inner = new StackItems(builder, widthPx, heightPx, false)
  const outer = new StackItems(builder, widthPx, heightPx, culls)
  putLayers({ ...place, stack: inner }, between)
  putLayers({ ...place, stack: outer }, [ink])
  for (const missing of [...inner.missing, ...outer.missing]) stack.miss(missing)
  if (inner.items.length === 0) return
  const bounds = unionOf(inner.items.map((item) => item.bounds))
  for (const item of outer.items) {
    const within = intersection(item.bounds, bounds)
    if (!isEmptyRect(within)) inner.put({ ...item, bounds: within })
  }
  stack.put({
    layerId: between.at(-1)!.id,
    paint: { kind: 'node', node: builder.stack('clear', widthPx, heightPx, inner.items), toNode: translation(0, 0) },
    coverage: plainCoverage({ kind: 'roundedRect', width: widthPx, height: heightPx, cornerRadius: 0 }),
    toCoverage: translation(0, 0),
    bounds,
    opacity: 1,
    blend: 'normal',
  })
}

function intersection(one: PixelRect, other: PixelRect): PixelRect {
  return {
    left: Math.max(one.left, other.left),
    top: Math.max(one.top, other.top),
    right: Math.min(one.right, other.right),
    bottom: Math.min(one.bottom, other.bottom),
  }
}
