// A made-up window: what a hive scale has weighed, and a pointer that moves now and then. In units of a 1280 × 800 picture.
import { seededRandom } from '../../core/random/seeded.ts'
import type { Pen } from '../drawing/canvas.ts'

export const SCREEN_WIDTH_PX = 1280
export const SCREEN_HEIGHT_PX = 800

/** The pointer goes to a place in a second and a half, and rests there as long. */
const MOVE_MS = 1500
const ROUND_MS = 3000
const STOPS = [
  [420, 300],
  [760, 250],
  [1010, 520],
  [600, 640],
  [240, 480],
] as const

const INK = '#22302b'
const SOFT = '#66736d'
const LINE = '#dfe5e1'

/** Weights of three weeks in kg, one for each quarter of a day: nights lose a little, good days gain. */
const weights = (() => {
  const random = seededRandom(23)
  let kg = 31.5
  return Array.from({ length: 84 }, (_, i) => {
    kg += i % 4 === 2 ? 0.55 + random() * 0.75 : -0.16 + random() * 0.1
    return kg
  })
})()

/** Where the pointer is at a time, and whether it moves. */
export function pointerAt(timeMs: number): { readonly x: number; readonly y: number; readonly isMoving: boolean } {
  const round = Math.floor(timeMs / ROUND_MS)
  const [fromX, fromY] = STOPS[((round % STOPS.length) + STOPS.length) % STOPS.length]!
  const [toX, toY] = STOPS[(((round + 1) % STOPS.length) + STOPS.length) % STOPS.length]!
  const share = Math.min(1, (timeMs - round * ROUND_MS) / MOVE_MS)
  const eased = share * share * (3 - 2 * share)
  return { x: fromX + (toX - fromX) * eased, y: fromY + (toY - fromY) * eased, isMoving: share < 1 }
}

/** Draws all but the pointer. */
export function drawDashboard(pen: Pen): void {
  pen.fillStyle = '#f4f7f5'
  pen.fillRect(0, 0, SCREEN_WIDTH_PX, SCREEN_HEIGHT_PX)
  pen.fillStyle = '#ffffff'
  pen.fillRect(0, 0, SCREEN_WIDTH_PX, 72)
  pen.fillStyle = LINE
  pen.fillRect(0, 71, SCREEN_WIDTH_PX, 1)
  write(pen, 'Hive scale', 40, 46, 26, INK, 700)
  write(pen, 'Hive 3, lower orchard', 184, 46, 18, SOFT)
  write(pen, 'Last reading 18:45', 1090, 46, 16, SOFT)
  const cards = [
    ['Weight', '41.6 kg', '+0.8 kg today'],
    ['Brood nest', '34.8 °C', 'steady for 6 days'],
    ['Humidity', '61 %', 'a little high'],
    ['Flights', '212 a minute', 'busy since noon'],
  ] as const
  cards.forEach(([label, value, note], i) => {
    const x = 40 + i * 304
    panel(pen, x, 100, 288, 124)
    write(pen, label, x + 22, 134, 16, SOFT)
    write(pen, value, x + 22, 174, 30, INK, 700)
    write(pen, note, x + 22, 204, 15, SOFT)
  })
  drawCurve(pen, 40, 248, 896, 512)
  drawLog(pen, 952, 248, 288, 512)
}

/** No pixel of the pointer is farther from its tip than this, across or down. */
export const POINTER_REACH_PX = 28

/** Draws the pointer, its tip at (x, y). */
export function drawPointer(pen: Pen, x: number, y: number): void {
  pen.beginPath()
  for (const [dx, dy] of [
    [0, 0],
    [0, 22],
    [5, 17.5],
    [9, 26],
    [12.5, 24.4],
    [8.8, 16.2],
    [15.5, 15.5],
  ] as const)
    pen.lineTo(x + dx, y + dy)
  pen.closePath()
  pen.fillStyle = '#101513'
  pen.fill()
  pen.lineWidth = 1.6
  pen.strokeStyle = '#ffffff'
  pen.stroke()
}

function drawCurve(pen: Pen, x: number, y: number, width: number, height: number): void {
  panel(pen, x, y, width, height)
  write(pen, 'Weight, three weeks', x + 22, y + 36, 18, INK, 700)
  const [left, top, right, bottom] = [x + 64, y + 70, x + width - 28, y + height - 48]
  const heightOf = (kg: number) => bottom - ((kg - 30) / 14) * (bottom - top)
  for (let kg = 30; kg <= 44; kg += 2) {
    pen.fillStyle = LINE
    pen.fillRect(left, Math.round(heightOf(kg)), right - left, 1)
    write(pen, `${kg}`, x + 24, heightOf(kg) + 5, 14, SOFT)
  }
  const place = (i: number) => left + (i / (weights.length - 1)) * (right - left)
  pen.beginPath()
  weights.forEach((kg, i) => pen.lineTo(place(i), heightOf(kg)))
  pen.lineWidth = 3
  pen.strokeStyle = '#2f7d5f'
  pen.stroke()
  pen.lineTo(right, bottom)
  pen.lineTo(left, bottom)
  pen.closePath()
  pen.fillStyle = 'rgba(47,125,95,0.12)'
  pen.fill()
  for (let week = 0; week <= 3; week += 1) write(pen, week === 3 ? 'today' : `${3 - week} w`, place(week * 27.6) - 12, bottom + 26, 14, SOFT)
}

function drawLog(pen: Pen, x: number, y: number, width: number, height: number): void {
  panel(pen, x, y, width, height)
  write(pen, 'Log', x + 22, y + 36, 18, INK, 700)
  const lines = [
    ['18:45', 'Reading taken'],
    ['17:10', 'Second super added'],
    ['16:52', 'Lid opened'],
    ['12:30', 'Nectar flow begins'],
    ['09:05', 'First flights'],
    ['06:20', 'Night loss 0.3 kg'],
  ] as const
  lines.forEach(([time, words], i) => {
    const row = y + 74 + i * 46
    pen.fillStyle = LINE
    pen.fillRect(x + 22, row + 16, width - 44, 1)
    write(pen, time, x + 22, row, 15, SOFT)
    write(pen, words, x + 84, row, 15, INK)
  })
}

function panel(pen: Pen, x: number, y: number, width: number, height: number): void {
  pen.fillStyle = '#ffffff'
  pen.fillRect(x, y, width, height)
  pen.lineWidth = 1
  pen.strokeStyle = LINE
  pen.strokeRect(x + 0.5, y + 0.5, width - 1, height - 1)
}

function write(pen: Pen, words: string, x: number, y: number, sizePx: number, colour: string, weight = 400): void {
  pen.font = `${weight} ${sizePx}px "Screen Sans", sans-serif`
  pen.fillStyle = colour
  pen.fillText(words, x, y)
}
