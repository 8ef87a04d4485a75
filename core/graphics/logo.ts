// A logo in a corner: a graphic that is one picture.
import { safeArea } from '../layout/safe-area.ts'
import { inputIdOf } from '../layers/index.ts'
import { newInputLayer } from '../layers/input.ts'
import type { Canvas, Layer } from '../layers/layer.ts'
import { namedEasings } from '../motion/easing.ts'
import type { Placement } from '../box/placement.ts'
import type { MakeId } from '../random/make-id.ts'
import { newScene } from '../show/create.ts'
import type { Input, Scene } from '../show/show.ts'

export const corners = ['topLeft', 'topRight', 'bottomLeft', 'bottomRight'] as const
export type Corner = (typeof corners)[number]

/** Of the shorter side of the canvas. */
const LOGO_SHARE = 0.16
/** A wide logo may be this many times as wide as it is high. */
const MOST_WIDTH = 2.6

/** A graphic that shows a picture in a corner, within what every screen shows. */
export function makeLogo(input: Input, name: string, corner: Corner, canvas: Canvas, makeId: MakeId): Scene {
  const layer = newInputLayer(input, canvas, makeId)
  const fade = { kind: 'fade', durationMs: 300, delayMs: 0, easing: namedEasings.easeOut, side: 'left' } as const
  const placed: Layer = { ...layer, placement: inCorner(corner, canvas), entrance: fade, exit: fade }
  return { ...newScene(name, makeId), graphic: { key: null }, layers: [placed] }
}

/** The box of a logo: all of the picture is fitted into it, at its corner's side of it where the picture is narrow. */
export function inCorner(corner: Corner, { widthPx, heightPx }: Canvas): Placement {
  const safe = safeArea('title', widthPx, heightPx)
  const height = Math.round(Math.min(widthPx, heightPx) * LOGO_SHARE)
  const width = Math.min(Math.round(height * MOST_WIDTH), Math.round(safe.width))
  const isLeft = corner === 'topLeft' || corner === 'bottomLeft'
  const isTop = corner === 'topLeft' || corner === 'topRight'
  return {
    x: Math.ceil(isLeft ? safe.x : safe.x + safe.width - width),
    y: Math.ceil(isTop ? safe.y : safe.y + safe.height - height),
    width,
    height,
    angleDeg: 0,
    fit: 'fit',
  }
}

/** The same box as narrow as its picture is, so that it stands in the corner itself. `aspect`: width by height of the picture. */
export function tightInCorner(corner: Corner, canvas: Canvas, aspect: number): Placement {
  const box = inCorner(corner, canvas)
  const width = Math.max(1, Math.min(box.width, Math.round(box.height * aspect)))
  const height = Math.max(1, Math.min(box.height, Math.round(width / aspect)))
  const isLeft = corner === 'topLeft' || corner === 'bottomLeft'
  const isTop = corner === 'topLeft' || corner === 'topRight'
  return { ...box, x: isLeft ? box.x : box.x + box.width - width, y: isTop ? box.y : box.y + box.height - height, width, height }
}

/** The picture of a logo; null for a graphic that is none. */
export function logoOf({ graphic, layers }: Scene): Layer | null {
  const [layer] = layers
  return graphic !== null && layers.length === 1 && layer !== undefined && inputIdOf(layer) !== null ? layer : null
}
