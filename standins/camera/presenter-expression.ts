import type { Pen } from '../drawing/canvas.ts'

/** Eyes and mouth, drawn on top of the head in each frame. `blink` and `speech` run 0..1. */
export function drawExpression(pen: Pen, blink: number, speech: number): void {
  for (const x of [593, 691]) {
    pen.fillStyle = '#f3ebe2'
    pen.beginPath()
    pen.ellipse(x, 306, 19, Math.max(1.2, 10.5 * (1 - blink)), 0, 0, Math.PI * 2)
    pen.fill()
    if (blink < 0.6) {
      pen.fillStyle = '#3c2a1e'
      pen.beginPath()
      pen.arc(x + 1, 306, 8.2 * (1 - blink * 0.6), 0, Math.PI * 2)
      pen.fill()
      pen.fillStyle = '#fff'
      pen.beginPath()
      pen.arc(x - 2, 303, 2.2, 0, Math.PI * 2)
      pen.fill()
    }
    pen.strokeStyle = '#2a1b15'
    pen.lineWidth = 3.4
    pen.beginPath()
    pen.ellipse(x, 306, 20, Math.max(1.4, 11 * (1 - blink)), 0, Math.PI * 1.08, Math.PI * 1.92)
    pen.stroke()
  }
  const open = speech * 15
  pen.fillStyle = '#5d1f1c'
  pen.beginPath()
  pen.moveTo(597, 397)
  pen.bezierCurveTo(620, 405 - open * 0.2, 664, 405 - open * 0.2, 689, 395)
  pen.bezierCurveTo(670, 418 + open, 616, 419 + open, 597, 397)
  pen.closePath()
  pen.fill()
  if (open > 4) {
    pen.fillStyle = '#efe4d8'
    pen.beginPath()
    pen.ellipse(643, 403.5, 27, 3, 0, 0, Math.PI)
    pen.fill()
  }
  pen.strokeStyle = '#a8453f'
  pen.lineWidth = 5
  pen.beginPath()
  pen.moveTo(596, 396)
  pen.bezierCurveTo(620, 404 - open * 0.2, 664, 404 - open * 0.2, 690, 394)
  pen.stroke()
  pen.strokeStyle = '#bd5a51'
  pen.lineWidth = 6
  pen.beginPath()
  pen.moveTo(607, 409)
  pen.bezierCurveTo(622, 421 + open, 664, 421 + open, 680, 407)
  pen.stroke()
}
