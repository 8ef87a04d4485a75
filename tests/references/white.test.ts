import { describe, expect, it } from 'vitest'
import { adaptation, chromaticityOf, D65, planckianWhite, uvOf, type Chromaticity } from '../../core/colour/white.ts'
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
