// The slides of the demo's class: twelve pages, drawn here, and what the presenter means to say to each.
import type { Pen } from '../../standins/drawing/canvas.ts'

export const SLIDE_WIDTH_PX = 1920
export const SLIDE_HEIGHT_PX = 1080

/** The typeface that the pages are lettered in; whoever draws them sees that it is there. */
export const SLIDE_FAMILY = 'Class Slides'

const PAPER = '#f6efdf'
const INK = '#1d2a26'
const SOFT = '#4b5d55'
const GREEN = '#1e5b47'
const HONEY = '#d99a2b'
const TAN = '#c89a5a'

interface Slide {
  readonly title: string
  readonly lines: readonly string[]
  readonly notes: string
  readonly draw: (pen: Pen) => void
}

const slide = (title: string, lines: readonly string[], notes: string, draw: (pen: Pen) => void): Slide => ({ title, lines, notes, draw })

/** What a cell of a comb holds. */
type Cell = 'capped' | 'egg' | 'larva' | 'pollen' | 'honey' | 'empty' | 'sunken'

export const classSlides: readonly Slide[] = [
  slide('Reading a brood frame', ['Evening class, part 2 of 4'], 'Welcome everyone. Ask who opened a hive this week.', (pen) => comb(pen, 1080, 170, 62, 7, 9, (row, column) => (row + column) % 5 === 0 ? 'honey' : 'capped')), // prettier-ignore
  slide('Before you open the hive', ['Warm day, no wind', 'Smoker lit, sleeves shut', 'A place to put the first frame'], 'Fifteen degrees or more.\nThe first frame out is the one nearest the wall: it is rarely brood.', (pen) => thermometer(pen)), // prettier-ignore
  slide('Hold it over the hive', ['The queen may be on it', 'Sun over your shoulder', 'Turn it on its end, never flat'], 'If she drops, she drops back in.\nShow the turn with your hands.', (pen) => frame(pen, 1060, 260, 700, 460)), // prettier-ignore
  slide('The rainbow', ['Honey above', 'Pollen below it', 'Brood in the middle'], 'This is the pattern to remember. Everything later is a difference from it.', (pen) => comb(pen, 1010, 180, 58, 8, 10, rainbow)), // prettier-ignore
  slide('Three ages', ['Egg: day 1 to 3', 'Larva: day 4 to 9', 'Capped: day 10 to 21'], 'Worker bees only; drones take three days longer.', (pen) => comb(pen, 1120, 280, 110, 3, 4, (row) => (['egg', 'larva', 'capped'] as const)[row]!)), // prettier-ignore
  slide('Eggs tell you most', ['Standing: laid today', 'Leaning: yesterday', 'Lying: the day before'], 'If you see eggs, she was here within three days.\nYou need not find her.', (pen) => eggs(pen)), // prettier-ignore
  slide('Healthy capped brood', ['Even, like a biscuit', 'Slightly domed', 'Few empty cells'], 'One empty cell in ten is nothing to worry about.', (pen) => comb(pen, 1040, 190, 62, 7, 9, (row, column) => (row * 7 + column * 3) % 11 === 0 ? 'empty' : 'capped')), // prettier-ignore
  slide('Signs to write down', ['Sunken, dark caps', 'Holes in the caps', 'A sour smell'], 'Do not guess. Take a picture, close up, and ring the inspector.', (pen) => comb(pen, 1040, 190, 62, 7, 9, (row, column) => (row * 5 + column * 7) % 9 === 0 ? 'sunken' : (row + column * 2) % 4 === 0 ? 'empty' : 'capped')), // prettier-ignore
  slide(
    'How much is there?',
    ['A full side: about 3,500 cells', 'Count sides, not frames', 'Note the date'],
    'Half a side is half a side. Nobody counts cells.',
    (pen) => bars(pen),
  ),
  slide('Drone or worker?', ['Worker caps are flat', 'Drone caps stand out', 'At the edges, in spring: fine'], 'Drone brood in worker cells in the middle means trouble.', (pen) => comb(pen, 1040, 220, 74, 6, 7, (_row, column) => (column > 4 ? 'honey' : 'capped'))), // prettier-ignore
  slide(
    'What to write in your book',
    ['Eggs seen, yes or no', 'Sides of brood', 'Anything on the list of signs'],
    'Three lines are enough. The best record is the one you keep.',
    (pen) => book(pen),
  ),
  slide('Questions?', ['Next class: swarms'], 'Leave the rainbow on the screen while people ask.', (pen) => comb(pen, 1080, 170, 62, 7, 9, rainbow)), // prettier-ignore
]

/** Draws a page, from 0, into 1920 × 1080. */
export function drawClassSlide(pen: Pen, index: number): void {
  const { title, lines, draw } = classSlides[index]!
  pen.fillStyle = PAPER
  pen.fillRect(0, 0, SLIDE_WIDTH_PX, SLIDE_HEIGHT_PX)
  pen.fillStyle = GREEN
  pen.fillRect(0, 0, 28, SLIDE_HEIGHT_PX)
  draw(pen)
  const isTitle = index === 0 || index === classSlides.length - 1
  pen.textBaseline = 'alphabetic'
  pen.fillStyle = INK
  pen.font = `700 ${isTitle ? 108 : 84}px '${SLIDE_FAMILY}'`
  wrapped(title, isTitle ? 15 : 18).forEach((line, at) => pen.fillText(line, 120, (isTitle ? 420 : 220) + at * (isTitle ? 116 : 92)))
  pen.font = `400 50px '${SLIDE_FAMILY}'`
  const top = isTitle ? 700 : 470
  lines.forEach((line, at) => {
    pen.fillStyle = HONEY
    if (!isTitle) pen.fillRect(120, top + at * 104 - 32, 22, 22)
    pen.fillStyle = SOFT
    pen.fillText(line, isTitle ? 120 : 170, top + at * 104)
  })
  pen.fillStyle = SOFT
  pen.font = `400 28px '${SLIDE_FAMILY}'`
  pen.fillText(String(index + 1), 120, 1020)
}

