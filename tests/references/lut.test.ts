import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { CubeError, parseCube } from '../../core/lut/cube.ts'
import { applyLut, bakeLut, type Lut } from '../../core/lut/lut.ts'
import { ownLook, ownLooks } from '../../core/lut/own-looks.ts'
import { lutFromPicture } from '../../core/lut/picture-lut.ts'
import { casesOf, inputFile, loadPicture, sourceOf } from './cases.ts'

const cube = (name: string) => parseCube(readFileSync(inputFile(name), 'utf8'))

function looked(lut: Lut, rgb: readonly number[], interpolation: 'tetrahedral' | 'trilinear' = 'tetrahedral'): number[] {
  const pixel = Float64Array.of(rgb[0]!, rgb[1]!, rgb[2]!, 1)
  applyLut(lut, pixel, interpolation)
  return [...pixel.subarray(0, 3)]
}

describe(`interpolation — ${sourceOf('lut3d.interpolation')}`, () => {
  const cases = casesOf('lut3d.interpolation').filter(({ params }) => params.interp === 'tetrahedral' || params.interp === 'trilinear')
  it.each(cases.map((each) => [`${each.params.interp} ${each.input.rgb}`, each] as const))('%s', (_title, { input, params, expected }) => {
    looked(cube(input.lut), input.rgb, params.interp).forEach((value, i) => expect(value).toBeCloseTo(expected.rgb[i], 5))
  })
  it('has cases of both kinds', () => expect(new Set(cases.map(({ params }) => params.interp)).size).toBe(2))
})

describe.each(['lut3d.order', 'lut3d.domain'])('%s', (name) => {
  it.each(casesOf(name).map((each) => [`${each.params.lut} ${each.input.rgb}`, each] as const))(`follows ${sourceOf(name)}: %s`, (_title, { input, params, expected }) => {
    looked(cube(params.lut), input.rgb).forEach((value, i) => expect(value).toBeCloseTo(expected.rgb[i], 5))
  })
})

