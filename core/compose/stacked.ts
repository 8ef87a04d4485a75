// Layers on a canvas of their own, put somewhere as one picture: a group, or another scene.
import { callsOf, NO_STEPS } from '../steps/treatment.ts'
import { translation } from '../composite/affine.ts'
import { plainCoverage } from '../composite/coverage.ts'
import { fitRects } from '../box/fit.ts'
import { unionOf } from '../picture/pixel-rect.ts'
import { StackItems } from '../plan/plan-builder.ts'
import type { Layer } from '../layers/layer.ts'
import { putPicture } from './picture.ts'
import { scaledPlacement, type Place } from './place.ts'

/** Puts `layers`, which lie on a canvas of the show's size, where `layer` has them. */
export function putStacked(place: Place, layer: Layer, layers: readonly Layer[], within: readonly string[]): void {
  const { builder, show, culls, motion } = place
  const steps = callsOf(NO_STEPS, layer.treatment)
  const isInPlace = liesWhereItLay(place, layer)
  // Nothing sets them apart, and none mixes with what lies under the group: they are part of what is around them.
  const areNormal = layers.every(({ visible, blend }) => !visible || blend === 'normal')
  if (areNormal && isInPlace && motion === null && steps.length === 0 && layer.opacity === 1 && layer.blend === 'normal')
    return place.putLayers({ ...place, within }, layers)
  const placement = scaledPlacement(layer.placement, place.scale)
  const { canvas } = show
  const rest = scaledPlacement(motion?.rest ?? layer.placement, place.scale)
  const fitted = fitRects(rest.fit, canvas.widthPx, canvas.heightPx, rest.width, rest.height, layer.crop)
  // Planned as large as it is seen at rest, also while it grows: its words are not set again for every size. Not larger than twice the
  // canvas, however far it is enlarged.
  const wanted = Math.max(fitted.target.width / fitted.source.width, fitted.target.height / fitted.source.height)
  const scale = isInPlace ? place.scale : Math.min(2 * place.scale, Math.max(1 / Math.min(canvas.widthPx, canvas.heightPx), wanted))
  const widthPx = isInPlace ? place.widthPx : Math.max(1, Math.round(canvas.widthPx * scale))
  const heightPx = isInPlace ? place.heightPx : Math.max(1, Math.round(canvas.heightPx * scale))
  const stack = new StackItems(builder, widthPx, heightPx, culls)
  place.putLayers({ ...place, stack, scale, widthPx, heightPx, within, motion: null }, layers)
  for (const missing of stack.missing) place.stack.miss(missing)
  if (stack.items.length === 0) return
  const made = builder.stack('clear', widthPx, heightPx, stack.items)
  const node = steps.length === 0 ? made : builder.filtered(made, steps)
  if (!isInPlace) {
    putPicture(place, layer, placement, { widthPx, heightPx }, () => ({ node, mipLevel: 0 }))
    return
  }
  place.stack.put({
    layerId: layer.id,
    paint: { kind: 'node', node, toNode: translation(0, 0) },
    coverage: { ...plainCoverage({ kind: 'roundedRect', width: widthPx, height: heightPx, cornerRadius: 0 }), reveal: motion?.reveal ?? null },
    toCoverage: translation(0, 0),
    // A treatment may reach beyond what it was given.
    bounds: steps.length === 0 ? unionOf(stack.items.map((item) => item.bounds)) : { left: 0, top: 0, right: widthPx, bottom: heightPx },
    opacity: layer.opacity,
    blend: layer.blend,
  })
}

/** Whether the canvas of the layers is the stack itself, pixel by pixel, with nothing round it. */
function liesWhereItLay({ show: { canvas }, scale, widthPx, heightPx }: Place, { placement, frame, crop }: Layer): boolean {
  const { x, y, width, height, angleDeg } = placement
  const isWhole = x === 0 && y === 0 && width === canvas.widthPx && height === canvas.heightPx && angleDeg === 0
  const isBare = crop === null && frame.form === 'box' && frame.cornerRadiusPx === 0 && frame.border === null && frame.shadow === null
  return isWhole && isBare && widthPx === Math.max(1, Math.round(canvas.widthPx * scale)) && heightPx === Math.max(1, Math.round(canvas.heightPx * scale))
}
