// A room that was not made ready for a meeting, in units of a 1280 × 720 picture.
import { seededRandom } from '../../core/random/seeded.ts'
import type { Pen } from '../drawing/canvas.ts'

/** Draws wall, window, shelves, a bed and what lies about. */
export function drawUntidyRoom(pen: Pen): void {
  const wall = pen.createLinearGradient(0, 0, 1280, 720)
  wall.addColorStop(0, '#c9c2b4')
  wall.addColorStop(1, '#9d9486')
  pen.fillStyle = wall
  pen.fillRect(0, 0, 1280, 720)
  pen.fillStyle = '#7c6a57'
  pen.fillRect(0, 600, 1280, 120)
  pen.fillStyle = '#b5ab9b'
  pen.fillRect(0, 586, 1280, 16)
  drawWindow(pen, 60, 70)
  drawShelves(pen, 890, 60)
  drawCalendar(pen, 470, 90)
  drawBed(pen)
  drawBoxes(pen, 1010, 470)
  drawClothesStand(pen, 830, 180)
  drawLamp(pen, 360, 240)
}

function drawWindow(pen: Pen, x: number, y: number): void {
  pen.fillStyle = '#efeae0'
  pen.fillRect(x - 12, y - 12, 264, 324)
  const sky = pen.createLinearGradient(0, y, 0, y + 300)
  sky.addColorStop(0, '#dfeaf0')
  sky.addColorStop(0.7, '#c3d3d4')
  sky.addColorStop(1, '#8fa38a')
  pen.fillStyle = sky
  pen.fillRect(x, y, 240, 300)
  pen.fillStyle = '#6d8467'
  pen.beginPath()
  pen.ellipse(x + 60, y + 300, 90, 70, 0, Math.PI, 0)
  pen.ellipse(x + 190, y + 300, 70, 100, 0, Math.PI, 0)
  pen.fill()
  pen.fillStyle = '#efeae0'
  pen.fillRect(x + 115, y, 10, 300)
  pen.fillRect(x, y + 140, 240, 10)
  pen.fillStyle = 'rgba(120,60,50,0.85)'
  pen.beginPath()
  pen.moveTo(x - 40, y - 30)
  pen.lineTo(x + 34, y - 30)
  pen.quadraticCurveTo(x + 20, y + 190, x - 6, y + 350)
  pen.lineTo(x - 48, y + 350)
  pen.closePath()
  pen.fill()
}

function drawShelves(pen: Pen, x: number, y: number): void {
  const random = seededRandom(91)
  const colours = ['#8d3f35', '#31525c', '#c08a3e', '#4e5b3a', '#d8cdb8', '#5a4560', '#26323a', '#b56b4a']
  pen.fillStyle = '#6a4a30'
  pen.fillRect(x, y, 330, 360)
  pen.fillStyle = '#4a331f'
  pen.fillRect(x + 10, y + 10, 310, 340)
  for (let shelf = 0; shelf < 4; shelf += 1) {
    const floor = y + 92 + shelf * 86
    pen.fillStyle = '#7c583a'
    pen.fillRect(x + 10, floor, 310, 8)
    for (let at = x + 16; at < x + 300;) {
      const width = 10 + random() * 22
      const height = 46 + random() * 28
      const isLying = random() < 0.12
      pen.fillStyle = colours[Math.floor(random() * colours.length)]!
      if (isLying) pen.fillRect(at, floor - 14, 46, 14)
      else pen.fillRect(at, floor - height, width, height)
      pen.fillStyle = 'rgba(255,255,255,0.18)'
      if (!isLying) pen.fillRect(at + 2, floor - height + 8, width - 4, 4)
      at += isLying ? 52 : width + (random() < 0.15 ? 18 : 2)
    }
  }
}

