// A table from above: a brood frame, a hive tool, a cup; in units of a 1280 × 720 picture.
import { seededRandom } from '../../core/random/seeded.ts'
import type { Pen } from '../drawing/canvas.ts'

/** Draws the table and what lies on it. */
export function drawTable(pen: Pen): void {
  const wood = pen.createLinearGradient(0, 0, 1280, 720)
  wood.addColorStop(0, '#8d6a4d')
  wood.addColorStop(1, '#6d4f38')
  pen.fillStyle = wood
  pen.fillRect(0, 0, 1280, 720)
  const random = seededRandom(17)
  pen.lineWidth = 1.5
  for (let i = 0; i < 90; i += 1) {
    const y = random() * 720
    pen.strokeStyle = `rgba(48,28,14,${0.08 + random() * 0.14})`
    pen.beginPath()
    pen.moveTo(0, y)
    pen.bezierCurveTo(400, y + (random() - 0.5) * 30, 800, y + (random() - 0.5) * 30, 1280, y + (random() - 0.5) * 16)
    pen.stroke()
  }
  pen.fillStyle = 'rgba(30,16,6,0.35)'
  pen.fillRect(252, 152, 690, 430)
  drawFrame(pen, 240, 136, 690, 430)
  drawTool(pen)
  drawCup(pen, 1120, 160)
}

function drawFrame(pen: Pen, x: number, y: number, width: number, height: number): void {
  pen.fillStyle = '#d2ab72'
  pen.fillRect(x - 60, y, width + 120, 44)
  pen.fillRect(x, y, 34, height)
  pen.fillRect(x + width - 34, y, 34, height)
  pen.fillRect(x, y + height - 30, width, 30)
  const left = x + 34
  const top = y + 44
  const right = x + width - 34
  const bottom = y + height - 30
  pen.fillStyle = '#a8742a'
  pen.fillRect(left, top, right - left, bottom - top)
  const random = seededRandom(5)
  const step = 15
  for (let row = 0; top + row * step * 0.86 < bottom - 8; row += 1) {
    for (let column = 0; left + column * step < right - 10; column += 1) {
      const cx = left + 9 + column * step + (row % 2) * step * 0.5
      const cy = top + 9 + row * step * 0.86
      // Brood in the middle, pollen round it, honey in the corners.
      const reach = Math.hypot((cx - (x + width / 2)) / (width * 0.34), (cy - (y + height * 0.6)) / (height * 0.4))
      pen.fillStyle =
        reach < 1
          ? random() < 0.07
            ? '#3d2a14'
            : '#c79a58'
          : reach < 1.22
            ? ['#d7912b', '#c25f2c', '#e2c04a', '#8e7a3a'][Math.floor(random() * 4)]!
            : '#eacb83'
      pen.beginPath()
      for (let corner = 0; corner < 6; corner += 1) {
        const angle = (corner * Math.PI) / 3 + Math.PI / 6
        const px = cx + Math.cos(angle) * 7
        const py = cy + Math.sin(angle) * 7
        if (corner === 0) pen.moveTo(px, py)
        else pen.lineTo(px, py)
      }
      pen.closePath()
      pen.fill()
    }
  }
}

function drawTool(pen: Pen): void {
  pen.save()
  pen.translate(120, 420)
  pen.rotate(-0.35)
  pen.fillStyle = '#b33a2c'
  pen.fillRect(-16, -150, 32, 190)
  pen.fillStyle = '#b9bcbb'
  pen.fillRect(-19, 40, 38, 90)
  pen.fillRect(-24, -186, 48, 38)
  pen.restore()
}

function drawCup(pen: Pen, x: number, y: number): void {
  pen.fillStyle = 'rgba(30,16,6,0.35)'
  pen.beginPath()
  pen.arc(x + 8, y + 10, 76, 0, Math.PI * 2)
  pen.fill()
  pen.fillStyle = '#e9e5da'
  pen.beginPath()
  pen.arc(x, y, 74, 0, Math.PI * 2)
  pen.fill()
  pen.fillStyle = '#5b3418'
  pen.beginPath()
  pen.arc(x, y, 60, 0, Math.PI * 2)
  pen.fill()
}
