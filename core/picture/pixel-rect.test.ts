import { describe, expect, it } from 'vitest'
import { seededRandom } from '../random/seeded.ts'
import { apart, areaOf, coversRect, isEmptyRect, meeting, unionOf, without } from './pixel-rect.ts'

const rect = (left: number, top: number, right: number, bottom: number) => ({ left, top, right, bottom })

describe('without', () => {
  it('leaves what lies around the hole, in parts that neither meet nor miss a pixel', () => {
    const whole = rect(0, 0, 10, 10)
    expect(without(whole, rect(3, 3, 6, 6))).toHaveLength(4)
    expect(without(whole, rect(-5, -5, 20, 20))).toEqual([])
    expect(without(whole, rect(20, 0, 30, 10))).toEqual([whole])
    const next = seededRandom(11)
    const at = () => Math.floor(next() * 24) - 6
    for (let i = 0; i < 400; i += 1) {
      const hole = rect(at(), at(), at(), at())
      const left = without(whole, hole)
      for (let y = 0; y < 10; y += 1) {
        for (let x = 0; x < 10; x += 1) {
          const pixel = rect(x, y, x + 1, y + 1)
          const isLeft = isEmptyRect(hole) || !coversRect(hole, pixel)
          expect(left.filter((part) => coversRect(part, pixel))).toHaveLength(isLeft ? 1 : 0)
        }
      }
    }
  })
})

describe('apart', () => {
  it('holds all of a list in parts that do not meet, however they chain; one part where they would be many', () => {
    expect(apart([rect(0, 0, 2, 2), rect(8, 8, 9, 9)])).toHaveLength(2)
    // The third joins the first two.
    expect(apart([rect(0, 0, 2, 2), rect(4, 0, 6, 2), rect(1, 1, 5, 3)])).toEqual([rect(0, 0, 6, 3)])
    expect(apart([rect(0, 0, 0, 5)])).toEqual([])
    expect(apart(Array.from({ length: 20 }, (_, i) => rect(i * 3, 0, i * 3 + 1, 1)))).toEqual([rect(0, 0, 58, 1)])
    const next = seededRandom(12)
    for (let i = 0; i < 300; i += 1) {
      const list = Array.from({ length: 1 + Math.floor(next() * 7) }, () => {
        const [left, top] = [Math.floor(next() * 40), Math.floor(next() * 40)]
        return rect(left, top, left + Math.floor(next() * 12), top + Math.floor(next() * 12))
      })
      const parts = apart(list)
      for (const each of list.filter((one) => !isEmptyRect(one))) expect(parts.some((part) => coversRect(part, each))).toBe(true)
      parts.forEach((part, at) => parts.slice(at + 1).forEach((other) => expect(isEmptyRect(meeting(part, other))).toBe(true)))
    }
  })
})

describe('unionOf', () => {
  it('takes no notice of empty ones', () => {
    expect(unionOf([rect(5, 5, 5, 9), rect(1, 2, 3, 4), rect(9, 9, 2, 2)])).toEqual(rect(1, 2, 3, 4))
    expect(areaOf(unionOf([]))).toBe(0)
    expect(areaOf(unionOf([rect(4, 4, 2, 9)]))).toBe(0)
  })
})
