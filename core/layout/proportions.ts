// Boxes of usual proportions.
import type { Placement } from '../show/show.ts'

/** Width over height. */
export const proportions = { wide: 16 / 9, classic: 4 / 3, square: 1, tall: 9 / 16 } as const
export type ProportionName = keyof typeof proportions
export const proportionNames = Object.keys(proportions) as ProportionName[]

/** Nearer than this a box has the proportion. */
const TOLERANCE = 0.01

/** The proportion that a box has; null for any other. */
export function proportionOf({ width, height }: Pick<Placement, 'width' | 'height'>): ProportionName | null {
  return proportionNames.find((name) => Math.abs(width / height / proportions[name] - 1) < TOLERANCE) ?? null
}

/**
 * A box of a ratio of width to height about the same middle, as large as the one it was. One that lay inside the canvas stays inside: smaller or
 * moved where it must be. What showed all of itself fills it now, so that nothing is left open.
 */
export function inRatio(placement: Placement, ratio: number, canvas: CanvasSize): Placement {
  const { x, y, width, height, fit } = placement
  const wanted = Math.sqrt(width * height * ratio)
  const [middleX, middleY] = [x + width / 2, y + height / 2]
  const isKeptInside = isInside(placement, canvas)
  const size = (nextWidth: number) => ({ width: Math.max(1, Math.round(nextWidth)), height: Math.max(1, Math.round(Math.round(nextWidth) / ratio)) })
  const reach = reachOf({ ...placement, width: ratio, height: 1 })
  const most = isKeptInside ? Math.min(canvas.widthPx / reach.x, canvas.heightPx / reach.y) * ratio : Infinity
  // Rounded up, the last pixel may be outside.
  const next = size(wanted <= most ? wanted : Math.floor(most))
  const made = { ...placement, x: middleX - next.width / 2, y: middleY - next.height / 2, ...next, fit: fit === 'fit' ? ('fill' as const) : fit }
  return isKeptInside ? movedInside(made, canvas) : made
}

/** A box of a usual proportion, as `inRatio`. */
export function inProportion(placement: Placement, name: ProportionName, canvas: CanvasSize): Placement {
  return inRatio(placement, proportions[name], canvas)
}

export interface CanvasSize {
  readonly widthPx: number
  readonly heightPx: number
}

/** Half a pixel over the edge is inside. */
const EDGE_PX = 0.5

/** How wide and how high a box is as it is turned. */
function reachOf({ width, height, angleDeg }: Placement): { readonly x: number; readonly y: number } {
  const angle = (angleDeg * Math.PI) / 180
  const [cos, sin] = [Math.abs(Math.cos(angle)), Math.abs(Math.sin(angle))]
  return { x: width * cos + height * sin, y: width * sin + height * cos }
}

function isInside(placement: Placement, { widthPx, heightPx }: CanvasSize): boolean {
  const { x, y, width, height } = placement
  const reach = reachOf(placement)
  const [left, top] = [x + (width - reach.x) / 2, y + (height - reach.y) / 2]
  return left >= -EDGE_PX && top >= -EDGE_PX && left + reach.x <= widthPx + EDGE_PX && top + reach.y <= heightPx + EDGE_PX
}

function movedInside(placement: Placement, { widthPx, heightPx }: CanvasSize): Placement {
  const { x, y, width, height } = placement
  const reach = reachOf(placement)
  const held = (at: number, own: number, turned: number, whole: number) => {
    const first = at + (own - turned) / 2
    return at + Math.max(0, -first) - Math.max(0, first + turned - whole)
  }
  return { ...placement, x: held(x, width, reach.x, widthPx), y: held(y, height, reach.y, heightPx) }
}
