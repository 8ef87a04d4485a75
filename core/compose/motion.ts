// What a moment makes of a layer that comes or goes.
import { layerKindOf } from '../layers/index.ts'
import { scaledFrame } from '../box/frame.ts'
import type { EdgeReveal } from '../composite/coverage.ts'
import { AT_REST, entranceAt, exitAt, lastsMs, type Appearance, type AppearanceMoment, type Side } from '../motion/appearance.ts'
import type { Layer } from '../layers/layer.ts'
import { scaledPlacement, toBox, type LayerMotion, type Place } from './place.ts'

/** The same layer for the moment. */
export interface MovedLayer extends LayerMotion {
  readonly layer: Layer
}

/** How wide a wipe's soft edge is, of the way it takes. */
const SOFT_SHARE = 0.06

/** A layer at this moment; the layer itself, at rest, when nothing moves it, and null when it is away. */
export function moved(place: Place, layer: Layer): MovedLayer | null {
  const { moment, side } = momentOf(place, layer)
  const rest = layer.placement
  if (moment === AT_REST) return { layer, rest, reveal: null, typed: 1 }
  if (moment.opacity <= 0 || moment.scale <= 0 || moment.revealed <= 0) return null
  const { width, height } = rest
  const placement = {
    ...rest,
    x: rest.x + moment.shiftX * width + (width * (1 - moment.scale)) / 2,
    y: rest.y + moment.shiftY * height + (height * (1 - moment.scale)) / 2,
    width: width * moment.scale,
    height: height * moment.scale,
  }
  const frame = moment.scale === 1 ? layer.frame : scaledFrame(layer.frame, (px) => px * moment.scale)
  const next = { ...layer, placement, frame, opacity: layer.opacity * moment.opacity }
  return { layer: next, rest, reveal: moment.revealed < 1 ? revealOf(place, next, side, moment.revealed) : null, typed: moment.typed }
}

function momentOf({ clock, builder }: Place, layer: Layer): { readonly moment: AppearanceMoment; readonly side: Side } {
  const entrance = fitting(layer, layer.entrance)
  const exit = fitting(layer, layer.exit)
  const { timeMs, enteredMs, leavesMs } = clock
  const entranceEndsMs = entrance === null || enteredMs === null ? -Infinity : enteredMs + lastsMs(entrance)
  const comes = timeMs < entranceEndsMs ? entranceAt(entrance, timeMs - enteredMs!) : AT_REST
  if (timeMs < entranceEndsMs) builder.changesAt(stirs(entrance!, enteredMs!, timeMs))
  if (exit === null || leavesMs === null) return { moment: comes, side: entrance?.side ?? 'left' }
  if (timeMs < leavesMs + lastsMs(exit)) builder.changesAt(stirs(exit, leavesMs, timeMs))
  if (timeMs < leavesMs) return { moment: comes, side: entrance?.side ?? 'left' }
  // One that leaves before it has come has an edge already that uncovers it: it fades.
  const isCutShort = leavesMs < entranceEndsMs && exit.kind === 'wipe' && entrance!.kind === 'wipe'
  const goes = exitAt(isCutShort ? { ...exit, kind: 'fade' } : exit, timeMs - leavesMs)
  return { moment: together(comes, goes), side: comes.revealed < 1 ? entrance!.side : exit.side }
}

/** Only words are typed; other things fade. */
function fitting(layer: Layer, appearance: Appearance | null): Appearance | null {
  return appearance?.kind === 'typed' && !layerKindOf(layer).isText ? { ...appearance, kind: 'fade' } : appearance
}

/** When something is seen of it next: once its delay is over, and then at any time. */
function stirs({ delayMs }: Appearance, cueMs: number, timeMs: number): number {
  return Math.max(cueMs + delayMs, timeMs)
}

function together(one: AppearanceMoment, other: AppearanceMoment): AppearanceMoment {
  if (one === AT_REST) return other
  if (other === AT_REST) return one
  return {
    opacity: one.opacity * other.opacity,
    shiftX: one.shiftX + other.shiftX,
    shiftY: one.shiftY + other.shiftY,
    scale: one.scale * other.scale,
    revealed: Math.min(one.revealed, other.revealed),
    typed: Math.min(one.typed, other.typed),
  }
}

/** The edge that uncovers a layer from a side: it begins before what lies round the layer, and ends behind it. */
function revealOf({ scale }: Place, { placement, frame }: Layer, side: Side, revealed: number): EdgeReveal {
  const box = scaledPlacement(placement, scale)
  const { border, shadow } = frame
  const beyond =
    scale *
    Math.max(border?.side === 'outside' ? border.widthPx : 0, shadow === null ? 0 : Math.max(Math.abs(shadow.dx), Math.abs(shadow.dy)) + shadow.blurPx * 1.5)
  const { a, b, c, d, e, f } = toBox(box)
  const isAcross = side === 'left' || side === 'right'
  const extent = isAcross ? box.width : box.height
  const soft = Math.max(1, extent * SOFT_SHARE)
  const edge = -beyond - soft / 2 + revealed * (extent + 2 * beyond + soft)
  // The share at a way q into the box from its side is (edge − q) / soft + ½.
  const sign = side === 'left' || side === 'top' ? 1 : -1
  const from = sign === 1 ? 0 : extent
  const [alongX, alongY, at] = isAcross ? [a, c, e] : [b, d, f]
  return { kind: 'edge', a: (-sign * alongX) / soft, b: (-sign * alongY) / soft, c: (edge - from - sign * at) / soft + 0.5 }
}
