// Backgrounds that move and loop, picture by picture. The last picture is followed by the first without a jump: everything has a whole number of turns.
import { parseHex } from '../colour/hex.ts'
import { seededRandom } from '../random/seeded.ts'
import type { MovingBackground } from '../inputs/clip.ts'
import type { StyleColour } from '../style/style-names.ts'

/** The colours of the show that they are drawn in, "#rrggbb" each. */
export type MovingColours = Readonly<Record<Extract<StyleColour, 'ground' | 'panel' | 'accent'>, string>>

/** As large as soft forms need; they are shown larger. */
export const MOVING_SIZE = { widthPx: 640, heightPx: 360 } as const
export const MOVING_PICTURES = 72
export const MOVING_RATE = 12

type Rgb = readonly [number, number, number]
/** Colours as sRGB codes 0..1 times 255. */
interface Inks {
  readonly ground: Rgb
  readonly panel: Rgb
  readonly accent: Rgb
}

const turn = (turns: number) => Math.sin(2 * Math.PI * turns)
const mix = (from: number, to: number, share: number) => from + (to - from) * share

/** One picture at `progress` 0..1 of the loop: RGB, 8 bits each, rows from the top. */
export function drawMoving(name: MovingBackground, colours: MovingColours, progress: number): Uint8Array {
  const codes = (hex: string): Rgb => parseHex(hex).map((value) => value * 255) as unknown as Rgb
  const inks = { ground: codes(colours.ground), panel: codes(colours.panel), accent: codes(colours.accent) }
  const data = new Uint8Array(MOVING_SIZE.widthPx * MOVING_SIZE.heightPx * 3)
  painters[name](data, inks, progress)
  return data
}

const painters: Readonly<Record<MovingBackground, (data: Uint8Array, inks: Inks, progress: number) => void>> = { drift, tide, motes }

/** Large soft lights that wander. */
function drift(data: Uint8Array, { ground, panel, accent }: Inks, progress: number): void {
  const lights = [
    { ink: accent, share: 0.95, x: 0.28 + 0.12 * turn(progress), y: 0.35 + 0.14 * turn(progress + 0.25), size: 0.42 },
    { ink: accent, share: 0.7, x: 0.78 + 0.1 * turn(progress + 0.6), y: 0.7 + 0.12 * turn(2 * progress), size: 0.36 },
    { ink: panel, share: 0.26, x: 0.55 + 0.2 * turn(progress + 0.4), y: 0.2 + 0.1 * turn(progress + 0.1), size: 0.3 },
  ]
  const { widthPx, heightPx } = MOVING_SIZE
  // A light falls off alike across and down, so each is worked out once for all rows and all columns.
  const falls = lights.map(({ x, y, size }) => ({
    across: Float64Array.from({ length: widthPx }, (_, column) => fallOff((((column + 0.5) / widthPx - x) * 16) / 9, size)),
    down: Float64Array.from({ length: heightPx }, (_, row) => fallOff((row + 0.5) / heightPx - y, size)),
  }))
  for (let row = 0, at = 0; row < heightPx; row += 1) {
    for (let column = 0; column < widthPx; column += 1, at += 3) {
      let [r, g, b] = ground
      for (let index = 0; index < lights.length; index += 1) {
        const { ink, share } = lights[index]!
        const weight = share * falls[index]!.across[column]! * falls[index]!.down[row]!
        r = mix(r, ink[0], weight)
        g = mix(g, ink[1], weight)
        b = mix(b, ink[2], weight)
      }
      data[at] = Math.round(r)
      data[at + 1] = Math.round(g)
      data[at + 2] = Math.round(b)
    }
  }
}

const fallOff = (distance: number, size: number) => Math.exp(-(distance * distance) / (size * size))

/** Four edges of water, one behind the other. */
function tide(data: Uint8Array, { panel, accent }: Inks, progress: number): void {
  const { widthPx, heightPx } = MOVING_SIZE
  const edges = [0.46, 0.58, 0.7, 0.83].map((level, index) => ({
    level,
    share: 0.22 + index * 0.24,
    turns: index % 2 === 0 ? 1 : -1,
    waves: 1 + index * 0.5,
    rise: 0.045,
  }))
  for (let column = 0; column < widthPx; column += 1) {
    const across = column / widthPx
    const tops = edges.map(({ level, turns, waves, rise }) => (level + rise * turn(across * waves + turns * progress)) * heightPx)
    for (let row = 0; row < heightPx; row += 1) {
      const at = (row * widthPx + column) * 3
      let share = 0.06
      edges.forEach((edge, index) => {
        // Of the pixel, what lies below the edge.
        const covered = Math.min(1, Math.max(0, row + 1 - tops[index]!))
        share = mix(share, edge.share, covered)
      })
      for (let channel = 0; channel < 3; channel += 1) data[at + channel] = Math.round(mix(panel[channel]!, accent[channel]!, share))
    }
  }
}

/** Small lights that rise through the dark. */
function motes(data: Uint8Array, { ground, panel, accent }: Inks, progress: number): void {
  const { widthPx, heightPx } = MOVING_SIZE
  const light = new Float32Array(widthPx * heightPx)
  const random = seededRandom(17)
  for (let index = 0; index < 60; index += 1) {
    const [x0, y0, size, strength] = [random() * widthPx, random(), 2 + random() * 9, 0.25 + random() * 0.6]
    const [laps, phase] = [1 + Math.floor(random() * 2), random()]
    const along = (y0 - laps * progress + 4) % 1
    // They come and go in the dark above and below.
    const seen = strength * Math.sin(Math.PI * along) ** 2
    addLight(light, x0 + 14 * turn(progress + phase), along * heightPx, size, seen)
  }
  for (let row = 0, pixel = 0; row < heightPx; row += 1) {
    const depth = 0.55 * (row / heightPx)
    for (let column = 0; column < widthPx; column += 1, pixel += 1) {
      const share = Math.min(1, light[pixel]!)
      for (let channel = 0; channel < 3; channel += 1) {
        data[pixel * 3 + channel] = Math.round(mix(mix(ground[channel]!, accent[channel]!, depth), panel[channel]!, share))
      }
    }
  }
}

function addLight(light: Float32Array, x: number, y: number, size: number, strength: number): void {
  const { widthPx, heightPx } = MOVING_SIZE
  const reach = size * 2.5
  for (let row = Math.max(0, Math.floor(y - reach)); row < Math.min(heightPx, y + reach); row += 1) {
    for (let column = Math.max(0, Math.floor(x - reach)); column < Math.min(widthPx, x + reach); column += 1) {
      const [dx, dy] = [(column + 0.5 - x) / size, (row + 0.5 - y) / size]
      light[row * widthPx + column]! += strength * Math.exp(-(dx * dx + dy * dy))
    }
  }
}
