import { expect, it } from 'vitest'
import { halve } from './halve.ts'

const picture = (widthPx: number, heightPx: number, values: readonly number[]) => ({
  widthPx,
  heightPx,
  data: Float64Array.from({ length: widthPx * heightPx * 4 }, (_, i) => values[i >> 2]!),
})

it.each([
  [1, 1, [0.5], [0.5]],
  [1, 4, [0, 1, 0.2, 0.4], [0.5, 0.3]],
  [4, 1, [0, 1, 0.2, 0.4], [0.5, 0.3]],
  [3, 2, [0, 1, 9, 0.2, 0.4, 9], [0.4]],
  [2, 2, [0, 0, 0, 1], [0.25]],
])('halves a picture of %i × %i: means of what is there, an odd last line dropped', (widthPx, heightPx, values, expected) => {
  const { data } = halve(picture(widthPx, heightPx, values))
  expect(data).toHaveLength(expected.length * 4)
  expected.forEach((value, i) => expect(data[i * 4]).toBeCloseTo(value, 12))
})
