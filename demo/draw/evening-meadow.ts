// The picture of the closing card: hives in a meadow after sunset.
import { seededRandom } from '../../core/random/seeded.ts'
import type { Pen } from '../../standins/drawing/canvas.ts'

/** Draws the meadow into 1920 × 1080. */
export function drawEveningMeadow(pen: Pen): void {
  const sky = pen.createLinearGradient(0, 0, 0, 700)
  sky.addColorStop(0, '#16323a')
  sky.addColorStop(0.5, '#3d5f5c')
  sky.addColorStop(0.82, '#c88f4c')
  sky.addColorStop(1, '#e8b765')
  pen.fillStyle = sky
  pen.fillRect(0, 0, 1920, 720)
  const sun = pen.createRadialGradient(1340, 660, 20, 1340, 660, 420)
  sun.addColorStop(0, 'rgba(255,232,170,0.9)')
  sun.addColorStop(1, 'rgba(255,232,170,0)')
  pen.fillStyle = sun
  pen.fillRect(900, 240, 900, 480)
  hill(pen, 640, 70, '#2f5148', 0.0022, 0.4)
  hill(pen, 720, 50, '#21423a', 0.0031, 2.1)
  hill(pen, 800, 34, '#17342d', 0.0024, 4.0)
  for (const [x, y, size] of [
    [330, 850, 1],
    [560, 880, 1.12],
    [820, 856, 0.96],
  ] as const) {
    drawHive(pen, x, y, size)
  }
  const random = seededRandom(23)
  pen.lineCap = 'round'
  for (let i = 0; i < 900; i += 1) {
    const x = random() * 1920
    const y = 900 + random() * 190
    const height = 30 + random() * 80
    pen.strokeStyle = random() < 0.5 ? 'rgba(12,30,24,0.7)' : 'rgba(44,82,58,0.55)'
    pen.lineWidth = 2 + random() * 3
    pen.beginPath()
    pen.moveTo(x, y)
    pen.quadraticCurveTo(x + 6, y - height * 0.6, x + (random() - 0.3) * 40, y - height)
    pen.stroke()
  }
}

function hill(pen: Pen, base: number, height: number, colour: string, frequency: number, phase: number): void {
  pen.fillStyle = colour
  pen.beginPath()
  pen.moveTo(0, 1080)
  for (let x = 0; x <= 1920; x += 20) pen.lineTo(x, base + Math.sin(x * frequency + phase) * height)
  pen.lineTo(1920, 1080)
  pen.closePath()
  pen.fill()
}

function drawHive(pen: Pen, x: number, floorY: number, size: number): void {
  const width = 130 * size
  pen.fillStyle = 'rgba(6,18,14,0.5)'
  pen.beginPath()
  pen.ellipse(x + 10, floorY + 8, width * 0.7, 16 * size, 0, 0, Math.PI * 2)
  pen.fill()
  const boxes = ['#d9c79c', '#c2a368', '#d9c79c']
  boxes.forEach((colour, index) => {
    const y = floorY - (index + 1) * 66 * size
    const side = pen.createLinearGradient(x - width / 2, 0, x + width / 2, 0)
    side.addColorStop(0, '#6f5a38')
    side.addColorStop(0.6, colour)
    side.addColorStop(1, '#f2d79a')
    pen.fillStyle = side
    pen.fillRect(x - width / 2, y, width, 62 * size)
    pen.fillStyle = 'rgba(40,26,10,0.5)'
    pen.beginPath()
    pen.roundRect(x - 18 * size, y + 22 * size, 36 * size, 9 * size, 4)
    pen.fill()
  })
  pen.fillStyle = '#39463f'
  pen.fillRect(x - width * 0.58, floorY - 216 * size, width * 1.16, 20 * size)
  pen.fillStyle = '#141a12'
  pen.fillRect(x - 34 * size, floorY - 12 * size, 68 * size, 9 * size)
}