describe(`malformed files — ${sourceOf('cube.malformed')}`, () => {
  const rows = (count: number, first = '0 0 0') => [first, ...Array.from({ length: count - 1 }, () => '0.1 0.2 0.3')].join('\n')
  const head = 'TITLE "ref"\n# made here\nLUT_3D_SIZE 5\n'
  const files: Readonly<Record<string, string>> = {
    too_few_rows: head + rows(124),
    too_many_rows: head + rows(126),
    two_numbers: head + rows(125, '0.1 0.2'),
    word_in_row: head + rows(125, 'a b c'),
    size_1: `LUT_3D_SIZE 1\n0 0 0`,
    size_300: `LUT_3D_SIZE 300\n${rows(125)}`,
    unknown_keyword: `${head}LUT_FOO 3\n${rows(125)}`,
    '1d_and_3d': `${head}LUT_1D_SIZE 5\n${rows(125)}`,
    empty: '',
  }
  // The rules are the specification's (from memory, as its case says); the lines follow from the files above.
  it.each([
    ['too_few_rows', 127, 'ends after 124 rows'],
    ['too_many_rows', 129, 'one row too many'],
    ['two_numbers', 4, 'must hold 3 numbers, got 2'],
    ['word_in_row', 4, 'is no keyword'],
    ['size_1', 1, 'from 2 to 256, got "1"'],
    ['size_300', 1, 'from 2 to 256, got "300"'],
    ['unknown_keyword', 4, '"LUT_FOO" is no keyword'],
    ['1d_and_3d', 4, 'its size was given in line 3'],
    ['empty', 1, 'is missing'],
  ])('refuses %s in line %d', (name, line, reason) => {
    expect(casesOf('cube.malformed').some(({ input }) => input.file === name)).toBe(true)
    let caught: unknown
    try {
      parseCube(files[name]!)
    } catch (error) {
      caught = error
    }
    expect(caught).toBeInstanceOf(CubeError)
    expect((caught as CubeError).line).toBe(line)
    expect((caught as CubeError).message).toContain(reason)
  })
  it.each([
    ['nan', `${head}${rows(125, 'nan 0 0')}`, 'not a number'],
    ['a keyword after the rows', `LUT_1D_SIZE 2\n0 0 0\n1 1 1\nDOMAIN_MIN 0 0 0`, 'must stand before the rows'],
    ['a domain turned over', `LUT_1D_SIZE 2\nDOMAIN_MIN 1 1 1\nDOMAIN_MAX 0 0 0\n0 0 0\n1 1 1`, 'DOMAIN_MIN must be below'],
    ['rows without a size', '0 0 0', 'must come before the first row'],
    ['a foreign letter', 'LUT_1D_SIZE 2\n0 0 0\n1 1 1 ½', 'is no character of a .cube file'],
  ])('refuses %s', (_name, text, reason) => expect(() => parseCube(text)).toThrow(reason))

  it.each([
    ['a row too few', `LUT_3D_SIZE 2\n${'0 0 0\n'.repeat(7)}`, 9, 'the file ends after 7 rows'],
    ['a size in words', 'LUT_3D_SIZE two\n', 1, 'must be a whole number'],
    ['a row too short', '# hello\nLUT_1D_SIZE 2\n0 0 0\n1 1\n', 4, 'must hold 3 numbers'],
    ['a number beyond 32-bit floats', 'LUT_1D_SIZE 2\n0 0 0\n1 1e39 1', 3, '"1e39" is too large'],
    ['a size in hexadecimal', 'LUT_1D_SIZE 0x2\n0 0 0\n1 1 1', 1, 'must be a whole number'],
    ['a size with an exponent', 'LUT_1D_SIZE 2e0\n0 0 0\n1 1 1', 1, 'must be a whole number'],
    ['a size with a sign', 'LUT_1D_SIZE +2\n0 0 0\n1 1 1', 1, 'must be a whole number'],
    ['a domain turned over, in its own line', '# made by hand\nLUT_1D_SIZE 2\nDOMAIN_MIN 0 0 0\n\nDOMAIN_MAX 0 1 1\n0 0 0\n1 1 1', 5, 'DOMAIN_MIN must be below'],
    ['a range turned over, in its own line', 'LUT_1D_SIZE 2\n\nLUT_1D_INPUT_RANGE 1 0\n0 0 0\n1 1 1', 3, 'DOMAIN_MIN must be below'],
  ])('refuses %s', (_name, text, line, reason) => {
    expect(() => parseCube(text)).toThrow(`line ${line}: `)
    expect(() => parseCube(text)).toThrow(reason)
  })

  it('takes what all three readers take: line ends of either kind, exponents, a byte-order mark', () => {
    const plain = parseCube(head + rows(125))
    expect(parseCube((head + rows(125)).replaceAll('\n', '\r\n'))).toEqual(plain)
    expect(parseCube(`\uFEFF${head}${rows(125)}`)).toEqual(plain)
    expect(parseCube(head + rows(125, '1e-1 2E-1 3.0e-01')).data[1]).toBeCloseTo(0.2, 6)
  })
})

describe('one-dimensional tables', () => {
  // Two points per channel: the straight line between them, which needs no source.
  it('hold a curve for each channel, over their domain', () => {
    const lut = parseCube('LUT_1D_SIZE 3\nDOMAIN_MIN 0 0 0\nDOMAIN_MAX 2 2 2\n0 0 1\n0.5 0.25 0.5\n1 1 0')
    expect(looked(lut, [1, 1, 1])).toEqual([0.5, 0.25, 0.5])
    expect(looked(lut, [0.5, 1.5, 9])).toEqual([0.25, 0.625, 0])
  })
})

