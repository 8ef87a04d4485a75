// The presenter's shoulders and wool, in the units of a 1280 × 720 picture.
import type { Pen } from '../drawing/canvas.ts'
import { SKIN, softShade, WOOL } from './presenter-palette.ts'

export function drawTorso(pen: Pen): void {
  // Neck, in the shade of the chin.
  const neck = pen.createLinearGradient(580, 0, 710, 0)
  neck.addColorStop(0, SKIN.base)
  neck.addColorStop(0.45, '#c07f59')
  neck.addColorStop(1, SKIN.deep)
  pen.fillStyle = neck
  pen.beginPath()
  pen.moveTo(586, 400)
  pen.bezierCurveTo(590, 470, 584, 505, 548, 530)
  pen.lineTo(640, 600)
  pen.lineTo(738, 530)
  pen.bezierCurveTo(700, 505, 694, 470, 698, 400)
  pen.closePath()
  pen.fill()
  const underChin = pen.createLinearGradient(0, 430, 0, 505)
  underChin.addColorStop(0, 'rgba(70,34,18,0.62)')
  underChin.addColorStop(1, 'rgba(70,34,18,0)')
  pen.fillStyle = underChin
  pen.beginPath()
  pen.ellipse(644, 432, 62, 74, 0, 0, Math.PI * 2)
  pen.fill()

  // Jumper.
  const wool = pen.createLinearGradient(330, 480, 960, 720)
  wool.addColorStop(0, WOOL.light)
  wool.addColorStop(0.5, WOOL.base)
  wool.addColorStop(1, WOOL.shade)
  pen.fillStyle = wool
  pen.beginPath()
  pen.moveTo(556, 520)
  pen.bezierCurveTo(500, 548, 420, 556, 380, 590)
  pen.bezierCurveTo(340, 624, 318, 690, 306, 770)
  pen.lineTo(974, 770)
  pen.bezierCurveTo(962, 690, 940, 624, 900, 590)
  pen.bezierCurveTo(860, 556, 784, 548, 728, 520)
  pen.bezierCurveTo(708, 562, 676, 582, 642, 582)
  pen.bezierCurveTo(608, 582, 576, 562, 556, 520)
  pen.closePath()
  pen.fill()
  pen.save()
  pen.clip()
  // Ribs of the knit.
  pen.lineWidth = 1.4
  for (let i = -40; i <= 40; i += 1) {
    const x = 640 + i * 9
    pen.strokeStyle = i % 2 === 0 ? 'rgba(90,56,8,0.16)' : 'rgba(255,226,150,0.14)'
    pen.beginPath()
    pen.moveTo(x, 540)
    pen.quadraticCurveTo(x + i * 1.1, 650, x + i * 1.7, 770)
    pen.stroke()
  }
  softShade(pen, 960, 700, 230, 'rgba(70,38,0,0.5)')
  softShade(pen, 500, 590, 120, 'rgba(255,235,170,0.28)')
  // Arms part from the chest.
  pen.strokeStyle = 'rgba(80,46,4,0.35)'
  pen.lineWidth = 5
  pen.beginPath()
  pen.moveTo(430, 640)
  pen.quadraticCurveTo(438, 700, 436, 770)
  pen.moveTo(852, 640)
  pen.quadraticCurveTo(842, 700, 846, 770)
  pen.stroke()
  pen.restore()
  // Collar.
  pen.strokeStyle = WOOL.shade
  pen.lineWidth = 24
  pen.beginPath()
  pen.moveTo(560, 522)
  pen.bezierCurveTo(582, 566, 612, 586, 642, 586)
  pen.bezierCurveTo(672, 586, 702, 566, 724, 522)
  pen.stroke()
  pen.strokeStyle = WOOL.base
  pen.lineWidth = 17
  pen.stroke()
  // Clip microphone.
  pen.fillStyle = '#20201f'
  pen.beginPath()
  pen.roundRect(657, 604, 15, 28, 6)
  pen.fill()
  pen.fillStyle = '#4b4b49'
  pen.beginPath()
  pen.roundRect(659, 606, 11, 12, 5)
  pen.fill()
}
