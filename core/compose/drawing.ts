// What is drawn on a page, or over a scene: pictures of strokes, put where their surface is.
import { followedBy, inverse, mapPoint, scaling, translation } from '../composite/affine.ts'
import { plainCoverage } from '../composite/coverage.ts'
import { boxToCanvas, mappedBounds } from '../box/placement.ts'
import { fitRects } from '../box/fit.ts'
import { frameShape } from '../box/frame.ts'
import { fadedOpacity, pageSurface, sceneSurface, type DrawnPart, type SurfaceId } from '../drawing/surface.ts'
import { isDeck, pageAt } from '../inputs/deck.ts'
import { inputIdOf, pageIdOf } from '../layers/index.ts'
import type { Layer } from '../layers/layer.ts'
import type { PixelRect } from '../picture/picture.ts'
import { meeting } from '../picture/pixel-rect.ts'
import { scaledPlacement, type Place } from './place.ts'

/** Puts what is drawn on the page that a layer shows, in the layer's place and frame; nothing for other layers. */
export function putPageDrawing(place: Place, layer: Layer): void {
  const inputId = inputIdOf(layer)
  if (place.drawings === null || inputId === null) return
  const input = place.show.inputs.find(({ id }) => id === inputId)
  if (input === undefined || !isDeck(input)) return
  for (const part of partsOf(place, pageSurface(inputId, pageAt(input, pageIdOf(layer)).id))) putPart(place, layer, part)
}

/** Puts what is drawn over a scene, or a share (0..1) of it. */
export function putSceneDrawing(place: Place, sceneId: string, share = 1): void {
  if (place.drawings === null) return
  const { builder, stack, widthPx, heightPx, scale, show } = place
  for (const part of partsOf(place, sceneSurface(sceneId))) {
    const toStack = scaling((show.canvas.widthPx * scale) / part.surfaceWidthPx, (show.canvas.heightPx * scale) / part.surfaceHeightPx)
    const fromStack = scaling(part.surfaceWidthPx / (show.canvas.widthPx * scale), part.surfaceHeightPx / (show.canvas.heightPx * scale))
    stack.put({
      layerId: `drawing:${sceneId}`,
      paint: { kind: 'node', node: builder.drawn(part), toNode: followedBy(fromStack, translation(-part.x, -part.y)) },
      coverage: plainCoverage({ kind: 'roundedRect', width: widthPx, height: heightPx, cornerRadius: 0 }),
      toCoverage: translation(0, 0),
      bounds: boundsOf(part, (x, y) => mapPoint(toStack, x, y), { left: 0, top: 0, right: widthPx, bottom: heightPx }),
      opacity: share * opacityOf(place, part),
      blend: 'normal',
    })
  }
}

function partsOf({ drawings }: Place, surface: SurfaceId): readonly DrawnPart[] {
  return drawings?.get(surface) ?? []
}

function putPart(place: Place, layer: Layer, part: DrawnPart): void {
  const { widthPx, heightPx, scale, stack, builder, motion } = place
  const placement = scaledPlacement(layer.placement, scale)
  const fitted = fitRects(placement.fit, part.surfaceWidthPx, part.surfaceHeightPx, placement.width, placement.height, layer.crop)
  const { width, height } = fitted.target
  const frameToStack = followedBy(translation(fitted.target.x, fitted.target.y), boxToCanvas(placement))
  const toFrame = inverse(frameToStack)
  const [acrossX, acrossY] = [fitted.source.width / width, fitted.source.height / height]
  const whole = mappedBounds(frameToStack, width, height, widthPx, heightPx)
  const toStack = (x: number, y: number) => mapPoint(frameToStack, (x - fitted.source.x) / acrossX, (y - fitted.source.y) / acrossY)
  stack.put({
    layerId: layer.id,
    paint: {
      kind: 'node',
      node: builder.drawn(part),
      toNode: followedBy(followedBy(toFrame, scaling(acrossX, acrossY)), translation(fitted.source.x - part.x, fitted.source.y - part.y)),
    },
    // Border and shadow are the page's; a drawing has none of its own.
    coverage: { ...plainCoverage(frameShape(layer.frame, width, height, scale)), reveal: motion?.reveal ?? null },
    toCoverage: toFrame,
    bounds: boundsOf(part, toStack, whole),
    opacity: layer.opacity * opacityOf(place, part),
    blend: layer.part === 'ink' ? 'normal' : layer.blend,
  })
}

function opacityOf({ builder, clock }: Place, { fadesFromMs }: DrawnPart): number {
  if (fadesFromMs === null) return 1
  // It stands until then, and changes from there on.
  builder.changesAt(Math.max(fadesFromMs, clock.timeMs))
  return fadedOpacity(fadesFromMs, clock.timeMs)
}

/** Whole pixels of the stack that a part reaches; its own edge is clear. */
function boundsOf({ x, y, widthPx, heightPx }: DrawnPart, toStack: (x: number, y: number) => readonly [number, number], within: PixelRect): PixelRect {
  const corners = [toStack(x, y), toStack(x + widthPx, y), toStack(x, y + heightPx), toStack(x + widthPx, y + heightPx)]
  const [across, down] = [corners.map(([at]) => at), corners.map(([, at]) => at)]
  return meeting(within, {
    left: Math.floor(Math.min(...across)),
    top: Math.floor(Math.min(...down)),
    right: Math.ceil(Math.max(...across)),
    bottom: Math.ceil(Math.max(...down)),
  })
}
