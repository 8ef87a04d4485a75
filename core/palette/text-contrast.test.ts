import { expect, it } from 'vitest'
import { contrastRatio } from '../../tests/support/contrast.ts'
import { contrastAgainst } from './text-contrast.ts'

const grey = (codes: readonly number[]) => Uint8Array.from(codes.flatMap((code) => [code, code, code, 255]))

it('is the ratio of WCAG against a plain ground', () => {
  // #767676 on white is 4.54 to 1, the usual example of what just passes (WCAG 2.2, 1.4.3; the value from memory).
  expect(contrastAgainst([0x76 / 255, 0x76 / 255, 0x76 / 255], grey(Array.from({ length: 50 }, () => 255)))).toBeCloseTo(4.54, 2)
})

it('is that of the worst part of a ground, but for stray pixels', () => {
  const half = grey([...Array.from({ length: 50 }, () => 0), ...Array.from({ length: 50 }, () => 200)])
  expect(contrastAgainst([1, 1, 1], half)).toBeCloseTo(contrastRatio('#ffffff', '#c8c8c8'), 6)
  const few = grey([...Array.from({ length: 98 }, () => 0), 200, 200])
  expect(contrastAgainst([1, 1, 1], few)).toBeCloseTo(21, 6)
  expect(contrastAgainst([1, 1, 1], grey([]))).toBeNull()
  expect(contrastAgainst([1, 1, 1], grey([255]))).toBe(1)
})
