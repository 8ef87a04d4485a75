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

/** A box of a proportion about the same middle, as large as the one it was. What showed all of itself fills it now, so that nothing is left open. */
export function inProportion(placement: Placement, name: ProportionName): Placement {
  const { x, y, width, height, fit } = placement
  const nextWidth = Math.round(Math.sqrt(width * height * proportions[name]))
  const nextHeight = Math.round(nextWidth / proportions[name])
  return {
    ...placement,
    x: x + (width - nextWidth) / 2,
    y: y + (height - nextHeight) / 2,
    width: Math.max(1, nextWidth),
    height: Math.max(1, nextHeight),
    fit: fit === 'fit' ? 'fill' : fit,
  }
}
