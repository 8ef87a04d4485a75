import { describe, expect, it } from 'vitest'
import { parseNumber } from './parse-number.ts'

describe('a number that was typed', () => {
  it.each([
    ['12', 'px', 12],
    ['12 px', 'px', 12],
    [' -3,5° ', '°', -3.5],
    ['−3', '°', -3],
    ['90deg', '°', 90],
    ['50%', '%', 50],
    ['50 %', '', 0.5],
    ['0.25', '%', 0.25],
    ['2 s', 'ms', 2000],
    ['250ms', 's', 0.25],
    ['.5', '', 0.5],
    ['6500 K', 'K', 6500],
  ] as const)('%j in a field of %j is %d', (text, unit, value) => expect(parseNumber(text, unit)).toBeCloseTo(value, 12))

  it.each([
    ['50%', 'px'],
    ['12px', '%'],
    ['3 apples', 'px'],
    ['12 13', 'px'],
    ['1e9', ''],
    ['--3', ''],
    ['', 'px'],
    ['px', 'px'],
  ] as const)('%j in a field of %j is refused', (text, unit) => expect(parseNumber(text, unit)).toBeNull())
})
