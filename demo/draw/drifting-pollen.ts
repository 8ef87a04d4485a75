// A ground that moves and never ends: pollen drifts through evening light. Everything is a circle of time, so the last picture runs into the first.
import { seededRandom } from '../../core/random/seeded.ts'
import type { Pen } from '../../standins/drawing/canvas.ts'

export const POLLEN_WIDTH_PX = 640
export const POLLEN_HEIGHT_PX = 360

const GRAINS = 46

/** Draws one picture of the loop into 640 × 360; `phase` from 0 up to, not with, 1. */
export function drawDriftingPollen(pen: Pen, phase: number): void {
  const light = pen.createLinearGradient(0, 0, POLLEN_WIDTH_PX, POLLEN_HEIGHT_PX)
  light.addColorStop(0, '#143b32')
  light.addColorStop(0.55, '#1e5b47')
  light.addColorStop(1, '#7a5f26')
  pen.fillStyle = light
  pen.fillRect(0, 0, POLLEN_WIDTH_PX, POLLEN_HEIGHT_PX)
  const random = seededRandom(41)
  for (let i = 0; i < GRAINS; i += 1) {
    const turn = Math.PI * 2 * (phase + random())
    const wide = 14 + random() * 40
    const x = random() * POLLEN_WIDTH_PX + Math.cos(turn) * wide
    const y = random() * POLLEN_HEIGHT_PX + Math.sin(turn) * wide * 0.6
    const radius = 4 + random() * random() * 46
    const strength = (0.08 + random() * 0.22) * (0.75 + 0.25 * Math.sin(turn * 2))
    const grain = pen.createRadialGradient(x, y, 0, x, y, radius)
    grain.addColorStop(0, `rgba(246,214,132,${strength})`)
    grain.addColorStop(0.6, `rgba(246,214,132,${strength * 0.6})`)
    grain.addColorStop(1, 'rgba(246,214,132,0)')
    pen.fillStyle = grain
    pen.fillRect(x - radius, y - radius, radius * 2, radius * 2)
  }
}
