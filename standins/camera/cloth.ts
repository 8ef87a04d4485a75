// The cloth and what is in view beside it, as pixels: uneven light, creases, a hem, a lamp stand.

/** A cloth: what it is dyed with, how it is lit, how creased it is. */
export interface Cloth {
  /** Encoded RGB (0..255) in full light. */
  readonly dye: readonly [number, number, number]
  /** Share of full light at (x, y). */
  readonly light: (x: number, y: number) => number
  /** Depth of folds; 1 is a cloth hung with some care, 0 a stretched one. */
  readonly creases: number
}

export const GREEN_DYE = [49, 178, 80] as const
export const BLUE_DYE = [44, 82, 190] as const

/** Two lamps of unequal strength; the right and lower parts fall off. */
export function twoLamps(x: number, y: number): number {
  const hot = Math.exp(-((x - 470) ** 2) / 330000 - (y - 250) ** 2 / 210000)
  return 0.8 + 0.24 * hot - 0.05 * (x / 1280) - 0.05 * (y / 720)
}

/** Softly even, as careful people light it. */
export function evenLight(x: number, y: number): number {
  return 0.97 - 0.02 * ((x - 640) / 640) ** 2 - 0.015 * (y / 720)
}

/** One window at the left: twice as much light there as at the right. */
export function oneSidedLight(x: number, y: number): number {
  return 1.04 - 0.52 * (x / 1280) - 0.03 * (y / 720)
}

/** Encoded RGB (0..255) of the empty studio at (x, y), in units of a 1280 × 720 picture. */
export function clothColour(cloth: Cloth, x: number, y: number, out: Float64Array): void {
  const leftEdge = 74 + y * 0.05 + 3 * Math.sin(y / 90)
  const rightEdge = 1196 - y * 0.03 + 3 * Math.sin(y / 70 + 1)
  if (x < leftEdge || x > rightEdge) {
    wallColour(x, y, x < leftEdge ? leftEdge - x : x - rightEdge, out)
    return
  }
  let light = cloth.light(x, y)
  // Creases: soft folds that hang a little slanted.
  const slant = x + y * 0.12
  let creases = 0.018 * Math.sin(slant / 41) + 0.014 * Math.sin(slant / 17 + 1.7)
  creases -= fold(slant, 288, 9, 0.075) + fold(slant, 905, 12, 0.09) + fold(slant, 1112, 7, 0.07)
  creases += fold(slant, 302, 7, 0.05) + fold(slant, 922, 8, 0.05)
  light += cloth.creases * creases
  const hem = Math.min(x - leftEdge, rightEdge - x)
  if (hem < 9) light *= hem > 6 ? 0.84 : 0.95
  for (let channel = 0; channel < 3; channel += 1) out[channel] = cloth.dye[channel]! * light
}

function fold(x: number, centre: number, width: number, depth: number): number {
  const distance = x - centre
  // Four widths out a fold is less than a thousandth deep.
  return Math.abs(distance) > 4 * width ? 0 : depth * Math.exp(-(distance * distance) / (2 * width * width))
}

function wallColour(x: number, y: number, fromEdge: number, out: Float64Array): void {
  const shade = 0.86 - 0.2 * (y / 720) - 0.16 * Math.exp(-fromEdge / 12)
  out[0] = 142 * shade
  out[1] = 131 * shade
  out[2] = 118 * shade
  if (y > 640) {
    out[0] = 96 * shade
    out[1] = 72 * shade
    out[2] = 54 * shade
  }
  // Lamp stand at the right: a bright head, a pole, two legs.
  const pole = Math.abs(x - 1243)
  const isPole = (pole < 4 && y > 150) || (y > 640 && Math.abs(pole - (y - 640) * 0.5) < 4)
  if (isPole) {
    const edge = pole < 4 ? 0.6 + 0.4 * (pole / 4) : 0.8
    out[0] = 34 * edge
    out[1] = 34 * edge
    out[2] = 36 * edge
  }
  const headX = Math.abs(x - 1243) / 31
  const headY = Math.abs(y - 108) / 52
  if (headX < 1 && headY < 1) {
    const isRim = headX > 0.88 || headY > 0.92
    out[0] = isRim ? 26 : 255
    out[1] = isRim ? 26 : 246
    out[2] = isRim ? 28 : 224
  }
}
