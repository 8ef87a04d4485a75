import { describe, expect, it } from 'vitest'
import type { Rgb } from '../../core/colour/hex.ts'
import { encodeSrgb } from '../../core/colour/srgb.ts'
import { adaptation, applyMatrix, chromaticityOf, D65, planckianWhite, uvOf, XYZ_TO_SRGB, xyzOf, type Chromaticity } from '../../core/colour/white.ts'
import { balanceFor } from '../../core/steps/balance/reference.ts'
import { casesOf, sourceOf } from './cases.ts'

/** Standard whites, CIE 15 (x, y to five digits; from memory). */
const WHITES: Readonly<Record<string, Chromaticity>> = { D65: { x: 0.31272, y: 0.32903 }, D50: { x: 0.34567, y: 0.3585 }, A: { x: 0.44758, y: 0.40745 } }

describe(`Planckian locus — ${sourceOf('white.planckian_locus')}`, () => {
  it.each(casesOf('white.planckian_locus').map((each) => [each.input.T, each] as const))('%d K', (kelvin, { expected }) => {
    const { x, y } = planckianWhite(kelvin)
    expect(Math.abs(x - expected.x)).toBeLessThanOrEqual(0.002)
    expect(Math.abs(y - expected.y)).toBeLessThanOrEqual(0.002)
  })
  it('passes illuminant A at 2856 K', () => {
    const { x, y } = planckianWhite(2856)
    expect(Math.abs(x - 0.44758)).toBeLessThanOrEqual(0.002)
    expect(Math.abs(y - 0.40745)).toBeLessThanOrEqual(0.002)
  })
})

describe(`adaptation — ${sourceOf('white.chromatic_adaptation')}`, () => {
  const cases = casesOf('white.chromatic_adaptation').filter(({ input, params }) => params.cat === 'bradford' && WHITES[input.from] && WHITES[input.to])
  it.each(cases.map((each) => [`${each.input.from} to ${each.input.to}`, each] as const))('Bradford, %s', (_title, { input, expected }) => {
    const matrix = adaptation(WHITES[input.from]!, WHITES[input.to]!)
    expected.xyz_matrix.flat().forEach((value: number, i: number) => expect(Math.abs(matrix[i]! - value)).toBeLessThan(0.002))
  })
  it('has cases, and changes nothing between equal whites', () => {
    expect(cases.length).toBeGreaterThanOrEqual(2)
    adaptation(D65, D65).forEach((value, i) => expect(value).toBeCloseTo(i % 4 === 0 ? 1 : 0, 9))
  })
})

describe(`CIE 1960 u, v — ${sourceOf('white.tint_duv')}`, () => {
  it.each(casesOf('white.tint_duv').map((each) => [each.input.white, each] as const))('%s', (white, { expected }) => {
    const { u, v } = uvOf(WHITES[white]!)
    expect(u).toBeCloseTo(expected.u, 4)
    expect(v).toBeCloseTo(expected.v, 4)
    const back = chromaticityOf(u, v)
    expect(back.x).toBeCloseTo(WHITES[white]!.x, 9)
    expect(back.y).toBeCloseTo(WHITES[white]!.y, 9)
  })
})

describe('a click on something grey', () => {
  /** What a grey looks like in a light: linear sRGB of its white at half luminance, encoded. */
  function greyIn(kelvin: number): Rgb | null {
    const linear = applyMatrix(XYZ_TO_SRGB, ...xyzOf(planckianWhite(kelvin))).map((value) => value * 0.4)
    return linear.every((value) => value >= 0 && value <= 1) ? (linear.map(encodeSrgb) as unknown as Rgb) : null
  }

  it.each([2500, 3200, 4000, 5000, 6500, 8000, 11000])('finds the light, or near it, at %i K', (kelvin) => {
    const found = balanceFor(greyIn(kelvin)!)
    expect(found).not.toBeNull()
    expect(Math.abs(1e6 / found!.temperature - 1e6 / kelvin)).toBeLessThan(12)
    expect(Math.abs(found!.tint)).toBeLessThan(25)
  })

  it('refuses a light beyond the range, however cool or warm, in place of a wild tint', () => {
    let refused = 0
    for (const kelvin of [1700, 1800, 1900, 13500, 16000, 20000, 25000]) {
      const grey = greyIn(kelvin)
      if (grey === null) continue
      refused += 1
      expect({ kelvin, found: balanceFor(grey) }).toEqual({ kelvin, found: null })
    }
    expect(refused).toBeGreaterThanOrEqual(4)
  })
})
