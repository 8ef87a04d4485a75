// The picture behind the presenter: the society's classroom, softly out of focus on purpose.
import { seededRandom } from '../../core/random/seeded.ts'
import type { Pen } from '../../standins/drawing/canvas.ts'

/** Draws the wall into 1920 × 1080. */
export function drawApiaryWall(pen: Pen): void {
  const wall = pen.createLinearGradient(0, 0, 1500, 900)
  wall.addColorStop(0, '#d3ddd4')
  wall.addColorStop(0.6, '#b9c8bd')
  wall.addColorStop(1, '#94a79b')
  pen.fillStyle = wall
  pen.fillRect(0, 0, 1920, 1080)
  // Daylight from a window at the left.
  for (const [x, width] of [
    [60, 250],
    [350, 250],
  ] as const) {
    const light = pen.createLinearGradient(x, 120, x + width + 260, 760)
    light.addColorStop(0, 'rgba(255,250,226,0.42)')
    light.addColorStop(1, 'rgba(255,250,226,0)')
    pen.fillStyle = light
    pen.beginPath()
    pen.moveTo(x, 90)
    pen.lineTo(x + width, 90)
    pen.lineTo(x + width + 240, 800)
    pen.lineTo(x + 240, 800)
    pen.closePath()
    pen.fill()
  }
  // Wainscot.
  const panel = pen.createLinearGradient(0, 770, 0, 1080)
  panel.addColorStop(0, '#7f9488')
  panel.addColorStop(1, '#64796d')
  pen.fillStyle = panel
  pen.fillRect(0, 780, 1920, 300)
  pen.fillStyle = '#a4b5a9'
  pen.fillRect(0, 768, 1920, 14)
  pen.fillStyle = 'rgba(38,56,47,0.28)'
  pen.fillRect(0, 782, 1920, 8)
  pen.strokeStyle = 'rgba(38,56,47,0.16)'
  pen.lineWidth = 3
  for (let x = 90; x < 1920; x += 160) {
    pen.beginPath()
    pen.moveTo(x, 790)
    pen.lineTo(x, 1080)
    pen.stroke()
  }
  drawShelf(pen, 110, 318, 560)
  drawShelf(pen, 110, 560, 430)
  drawJar(pen, 160, 318, 96, 130, '#eadfc8', '#c9b78e')
  drawJar(pen, 280, 318, 84, 108, '#dda53a', '#a9761b')
  drawJar(pen, 388, 318, 92, 142, '#e9dcc0', '#c2b089')
  drawJar(pen, 506, 318, 104, 98, '#cf7c36', '#954f1b')
  drawBooks(pen, 150, 560)
  drawJar(pen, 400, 560, 78, 104, '#e2b04b', '#ab7c1f')
  drawCombFrame(pen, 1330, 150, 450, 400)
  drawPlant(pen, 1640, 780)
}

function drawShelf(pen: Pen, x: number, y: number, width: number): void {
  pen.fillStyle = 'rgba(40,30,18,0.18)'
  pen.fillRect(x + 14, y + 24, width, 22)
  const wood = pen.createLinearGradient(0, y, 0, y + 26)
  wood.addColorStop(0, '#96714a')
  wood.addColorStop(1, '#6f5033')
  pen.fillStyle = wood
  pen.fillRect(x, y, width, 26)
}

function drawJar(pen: Pen, x: number, shelfY: number, width: number, height: number, fill: string, edge: string): void {
  const y = shelfY - height
  pen.fillStyle = 'rgba(40,30,18,0.14)'
  pen.beginPath()
  pen.ellipse(x + width / 2 + 16, shelfY, width / 2, 7, 0, 0, Math.PI * 2)
  pen.fill()
  const glass = pen.createLinearGradient(x, 0, x + width, 0)
  glass.addColorStop(0, fill)
  glass.addColorStop(0.35, fill)
  glass.addColorStop(1, edge)
  pen.fillStyle = glass
  pen.beginPath()
  pen.roundRect(x, y + 18, width, height - 18, 14)
  pen.fill()
  pen.fillStyle = 'rgba(255,255,255,0.35)'
  pen.beginPath()
  pen.roundRect(x + 12, y + 34, 9, height - 56, 5)
  pen.fill()
  pen.fillStyle = '#59503f'
  pen.beginPath()
  pen.roundRect(x + 6, y, width - 12, 24, 6)
  pen.fill()
}

