import type { Rect } from '../box/fit.ts'

/** Inset of each edge: SMPTE ST 2046-1:2009 and EBU R 95, 3.5 % for action, 5 % for titles. */
export const SAFE_INSET = { action: 0.035, title: 0.05 } as const

/** The rectangle in which action or titles are safe, in canvas pixels. */
export function safeArea(kind: keyof typeof SAFE_INSET, widthPx: number, heightPx: number): Rect {
  const inset = SAFE_INSET[kind]
  return {
    x: widthPx * inset,
    y: heightPx * inset,
    width: widthPx * (1 - 2 * inset),
    height: heightPx * (1 - 2 * inset),
  }
}
