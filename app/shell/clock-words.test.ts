import { expect, it } from 'vitest'
import { clockWords } from './clock-words.ts'

it.each([
  [-5, '0:00'],
  [999, '0:00'],
  [1000, '0:01'],
  [599_999, '9:59'],
  [600_000, '10:00'],
  [3_599_999, '59:59'],
  [3_600_000, '1:00:00'],
  [36_061_000, '10:01:01'],
])('says %i ms as %s', (ms, words) => {
  expect(clockWords(ms)).toBe(words)
})