function drawBooks(pen: Pen, x: number, shelfY: number): void {
  const books = [
    ['#1e5b47', 34, 150],
    ['#a87823', 26, 132],
    ['#ded3bb', 40, 160],
    ['#6d4f36', 30, 142],
    ['#8a3b2c', 24, 126],
  ] as const
  let at = x
  for (const [colour, width, height] of books) {
    pen.fillStyle = colour
    pen.fillRect(at, shelfY - height, width, height)
    pen.fillStyle = 'rgba(0,0,0,0.18)'
    pen.fillRect(at + width - 5, shelfY - height, 5, height)
    pen.fillStyle = 'rgba(255,240,200,0.4)'
    pen.fillRect(at + 5, shelfY - height + 20, width - 14, 4)
    at += width + 3
  }
}

function drawCombFrame(pen: Pen, x: number, y: number, width: number, height: number): void {
  pen.fillStyle = 'rgba(40,30,18,0.2)'
  pen.fillRect(x + 18, y + 22, width, height)
  pen.fillStyle = '#efe3c6'
  pen.beginPath()
  pen.roundRect(x, y, width, height, 10)
  pen.fill()
  pen.save()
  pen.beginPath()
  pen.rect(x + 34, y + 34, width - 68, height - 68)
  pen.clip()
  const wax = pen.createRadialGradient(x + width * 0.46, y + height * 0.45, 30, x + width / 2, y + height / 2, width * 0.62)
  wax.addColorStop(0, '#a9742a')
  wax.addColorStop(0.55, '#dda53e')
  wax.addColorStop(1, '#edc56a')
  pen.fillStyle = wax
  pen.fillRect(x, y, width, height)
  const random = seededRandom(11)
  const side = 19
  for (let row = 0; row * side * 1.5 < height; row += 1) {
    for (let column = 0; column * side * 1.732 < width + side * 2; column += 1) {
      const cx = x + 20 + column * side * 1.732 + (row % 2) * side * 0.866
      const cy = y + 24 + row * side * 1.5
      pen.beginPath()
      for (let corner = 0; corner < 6; corner += 1) {
        const angle = (Math.PI / 3) * corner + Math.PI / 6
        pen.lineTo(cx + Math.cos(angle) * (side - 2), cy + Math.sin(angle) * (side - 2))
      }
      pen.closePath()
      const fromCentre = Math.hypot(cx - x - width * 0.47, cy - y - height * 0.47) / width
      const isCapped = fromCentre < 0.24 + random() * 0.1
      pen.fillStyle = isCapped ? `rgba(150,98,38,${0.35 + random() * 0.25})` : `rgba(92,54,10,${0.12 + random() * 0.22})`
      pen.fill()
    }
  }
  pen.restore()
}

function drawPlant(pen: Pen, x: number, floorY: number): void {
  pen.fillStyle = '#b9674a'
  pen.beginPath()
  pen.moveTo(x - 62, floorY - 96)
  pen.lineTo(x + 62, floorY - 96)
  pen.lineTo(x + 44, floorY + 4)
  pen.lineTo(x - 44, floorY + 4)
  pen.closePath()
  pen.fill()
  const random = seededRandom(5)
  for (let i = 0; i < 26; i += 1) {
    const lean = (random() - 0.5) * 2.2
    const length = 120 + random() * 150
    pen.strokeStyle = i % 2 === 0 ? '#3f6b4f' : '#587f5a'
    pen.lineWidth = 5 + random() * 6
    pen.lineCap = 'round'
    pen.beginPath()
    pen.moveTo(x + lean * 22, floorY - 92)
    pen.quadraticCurveTo(x + lean * 40, floorY - 92 - length * 0.7, x + lean * 110, floorY - 92 - length)
    pen.stroke()
  }
}