/** Words in lines of so many letters at most. */
function wrapped(text: string, most: number): readonly string[] {
  return text.split(' ').reduce<string[]>((lines, word) => {
    const last = lines.at(-1)
    if (last !== undefined && last.length + word.length < most) return [...lines.slice(0, -1), `${last} ${word}`]
    return [...lines, word]
  }, [])
}

function rainbow(row: number, column: number): Cell {
  const distance = Math.hypot((column - 4.5) * 0.9, row - 7)
  return distance > 6.4 ? 'honey' : distance > 5.2 ? 'pollen' : distance > 3.6 ? 'capped' : distance > 2 ? 'larva' : 'egg'
}

/** Rows of cells, each other row half a cell to the right. */
function comb(pen: Pen, x: number, y: number, radius: number, rows: number, columns: number, cellAt: (row: number, column: number) => Cell): void {
  for (let row = 0; row < rows; row += 1) {
    for (let column = 0; column < columns; column += 1) {
      const width = radius * Math.sqrt(3)
      cell(pen, x + column * width + (row % 2) * (width / 2), y + row * radius * 1.5, radius * 0.94, cellAt(row, column))
    }
  }
}

const FILLS: Readonly<Record<Cell, string>> = {
  capped: TAN,
  egg: '#6b4a1e',
  larva: '#6b4a1e',
  pollen: '#d8702c',
  honey: '#e9b949',
  empty: '#7a5a2c',
  sunken: '#4d3218',
}

function cell(pen: Pen, x: number, y: number, radius: number, kind: Cell): void {
  pen.beginPath()
  for (let corner = 0; corner < 6; corner += 1) {
    const angle = (Math.PI / 3) * corner + Math.PI / 6
    pen.lineTo(x + Math.cos(angle) * radius, y + Math.sin(angle) * radius)
  }
  pen.closePath()
  pen.fillStyle = FILLS[kind]
  pen.fill()
  pen.lineWidth = radius * 0.08
  pen.strokeStyle = '#e8d3a2'
  pen.stroke()
  if (kind === 'capped') disc(pen, x - radius * 0.15, y - radius * 0.2, radius * 0.45, 'rgba(255,240,205,0.35)')
  if (kind === 'larva') disc(pen, x, y, radius * 0.42, '#f4efe2')
  if (kind === 'egg') rod(pen, x, y, radius * 0.5, 0.15)
  if (kind === 'sunken') disc(pen, x + radius * 0.1, y + radius * 0.05, radius * 0.2, '#20150a')
}

function disc(pen: Pen, x: number, y: number, radius: number, colour: string): void {
  pen.fillStyle = colour
  pen.beginPath()
  pen.ellipse(x, y, radius, radius, 0, 0, Math.PI * 2)
  pen.fill()
}

/** An egg, so long, leaning by an angle. */
function rod(pen: Pen, x: number, y: number, length: number, angle: number): void {
  pen.fillStyle = '#fbf7ec'
  pen.beginPath()
  pen.ellipse(x, y, length * 0.22, length * 0.6, angle, 0, Math.PI * 2)
  pen.fill()
}

function eggs(pen: Pen): void {
  for (const [index, angle] of [0, 0.75, 1.5].entries()) {
    cell(pen, 1180 + index * 240, 540, 120, 'empty')
    rod(pen, 1180 + index * 240, 540, 110, angle)
  }
}

function thermometer(pen: Pen): void {
  pen.fillStyle = '#ffffff'
  pen.fillRect(1360, 200, 90, 560)
  disc(pen, 1405, 800, 100, '#c23b2e')
  pen.fillStyle = '#c23b2e'
  pen.fillRect(1382, 420, 46, 340)
  pen.fillStyle = SOFT
  for (let mark = 0; mark < 9; mark += 1) pen.fillRect(1466, 240 + mark * 60, mark % 2 === 0 ? 60 : 34, 6)
}

function frame(pen: Pen, x: number, y: number, width: number, height: number): void {
  pen.fillStyle = '#a9713a'
  pen.fillRect(x - 70, y - 60, width + 140, 60)
  pen.fillRect(x, y, width, height)
  pen.fillStyle = '#e9b949'
  pen.fillRect(x + 44, y + 40, width - 88, height - 84)
  comb(pen, x + 92, y + 92, 36, 6, 9, (row, column) => (Math.hypot(row - 3, column - 4) < 3.2 ? 'capped' : 'honey'))
}

function bars(pen: Pen): void {
  for (const [index, share] of [0.35, 0.6, 0.9, 0.8, 0.5].entries()) {
    pen.fillStyle = index === 2 ? HONEY : TAN
    pen.fillRect(1080 + index * 140, 800 - share * 520, 96, share * 520)
  }
  pen.fillStyle = INK
  pen.fillRect(1050, 800, 720, 6)
}

function book(pen: Pen): void {
  pen.fillStyle = '#ffffff'
  pen.fillRect(1120, 260, 560, 600)
  pen.fillStyle = GREEN
  pen.fillRect(1120, 260, 44, 600)
  pen.fillStyle = '#d6cdb8'
  for (let line = 0; line < 8; line += 1) pen.fillRect(1210, 340 + line * 62, line === 7 ? 220 : 410, 8)
}