function drawCalendar(pen: Pen, x: number, y: number): void {
  pen.fillStyle = '#f4f0e6'
  pen.fillRect(x - 60, y - 40, 104, 132)
  pen.fillStyle = '#b0432f'
  pen.fillRect(x - 60, y - 40, 104, 26)
  pen.fillStyle = '#6b665c'
  for (let row = 0; row < 5; row += 1) for (let column = 0; column < 7; column += 1) pen.fillRect(x - 54 + column * 13.6, y - 4 + row * 18, 8, 8)
}

function drawBed(pen: Pen): void {
  pen.fillStyle = '#52708a'
  pen.beginPath()
  pen.moveTo(0, 520)
  pen.quadraticCurveTo(120, 480, 250, 530)
  pen.quadraticCurveTo(330, 560, 420, 600)
  pen.lineTo(420, 720)
  pen.lineTo(0, 720)
  pen.closePath()
  pen.fill()
  pen.strokeStyle = 'rgba(20,34,48,0.35)'
  pen.lineWidth = 5
  for (let i = 0; i < 6; i += 1) {
    pen.beginPath()
    pen.moveTo(30 + i * 62, 530 + i * 12)
    pen.quadraticCurveTo(60 + i * 60, 600, 20 + i * 70, 700)
    pen.stroke()
  }
  pen.fillStyle = '#e8e3d8'
  pen.beginPath()
  pen.ellipse(70, 500, 96, 36, -0.1, 0, Math.PI * 2)
  pen.fill()
}

function drawBoxes(pen: Pen, x: number, y: number): void {
  for (const [dx, dy, width, height, colour] of [
    [0, 60, 170, 190, '#a97c4d'],
    [120, 10, 140, 240, '#b98a58'],
    [20, -20, 120, 84, '#96693e'],
  ] as const) {
    pen.fillStyle = colour
    pen.fillRect(x + dx, y + dy, width, height)
    pen.fillStyle = 'rgba(255,240,210,0.5)'
    pen.fillRect(x + dx + width * 0.42, y + dy, width * 0.14, height)
    pen.strokeStyle = 'rgba(60,36,14,0.5)'
    pen.lineWidth = 2
    pen.strokeRect(x + dx, y + dy, width, height)
  }
}

function drawClothesStand(pen: Pen, x: number, y: number): void {
  pen.strokeStyle = '#33281f'
  pen.lineWidth = 8
  pen.beginPath()
  pen.moveTo(x, y)
  pen.lineTo(x, 650)
  pen.stroke()
  for (const [dx, dy, colour] of [
    [-34, 40, '#2f4a3b'],
    [20, 30, '#7d2f3a'],
    [-6, 96, '#c9b98e'],
  ] as const) {
    pen.fillStyle = colour
    pen.beginPath()
    pen.moveTo(x + dx, y + dy)
    pen.quadraticCurveTo(x + dx + 44, y + dy + 60, x + dx + 26, y + dy + 230)
    pen.lineTo(x + dx - 30, y + dy + 220)
    pen.quadraticCurveTo(x + dx - 42, y + dy + 60, x + dx, y + dy)
    pen.fill()
  }
}

function drawLamp(pen: Pen, x: number, y: number): void {
  pen.strokeStyle = '#3a3a38'
  pen.lineWidth = 6
  pen.beginPath()
  pen.moveTo(x, 620)
  pen.lineTo(x, y + 70)
  pen.stroke()
  const glow = pen.createRadialGradient(x, y + 40, 10, x, y + 40, 150)
  glow.addColorStop(0, 'rgba(255,224,160,0.55)')
  glow.addColorStop(1, 'rgba(255,224,160,0)')
  pen.fillStyle = glow
  pen.fillRect(x - 150, y - 110, 300, 300)
  pen.fillStyle = '#f3dca8'
  pen.beginPath()
  pen.moveTo(x - 30, y)
  pen.lineTo(x + 30, y)
  pen.lineTo(x + 52, y + 76)
  pen.lineTo(x - 52, y + 76)
  pen.closePath()
  pen.fill()
}
