// Forms that are asked for often, as path data in a square box.

/** Side of the box that they are drawn in. */
export const OUTLINE_BOX = 100

export const usualOutlines = {
  triangle: 'M50 4 L98 92 L2 92 Z',
  diamond: 'M50 0 L100 50 L50 100 L0 50 Z',
  hexagon: 'M25 6.7 L75 6.7 L100 50 L75 93.3 L25 93.3 L0 50 Z',
  star: starPath(5, 50, 20),
  arrow: 'M0 36 L58 36 L58 12 L100 50 L58 88 L58 64 L0 64 Z',
  bubble: 'M14 4 H86 A12 12 0 0 1 98 16 V62 A12 12 0 0 1 86 74 H46 L24 97 L28 74 H14 A12 12 0 0 1 2 62 V16 A12 12 0 0 1 14 4 Z',
} as const

export type OutlineName = keyof typeof usualOutlines

/** A star whose points lie on a circle about the middle of the box, and the corners between them on a smaller one. */
export function starPath(points: number, outer: number, inner: number): string {
  const corners = Array.from({ length: points * 2 }, (_, i) => {
    const angle = (Math.PI * i) / points
    const radius = i % 2 === 0 ? outer : inner
    const at = (value: number) => Math.round((OUTLINE_BOX / 2 + value) * 100) / 100
    return `${at(radius * Math.sin(angle))} ${at(-radius * Math.cos(angle))}`
  })
  return `M${corners.join(' L')} Z`
}
