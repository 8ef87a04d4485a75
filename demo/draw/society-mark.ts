// The mark of the demo's beekeepers' society: a cell with a drop of honey.
import type { Pen } from '../../standins/drawing/canvas.ts'

/** Draws the mark into 400 × 400, clear around it. */
export function drawSocietyMark(pen: Pen): void {
  hexagon(pen, 200, 200, 186)
  pen.fillStyle = '#1e5b47'
  pen.fill()
  hexagon(pen, 200, 200, 158)
  pen.lineWidth = 7
  pen.strokeStyle = '#e0b04b'
  pen.stroke()
  const honey = pen.createLinearGradient(150, 110, 260, 300)
  honey.addColorStop(0, '#f0c869')
  honey.addColorStop(1, '#c8862a')
  pen.fillStyle = honey
  pen.beginPath()
  pen.moveTo(200, 92)
  pen.bezierCurveTo(232, 152, 274, 186, 274, 236)
  pen.bezierCurveTo(274, 280, 240, 306, 200, 306)
  pen.bezierCurveTo(160, 306, 126, 280, 126, 236)
  pen.bezierCurveTo(126, 186, 168, 152, 200, 92)
  pen.closePath()
  pen.fill()
  pen.fillStyle = 'rgba(255,255,255,0.5)'
  pen.beginPath()
  pen.ellipse(166, 226, 12, 28, 0.35, 0, Math.PI * 2)
  pen.fill()
}

function hexagon(pen: Pen, x: number, y: number, radius: number): void {
  pen.beginPath()
  for (let corner = 0; corner < 6; corner += 1) {
    const angle = (Math.PI / 3) * corner + Math.PI / 6
    pen.lineTo(x + Math.cos(angle) * radius, y + Math.sin(angle) * radius)
  }
  pen.closePath()
}
