import type { Pen } from '../drawing/canvas.ts'
import { SKIN, WOOL } from './presenter-palette.ts'

/** The raised hand and its sleeve, in units of a 1280 × 720 picture. */
export function drawHand(pen: Pen): void {
  // Sleeve.
  const sleeve = pen.createLinearGradient(930, 560, 1060, 640)
  sleeve.addColorStop(0, WOOL.light)
  sleeve.addColorStop(1, WOOL.shade)
  pen.strokeStyle = sleeve
  pen.lineWidth = 92
  pen.beginPath()
  pen.moveTo(966, 790)
  pen.quadraticCurveTo(985, 690, 993, 620)
  pen.stroke()
  pen.strokeStyle = 'rgba(90,56,8,0.4)'
  pen.lineWidth = 5
  pen.beginPath()
  pen.moveTo(949, 586)
  pen.quadraticCurveTo(995, 600, 1038, 590)
  pen.stroke()
  // Palm and fingers, towards the camera.
  const palm = pen.createRadialGradient(985, 520, 10, 995, 530, 90)
  palm.addColorStop(0, '#e7b08c')
  palm.addColorStop(1, SKIN.base)
  pen.fillStyle = palm
  pen.strokeStyle = palm
  const fingers: readonly (readonly [number, number, number, number, number])[] = [
    [962, 500, 944, 420, 22],
    [984, 494, 980, 398, 23],
    [1008, 496, 1016, 408, 22],
    [1030, 506, 1050, 438, 19],
  ]
  for (const [fromX, fromY, toX, toY, width] of fingers) {
    pen.lineWidth = width
    pen.beginPath()
    pen.moveTo(fromX, fromY)
    pen.lineTo(toX, toY)
    pen.stroke()
  }
  pen.beginPath()
  pen.roundRect(950, 480, 92, 108, 34)
  pen.fill()
  pen.lineWidth = 25
  pen.beginPath()
  pen.moveTo(966, 560)
  pen.quadraticCurveTo(932, 532, 922, 498)
  pen.stroke()
  pen.strokeStyle = 'rgba(140,72,42,0.4)'
  pen.lineWidth = 2.6
  pen.beginPath()
  pen.moveTo(966, 540)
  pen.quadraticCurveTo(990, 514, 1032, 520)
  pen.moveTo(974, 572)
  pen.quadraticCurveTo(978, 540, 1010, 532)
  for (const [fromX, fromY, toX, toY] of fingers) {
    const x = fromX + (toX - fromX) * 0.42
    const y = fromY + (toY - fromY) * 0.42
    pen.moveTo(x - 7, y)
    pen.lineTo(x + 7, y)
  }
  pen.stroke()
}
