// The presenter of the demo, drawn in the units of a 1280 × 720 picture. Three parts that move on
// their own are drawn once; a frame only places them.
import { seededRandom } from '../../core/random/seeded.ts'
import type { MakeSheet, Pen, Sheet } from '../drawing/canvas.ts'
import { drawHand } from './presenter-hand.ts'
import { HAIR, SKIN, softShade } from './presenter-palette.ts'
import { drawTorso } from './presenter-torso.ts'
import { addSpill, type SpillLight } from './spill.ts'

/** A drawn part and the point of the 1280 × 720 picture where its top left lies. */
export interface Part {
  readonly sheet: Sheet
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

export interface PresenterParts {
  readonly torso: Part
  readonly head: Part
  readonly hand: Part
}

/** Draws the three parts at `scale` pixels per unit, lit by a cloth or not. */
export function drawPresenter(makeSheet: MakeSheet, scale: number, seed: number, spill: SpillLight | null): PresenterParts {
  return {
    torso: drawPart(makeSheet, scale, spill, { x: 260, y: 400, width: 760, height: 360 }, drawTorso),
    head: drawPart(makeSheet, scale, spill, { x: 420, y: 50, width: 440, height: 470 }, (pen) => drawHead(pen, seed)),
    hand: drawPart(makeSheet, scale, spill, { x: 860, y: 330, width: 260, height: 440 }, drawHand),
  }
}

function drawPart(makeSheet: MakeSheet, scale: number, spill: SpillLight | null, box: Omit<Part, 'sheet'>, draw: (pen: Pen) => void): Part {
  const sheet = makeSheet(Math.ceil(box.width * scale), Math.ceil(box.height * scale))
  sheet.pen.scale(scale, scale)
  sheet.pen.translate(-box.x, -box.y)
  sheet.pen.lineCap = 'round'
  sheet.pen.lineJoin = 'round'
  draw(sheet.pen)
  if (spill !== null) addSpill(sheet, scale, spill)
  return { sheet, ...box }
}

function drawHead(pen: Pen, seed: number): void {
  const random = seededRandom(seed)
  drawHairMass(pen, random)
  drawEar(pen, 523, 318, 1)
  drawEar(pen, 757, 318, -1)
  drawFace(pen)
  drawFringe(pen, random)
  drawGlasses(pen)
}

function drawHairMass(pen: Pen, random: () => number): void {
  const hair = pen.createRadialGradient(590, 170, 30, 640, 260, 260)
  hair.addColorStop(0, HAIR.light)
  hair.addColorStop(0.5, HAIR.base)
  hair.addColorStop(1, HAIR.dark)
  pen.fillStyle = hair
  pen.beginPath()
  pen.moveTo(512, 446)
  pen.bezierCurveTo(482, 412, 478, 330, 490, 250)
  pen.bezierCurveTo(500, 160, 560, 104, 642, 104)
  pen.bezierCurveTo(724, 104, 786, 160, 794, 250)
  pen.bezierCurveTo(804, 330, 800, 412, 770, 446)
  pen.bezierCurveTo(746, 462, 716, 446, 704, 410)
  pen.bezierCurveTo(680, 380, 602, 380, 578, 410)
  pen.bezierCurveTo(566, 446, 536, 462, 512, 446)
  pen.closePath()
  pen.fill()
  // Loose curls round the outline: what a key finds hardest.
  for (let i = 0; i < 210; i += 1) {
    const angle = Math.PI * (0.86 + 1.28 * random())
    const spread = 0.94 + 0.08 * random()
    const x = 641 + Math.cos(angle) * 156 * spread
    const y = 282 + Math.sin(angle) * 178 * spread
    curl(pen, x, y, angle + (random() - 0.5) * 1.6, 12 + random() * 26, 0.8 + random() * 1.5, random, i % 3 === 0 ? HAIR.light : HAIR.base)
  }
  for (let side = 0; side < 2; side += 1) {
    for (let i = 0; i < 44; i += 1) {
      const y = 250 + random() * 190
      const x = side === 0 ? 492 + random() * 14 : 790 - random() * 14
      curl(pen, x, y, (side === 0 ? Math.PI : 0) + (random() - 0.5) * 1.4, 8 + random() * 20, 0.8 + random() * 1.6, random, HAIR.base)
    }
  }
}

/** One curl from (x, y) outward. */
function curl(pen: Pen, x: number, y: number, angle: number, length: number, width: number, random: () => number, colour: string): void {
  const bend = (random() - 0.5) * 2.2
  pen.strokeStyle = colour
  pen.lineWidth = width
  pen.beginPath()
  pen.moveTo(x - Math.cos(angle) * 8, y - Math.sin(angle) * 8)
  pen.bezierCurveTo(
    x + Math.cos(angle + bend) * length * 0.4,
    y + Math.sin(angle + bend) * length * 0.4,
    x + Math.cos(angle - bend) * length * 0.8,
    y + Math.sin(angle - bend) * length * 0.8,
    x + Math.cos(angle + bend * 0.6) * length,
    y + Math.sin(angle + bend * 0.6) * length,
  )
  pen.stroke()
}

function drawEar(pen: Pen, x: number, y: number, side: number): void {
  pen.fillStyle = side > 0 ? SKIN.base : SKIN.shade
  pen.beginPath()
  pen.ellipse(x, y, 17, 31, side * 0.14, 0, Math.PI * 2)
  pen.fill()
  pen.strokeStyle = 'rgba(110,56,30,0.5)'
  pen.lineWidth = 3
  pen.beginPath()
  pen.ellipse(x + side * 2, y, 8, 19, side * 0.14, Math.PI * 0.6, Math.PI * 1.8)
  pen.stroke()
}

function drawFace(pen: Pen): void {
  const face = pen.createRadialGradient(590, 270, 20, 640, 320, 190)
  face.addColorStop(0, SKIN.light)
  face.addColorStop(0.55, SKIN.base)
  face.addColorStop(1, SKIN.shade)
  pen.fillStyle = face
  pen.beginPath()
  pen.moveTo(526, 270)
  pen.bezierCurveTo(526, 176, 580, 152, 641, 152)
  pen.bezierCurveTo(702, 152, 756, 176, 756, 270)
  pen.bezierCurveTo(757, 360, 724, 418, 690, 442)
  pen.bezierCurveTo(660, 462, 622, 462, 592, 442)
  pen.bezierCurveTo(558, 418, 525, 360, 526, 270)
  pen.closePath()
  pen.fill()
  pen.save()
  pen.clip()
  softShade(pen, 760, 340, 110, 'rgba(96,46,22,0.55)')
  softShade(pen, 640, 470, 70, 'rgba(96,46,22,0.35)')
  softShade(pen, 572, 362, 44, 'rgba(214,98,78,0.30)')
  softShade(pen, 706, 362, 44, 'rgba(196,84,64,0.28)')
  softShade(pen, 600, 216, 66, 'rgba(255,226,196,0.34)')
  pen.restore()
  // Nose.
  pen.strokeStyle = 'rgba(126,66,38,0.65)'
  pen.lineWidth = 4
  pen.beginPath()
  pen.moveTo(652, 300)
  pen.bezierCurveTo(660, 330, 670, 346, 664, 358)
  pen.bezierCurveTo(658, 366, 644, 367, 632, 364)
  pen.stroke()
  softShade(pen, 640, 340, 24, 'rgba(255,222,192,0.30)')
  softShade(pen, 664, 366, 20, 'rgba(110,52,28,0.30)')
  // Brows.
  pen.strokeStyle = HAIR.base
  pen.lineWidth = 8
  pen.beginPath()
  pen.moveTo(562, 262)
  pen.quadraticCurveTo(590, 248, 618, 258)
  pen.moveTo(664, 258)
  pen.quadraticCurveTo(694, 248, 720, 263)
  pen.stroke()
}

function drawFringe(pen: Pen, random: () => number): void {
  pen.fillStyle = HAIR.base
  pen.beginPath()
  pen.moveTo(516, 300)
  pen.bezierCurveTo(512, 190, 560, 126, 642, 122)
  pen.bezierCurveTo(724, 126, 770, 190, 766, 300)
  pen.bezierCurveTo(756, 250, 738, 222, 706, 206)
  pen.bezierCurveTo(668, 188, 622, 190, 590, 206)
  pen.bezierCurveTo(552, 224, 530, 256, 516, 300)
  pen.closePath()
  pen.fill()
  // Coils: short strokes that follow the fall of the hair, light from the left.
  for (let i = 0; i < 420; i += 1) {
    const angle = Math.PI * (1.13 + 0.74 * random())
    const reach = 98 + random() * 68
    coil(pen, 641 + Math.cos(angle) * reach, 280 + Math.sin(angle) * reach * 1.05, angle + Math.PI / 2, random)
  }
  for (let side = 0; side < 2; side += 1) {
    for (let i = 0; i < 130; i += 1) {
      const x = side === 0 ? 488 + random() * 24 : 770 + random() * 24
      coil(pen, x, 262 + random() * 180, Math.PI / 2, random)
    }
  }
}

/** A short bent stroke of hair. */
function coil(pen: Pen, x: number, y: number, along: number, random: () => number): void {
  const isLit = random() < 0.62 - (x - 500) / 640
  const length = 7 + random() * 11
  const bend = (random() - 0.5) * 9
  const angle = along + (random() - 0.5) * 1.1
  const dx = Math.cos(angle) * length
  const dy = Math.sin(angle) * length
  pen.strokeStyle = isLit ? `rgba(126,92,74,${0.16 + random() * 0.3})` : `rgba(16,10,8,${0.2 + random() * 0.4})`
  pen.lineWidth = 1.4 + random() * 2.2
  pen.beginPath()
  pen.moveTo(x - dx / 2, y - dy / 2)
  pen.quadraticCurveTo(x - dy * 0.1 + bend, y + dx * 0.1 + bend, x + dx / 2, y + dy / 2)
  pen.stroke()
}

function drawGlasses(pen: Pen): void {
  pen.fillStyle = 'rgba(235,244,250,0.10)'
  pen.strokeStyle = '#26211f'
  pen.lineWidth = 6
  for (const x of [552, 650]) {
    pen.beginPath()
    pen.roundRect(x, 278, 82, 60, 25)
    pen.fill()
    pen.stroke()
  }
  pen.lineWidth = 5
  pen.beginPath()
  pen.moveTo(634, 300)
  pen.quadraticCurveTo(642, 293, 650, 300)
  pen.moveTo(552, 298)
  pen.lineTo(530, 304)
  pen.moveTo(732, 298)
  pen.lineTo(752, 304)
  pen.stroke()
  pen.strokeStyle = 'rgba(255,255,255,0.30)'
  pen.lineWidth = 3
  pen.beginPath()
  pen.moveTo(566, 292)
  pen.lineTo(582, 287)
  pen.moveTo(664, 292)
  pen.lineTo(680, 287)
  pen.stroke()
}