describe(`HALD pictures — ${sourceOf('hald.layout')}`, () => {
  it.each(casesOf('hald.layout').map((each) => [each.input.level, each] as const))('level %d lies as the layout says', (level, { params, expected }) => {
    const size = params.cube as number
    const lut = bakeLut(size, () => undefined)
    for (const [index, rgb] of Object.entries(expected.rgb8_at_index as Record<string, number[]>)) {
      rgb.forEach((code, channel) => expect(Math.abs(lut.data[Number(index) * 3 + channel]! * 255 - code)).toBeLessThanOrEqual(0.51))
    }
    expect(size).toBe(level * level)
  })

  it.each(casesOf('hald.apply').map((each) => [`${each.params.tool} ${each.params.interp}`, each] as const))(`are applied as ${sourceOf('hald.apply')} do: %s`, async (_title, { input, params, expected }) => {
    const lut = lutFromPicture(await loadPicture('grade_hald3.png'))
    expect(lut.size).toBe(9)
    input.rgb8.forEach((rgb8: number[], i: number) => {
      const result = looked(lut, rgb8.map((code) => code / 255), params.interp)
      // The tools truncate to codes.
      result.forEach((value, channel) => expect(Math.abs(value * 255 - expected.rgb8[i][channel])).toBeLessThanOrEqual(1.01))
    })
  })

  // Layouts: a HALD of level 4 is 64 × 64 with red fastest; 16 tiles of 16 × 16 are as large. Whatever a look does to colours, both are read as they were written.
  it.each([
    ['a negative', (rgb: readonly number[]) => rgb.map((value) => 1 - value)],
    ['black and white', (rgb: readonly number[]) => rgb.map(() => 0.2126 * rgb[0]! + 0.7152 * rgb[1]! + 0.0722 * rgb[2]!)],
    ['red and blue changed over', (rgb: readonly number[]) => [rgb[2]!, rgb[1]!, rgb[0]!]],
    ['nothing', (rgb: readonly number[]) => rgb],
  ] as const)('and tiles of 16 levels are told apart when the look is %s', (_name, look) => {
    const size = 16
    for (const layout of ['hald', 'tiles'] as const) {
      const data = new Uint8Array(64 * 64 * 4)
      for (let b = 0; b < size; b += 1) {
        for (let g = 0; g < size; g += 1) {
          for (let r = 0; r < size; r += 1) {
            const pixel = layout === 'hald' ? b * size * size + g * size + r : (Math.floor(b / 4) * size + g) * 64 + (b % 4) * size + r
            data.set([...look([r / 15, g / 15, b / 15]).map((value) => Math.round(value * 255)), 255], pixel * 4)
          }
        }
      }
      const lut = lutFromPicture({ format: 'rgba', widthPx: 64, heightPx: 64, data })
      const rgb = [0.2, 0.6, 0.8]
      looked(lut, rgb).forEach((value, channel) => expect(value).toBeCloseTo(look(rgb)[channel]!, 2))
    }
  })

  it('and tiles of 64 levels are told apart by what they hold', () => {
    const size = 64
    const tiles = new Uint8Array(512 * 512 * 4)
    for (let b = 0; b < size; b += 1) {
      for (let g = 0; g < size; g += 1) {
        for (let r = 0; r < size; r += 1) {
          const at = ((Math.floor(b / 8) * 64 + g) * 512 + (b % 8) * 64 + r) * 4
          tiles.set([(r / 63) * 255, (g / 63) * 255, (b / 63) * 255, 255], at)
        }
      }
    }
    const lut = lutFromPicture({ format: 'rgba', widthPx: 512, heightPx: 512, data: tiles })
    const result = looked(lut, [0.2, 0.55, 0.9])
    for (const [i, value] of [0.2, 0.55, 0.9].entries()) expect(result[i]).toBeCloseTo(value, 2)
    expect(() => lutFromPicture({ format: 'rgba', widthPx: 640, heightPx: 360, data: new Uint8Array(640 * 360 * 4) })).toThrow('640×360 holds no look')
  })
})

describe('our own looks', () => {
  it.each(ownLooks)('%s keeps black dark, white bright, and greys in order', (name) => {
    const lut = ownLook(name)
    let last = -1
    for (let step = 0; step <= 16; step += 1) {
      const [red, green, blue] = looked(lut, [step / 16, step / 16, step / 16]) as [number, number, number]
      const luma = 0.2126 * red + 0.7152 * green + 0.0722 * blue
      expect(luma).toBeGreaterThan(last)
      last = luma
      expect(Math.min(red, green, blue) >= 0 && Math.max(red, green, blue) <= 1).toBe(true)
    }
    expect(last).toBeGreaterThan(0.75)
  })
  it('number at least twelve, with a black and white, a sepia and a two-colour one', () => {
    expect(ownLooks.length).toBeGreaterThanOrEqual(12)
    const [red, green, blue] = looked(ownLook('inkwell'), [0.8, 0.3, 0.2]) as [number, number, number]
    expect(Math.max(red, green, blue) - Math.min(red, green, blue)).toBeLessThan(0.01)
    const sepia = looked(ownLook('sepia'), [0.5, 0.5, 0.5]) as [number, number, number]
    expect(sepia[0]).toBeGreaterThan(sepia[2] + 0.1)
    expect(ownLooks).toContain('duskTwoTone')
  })
})
