// Palettes ready to use, and one made from the colours of a picture, as a logo. Words stand out from what they lie on in each.
import { contrastOf, LEAST_CONTRAST } from '../colour/contrast.ts'
import { formatHex, parseHex, type Rgb } from '../colour/hex.ts'
import { oklabOf, withinSrgb, type Oklab } from '../colour/oklab.ts'
import type { StyleColour } from '../style/style-names.ts'

/** A colour, "#rrggbb", for everything that a show has one for. */
export type Palette = Readonly<Record<StyleColour, string>>

export const palettes = {
  apiary: { ground: '#20302b', panel: '#f6f2e7', ink: '#1d2a26', accent: '#1e5b47', onAccent: '#ffffff' },
  harbour: { ground: '#16263a', panel: '#eef3f6', ink: '#142233', accent: '#1f5f8b', onAccent: '#ffffff' },
  brick: { ground: '#33211c', panel: '#fbf1e8', ink: '#2e1d18', accent: '#a8452c', onAccent: '#ffffff' },
  plum: { ground: '#2a1b33', panel: '#f7f0f6', ink: '#271a30', accent: '#7a3b86', onAccent: '#ffffff' },
  saffron: { ground: '#2a2620', panel: '#fffaf0', ink: '#28231a', accent: '#f2b134', onAccent: '#241d0c' },
  slate: { ground: '#1f2327', panel: '#f4f4f2', ink: '#1c2024', accent: '#454f5b', onAccent: '#ffffff' },
} as const satisfies Record<string, Palette>
export type PaletteName = keyof typeof palettes

/** Groups of colours that a picture is sorted into; more than a logo has. */
const GROUPS = 8
const ROUNDS = 12
/** What is less opaque than this is not seen. */
const LEAST_ALPHA = 128

interface ColourGroup {
  readonly colour: Oklab
  readonly count: number
}

/**
 * A palette from a picture: its strongest colour is the accent, the others follow its hue, dark or light enough for the words on them. A picture
 * without any colour gives greys; one without any visible pixel gives null. `data`: RGBA, 8 bits, straight alpha.
 */
export function paletteFrom(data: Uint8ClampedArray | Uint8Array): Palette | null {
  const groups = groupsIn(data)
  if (groups.length === 0) return null
  const total = groups.reduce((sum, { count }) => sum + count, 0)
  const weightOf = ({ colour, count }: ColourGroup) => chromaOf(colour) * Math.sqrt(count / total)
  const strongest = groups.reduce((best, group) => (weightOf(group) > weightOf(best) ? group : best))
  const [lightness, a, b] = strongest.colour
  const chroma = chromaOf(strongest.colour)
  const [hueA, hueB] = chroma < 0.02 ? [0, 0] : [a / chroma, b / chroma]
  const tinted = (light: number, colourful: number): Rgb => coded(withinSrgb([light, hueA * colourful, hueB * colourful]))
  const ground = tinted(0.27, Math.min(0.04, chroma / 2))
  const panel = tinted(0.965, Math.min(0.012, chroma / 6))
  const ink = tinted(0.24, Math.min(0.03, chroma / 2))
  const accent = coded(withinSrgb([lightness, a, b]))
  const onAccent = contrastOf([1, 1, 1], accent) >= contrastOf(ink, accent) ? ([1, 1, 1] as const) : ink
  return {
    ground: formatHex(ground),
    panel: formatHex(panel),
    ink: formatHex(ink),
    accent: formatHex(readable(accent, onAccent, [hueA, hueB])),
    onAccent: formatHex(onAccent),
  }
}

/** The accent, a little darker or lighter where words on it would not stand out. */
function readable(accent: Rgb, words: Rgb, [hueA, hueB]: readonly [number, number]): Rgb {
  const away = contrastOf(words, [0, 0, 0]) > contrastOf(words, [1, 1, 1]) ? -0.01 : 0.01
  const [before, a, b] = oklabOf(accent)
  let lightness = before
  const chroma = Math.hypot(a, b)
  let now = accent
  while (contrastOf(now, words) < LEAST_CONTRAST.text && lightness > 0 && lightness < 1) {
    lightness += away
    now = coded(withinSrgb([lightness, hueA * chroma, hueB * chroma]))
  }
  return now
}

/** As it is written: 8 bits each. */
const coded = (rgb: Rgb): Rgb => parseHex(formatHex(rgb))
const chromaOf = ([, a, b]: Oklab) => Math.hypot(a, b)
const distance = (one: Oklab, other: Oklab) => (one[0] - other[0]) ** 2 + (one[1] - other[1]) ** 2 + (one[2] - other[2]) ** 2

/** The colours of a picture in groups (k-means in OKLab; the first groups are as far apart as can be). */
function groupsIn(data: Uint8ClampedArray | Uint8Array): readonly ColourGroup[] {
  const pixels: Oklab[] = []
  for (let at = 0; at + 3 < data.length; at += 4) {
    if (data[at + 3]! >= LEAST_ALPHA) pixels.push(oklabOf([data[at]! / 255, data[at + 1]! / 255, data[at + 2]! / 255]))
  }
  if (pixels.length === 0) return []
  let centres: Oklab[] = [pixels[0]!]
  const nearest = pixels.map((pixel) => distance(pixel, centres[0]!))
  while (centres.length < GROUPS) {
    const farthest = nearest.reduce((best, value, index) => (value > nearest[best]! ? index : best), 0)
    if (nearest[farthest]! < 1e-5) break
    const centre = pixels[farthest]!
    centres.push(centre)
    pixels.forEach((pixel, index) => (nearest[index] = Math.min(nearest[index]!, distance(pixel, centre))))
  }
  let counts: number[] = []
  for (let round = 0; round < ROUNDS; round += 1) {
    const sums = centres.map(() => [0, 0, 0, 0])
    for (const pixel of pixels) {
      const sum = sums[centres.reduce((best, centre, index) => (distance(pixel, centre) < distance(pixel, centres[best]!) ? index : best), 0)]!
      for (let axis = 0; axis < 3; axis += 1) sum[axis]! += pixel[axis]!
      sum[3]! += 1
    }
    counts = sums.map(([, , , count]) => count!)
    centres = centres.map((centre, index) => (counts[index] === 0 ? centre : (sums[index]!.slice(0, 3).map((sum) => sum / counts[index]!) as unknown as Oklab)))
  }
  return centres.map((colour, index) => ({ colour, count: counts[index]! })).filter(({ count }) => count > 0)
}
