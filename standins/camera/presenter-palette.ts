import type { Pen } from '../drawing/canvas.ts'

export const SKIN = { light: '#e3a883', base: '#cf8d66', shade: '#a8653f', deep: '#7f4a2e' }
export const HAIR = { base: '#33231d', light: '#5b4034', dark: '#1f1512' }
export const WOOL = { light: '#e4ad45', base: '#d0932c', shade: '#9d6a1a' }

/** A round soft patch of colour. */
export function softShade(pen: Pen, x: number, y: number, radius: number, colour: string): void {
  const patch = pen.createRadialGradient(x, y, 0, x, y, radius)
  patch.addColorStop(0, colour)
  patch.addColorStop(1, colour.replace(/[\d.]+\)$/, '0)'))
  pen.fillStyle = patch
  pen.fillRect(x - radius, y - radius, radius * 2, radius * 2)
}
