// Unicode Standard Annex 14, rules from memory; tests/e2e/letters.spec.ts holds the places against a browser's own.
import { describe, expect, it } from 'vitest'
import { breakPlaces, linesOf } from './break-text.ts'

const pieces = (text: string) => breakPlaces(text).map((place, i, all) => text.slice(all[i - 1] ?? 0, place))

describe('a paragraph', () => {
  it.each([
    ['never before closing punctuation, or after what opens (LB13, LB14)', 'Look (here), now! «Oui»', ['Look ', '(here), ', 'now! ', '«Oui»']],
    ['after hyphens and dashes, not before them (LB21)', 'state-of-the-art — yes', ['state-', 'of-', 'the-', 'art ', '— ', 'yes']],
    ['not within numbers (LB25)', 'pay 1,000.50€', ['pay ', '1,000.50€']],
    ['not at spaces and hyphens that bind (LB12)', 'a\u00a0b c\u2011d', ['a\u00a0b ', 'c\u2011d']],
    ['between ideographs, not before their full stops (LB13)', '巣箱。見る', ['巣', '箱。', '見', 'る']],
    ['at spaces of no width', 'one\u200btwo', ['one\u200b', 'two']],
    ['between words of Thai', 'สวัสดีครับ', ['สวัสดี', 'ครับ']],
    ['nowhere in nothing', '', ['']],
  ])('may be broken %s', (_rule, text, wanted) => {
    expect(pieces(text)).toEqual(wanted)
  })
})

describe('lines', () => {
  const ofWidth = (count: number) => (line: string) => line.length <= count

  it('hold as much as fits; spaces at their ends hang', () => {
    expect(linesOf('aa bb cc', ofWidth(5))).toEqual(['aa bb', 'cc'])
    expect(linesOf('aa bb  cc ', ofWidth(5))).toEqual(['aa bb', 'cc'])
    expect(linesOf('well-known', ofWidth(5))).toEqual(['well-', 'known'])
  })

  it('keep whole what cannot be broken, and what is first', () => {
    expect(linesOf('unbreakable a', ofWidth(3))).toEqual(['unbreakable', 'a'])
    expect(linesOf(' a', ofWidth(1))).toEqual(['', 'a'])
    expect(linesOf('', ofWidth(0))).toEqual([''])
  })
})
