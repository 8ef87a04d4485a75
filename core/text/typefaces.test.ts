import { describe, expect, it } from 'vitest'
import { facesFor, familiesFor, fontStackFor, isRightToLeft, parseRange, type FaceFile } from './typefaces.ts'
import { isTooSmallInTile } from './tile-size.ts'

const file = (family: string, range: string): FaceFile => ({ family, range, url: `${family} ${range}`, weights: '400' })
const latin = file('Bricolage Grotesque', 'U+0000-00FF, U+0131')
const latinExt = file('Bricolage Grotesque', 'U+0100-02BA')
const noto = file('Noto Sans', 'U+0000-00FF')
const greek = file('Noto Sans', 'U+0370-03FF')
const kanaJp = file('Noto Sans JP', 'U+3040-30FF')
const hanJp = file('Noto Sans JP', 'U+4E00-9FFF')
const hanSc = file('Noto Sans SC', 'U+4E00-9FFF')
const all = [latin, latinExt, noto, greek, kanaJp, hanJp, hanSc]

describe('typefaces', () => {
  it('reads a unicode-range as CSS Fonts 4 writes it', () => {
    expect(parseRange('U+0000-00FF, U+0131,U+152-153')).toEqual([
      [0, 0xff],
      [0x131, 0x131],
      [0x152, 0x153],
    ])
  })

  it('needs for each letter the first family that has it, and no more', () => {
    expect(facesFor('Bricolage Grotesque', 'Kovac', all)).toEqual([latin])
    expect(facesFor('Bricolage Grotesque', 'Kovač', all)).toEqual([latin, latinExt])
    expect(facesFor('Bricolage Grotesque', 'Ελένη', all)).toEqual([greek])
    expect(facesFor('Bricolage Grotesque', '\u{10FFFF}', all)).toEqual([])
  })

  it('takes letters that Chinese and Japanese share from the script around them', () => {
    expect(facesFor('Bricolage Grotesque', '蜂', all)).toEqual([hanSc])
    expect(facesFor('Bricolage Grotesque', '蜂の', all)).toEqual([hanJp, kanaJp])
    expect(familiesFor('Noto Sans', 'a')[0]).toBe('Noto Sans')
    expect(new Set(familiesFor('Noto Sans', 'a')).size).toBe(familiesFor('Noto Sans', 'a').length)
    expect(fontStackFor('Instrument Sans', '한')).toMatch(/^"Instrument Sans", .*"Noto Sans KR", "Noto Sans SC", .*sans-serif$/)
  })

  it('follows the first letter that has a direction (Unicode Standard Annex 9, rule P2)', () => {
    expect(['دبور', '1. דבורה', 'Bees', '', '123', 'Пчёлы'].map(isRightToLeft)).toEqual([true, true, false, false, false, false])
  })

  it('takes letters of less than 6 pixels in a tile 320 wide for too small (common practice, no source)', () => {
    expect([24, 23.9].map((size) => isTooSmallInTile(size, 1280))).toEqual([false, true])
    expect(isTooSmallInTile(35.9, 1920)).toBe(true)
  })
})
