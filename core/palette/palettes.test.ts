// Palettes: words stand out in each, and one made from a picture has the colour of the picture.
import { describe, expect, it } from 'vitest'
import { contrastRatio } from '../../tests/support/contrast.ts'
import { contrastOf } from '../colour/contrast.ts'
import { parseHex } from '../colour/hex.ts'
import { oklabOf, rgbOfOklab, withinSrgb } from '../colour/oklab.ts'
import { seededRandom } from '../random/seeded.ts'
import { palettes, paletteFrom, type Palette } from './palettes.ts'

function expectReadable({ ground, panel, ink, accent, onAccent }: Palette, what: string): void {
  // Words on plates, on the accent, and plates on the ground, as the graphics use them (WCAG 2.2, 1.4.3: 4.5).
  for (const [words, on] of [
    [ink, panel],
    [onAccent, accent],
    [panel, ground],
  ] as const) {
    expect(contrastRatio(words, on), `${what}: ${words} on ${on}`).toBeGreaterThanOrEqual(4.5)
  }
}

/** A square of RGBA pixels. */
const picture = (colours: readonly (readonly [number, number, number, number?])[]) => Uint8Array.from(colours.flatMap(([r, g, b, a = 255]) => [r, g, b, a]))
const many = (count: number, colour: readonly [number, number, number, number?]) => Array.from({ length: count }, () => colour)
const hueOf = (hex: string) => {
  const [, a, b] = oklabOf(parseHex(hex))
  return (Math.atan2(b, a) * 180) / Math.PI
}

describe('OKLab', () => {
  // Björn Ottosson, "A perceptual color space for image processing", table of XYZ and Lab pairs, by way of sRGB: CSS Color 4 gives
  // red as oklab(0.62796 0.22486 0.12585), lime as oklab(0.86644 -0.23389 0.1795), blue as oklab(0.45201 -0.03246 -0.31153).
  it.each([
    ['#ff0000', [0.62796, 0.22486, 0.12585]],
    ['#00ff00', [0.86644, -0.23389, 0.1795]],
    ['#0000ff', [0.45201, -0.03246, -0.31153]],
    ['#ffffff', [1, 0, 0]],
  ] as const)('has %s where CSS Color 4 has it', (hex, expected) => {
    oklabOf(parseHex(hex)).forEach((value, index) => expect(value).toBeCloseTo(expected[index]!, 3))
  })

  it('leads back, and to the nearest colour of sRGB where it has none', () => {
    const random = seededRandom(8)
    for (let i = 0; i < 200; i += 1) {
      const rgb = [random(), random(), random()] as const
      rgbOfOklab(oklabOf(rgb)).forEach((value, index) => expect(value).toBeCloseTo(rgb[index]!, 5))
      for (const value of withinSrgb([random(), random() - 0.5, random() - 0.5])) {
        expect(value).toBeGreaterThanOrEqual(0)
        expect(value).toBeLessThanOrEqual(1)
      }
    }
  })
})

it.each(Object.entries(palettes))('words stand out in %s', (name, palette) => expectReadable(palette, name))

describe('paletteFrom', () => {
  it('takes the strongest colour, not the most frequent: a red mark on white', () => {
    const palette = paletteFrom(picture([...many(900, [255, 255, 255]), ...many(100, [200, 30, 40])]))!
    expect(palette.accent).toBe('#c81e28')
    expect(palette.onAccent).toBe('#ffffff')
    expectReadable(palette, 'red')
    // The dark and the light follow its hue.
    for (const colour of [palette.ground, palette.panel]) expect(Math.abs(hueOf(colour) - hueOf('#c81e28'))).toBeLessThan(12)
  })

  it('looks through what is not seen, and past a few stray pixels', () => {
    const palette = paletteFrom(picture([...many(500, [255, 0, 0, 0]), ...many(400, [20, 90, 160]), ...many(3, [255, 200, 0])]))!
    expect(palette.accent).toBe('#145aa0')
  })

  it('darkens or lightens an accent that words would not stand out from', () => {
    const random = seededRandom(77)
    for (let i = 0; i < 150; i += 1) {
      const colour = [0, 1, 2].map(() => Math.floor(random() * 256)) as [number, number, number]
      expectReadable(paletteFrom(picture([...many(50, colour), ...many(50, [255, 255, 255])]))!, colour.join())
    }
  })

  it('makes greys of a picture without colours, and nothing of one that is clear', () => {
    const grey = paletteFrom(picture([...many(50, [90, 90, 90]), ...many(50, [255, 255, 255])]))!
    for (const colour of Object.values(grey)) {
      const [r, g, b] = parseHex(colour)
      expect(Math.max(r, g, b) - Math.min(r, g, b)).toBeLessThan(0.01)
    }
    expectReadable(grey, 'grey')
    expect(paletteFrom(picture(many(10, [255, 0, 0, 0])))).toBeNull()
    expect(paletteFrom(new Uint8Array(0))).toBeNull()
    expect(paletteFrom(picture([[1, 2, 3]]))).not.toBeNull()
  })

  it('is the same whatever the order of the pixels', () => {
    const colours = [...many(300, [250, 250, 250]), ...many(120, [30, 120, 80]), ...many(60, [230, 170, 40])] as [number, number, number][]
    const random = seededRandom(3)
    const shuffled = [...colours].sort(() => random() - 0.5)
    expect(paletteFrom(picture(shuffled))).toEqual(paletteFrom(picture(colours)))
  })
})

it('contrast is what WCAG says: 21 of black and white, 4.54 of #767676 on white (WebAIM, from memory)', () => {
  expect(contrastOf([0, 0, 0], [1, 1, 1])).toBeCloseTo(21, 6)
  expect(contrastOf(parseHex('#767676'), [1, 1, 1])).toBeCloseTo(4.54, 2)
})
