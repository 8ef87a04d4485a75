import { describe, expect, it } from 'vitest'
import type { PixelRect } from '../../core/picture/picture.ts'
import { EMPTY_RECT, isEmptyRect, meeting } from '../../core/picture/pixel-rect.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { bandsOf, seenParts } from './seen-parts.ts'

const rect = (left: number, top: number, right: number, bottom: number): PixelRect => ({ left, top, right, bottom })
const isIn = ({ left, top, right, bottom }: PixelRect, x: number, y: number) => x >= left && x < right && y >= top && y < bottom

describe('bandsOf', () => {
  it('are the region from top to bottom, whatever its size', () => {
    for (const region of [rect(0, 0, 1280, 720), rect(3, 5, 4, 6), rect(0, 700, 100_000, 733), rect(10, 0, 11, 5000)]) {
      const bands = bandsOf(region)
      expect(bands[0]!.top).toBe(region.top)
      expect(bands.at(-1)!.bottom).toBe(region.bottom)
      bands.slice(1).forEach((band, i) => expect(band.top).toBe(bands[i]!.bottom))
      expect(bands.every(({ left, right }) => left === region.left && right === region.right)).toBe(true)
    }
    expect(bandsOf(EMPTY_RECT)).toEqual([])
    expect(bandsOf(rect(5, 9, 5, 20))).toEqual([])
  })
})

describe('seenParts', () => {
  it('leaves out nothing that is seen, and draws no pixel twice', () => {
    const random = seededRandom(5)
    const region = rect(0, 0, 24, 18)
    for (let round = 0; round < 300; round += 1) {
      const hidden = Array.from({ length: 1 + Math.floor(random() * 5) }, () => {
        if (random() < 0.3) return EMPTY_RECT
        const [left, top] = [Math.floor(random() * 20) - 3, Math.floor(random() * 14) - 3]
        return rect(left, top, left + Math.floor(random() * 16), top + Math.floor(random() * 12))
      })
      const { seen, behindAll } = seenParts(hidden, region)
      for (const [i, parts] of [...seen, behindAll].entries()) {
        // The list is from back to front; what lies behind all of them comes before the first.
        const over = i === seen.length ? hidden : hidden.slice(i + 1)
        parts.forEach((part, at) => parts.slice(at + 1).forEach((other) => expect(isEmptyRect(meeting(part, other))).toBe(true)))
        for (let y = region.top; y < region.bottom; y += 1) {
          for (let x = region.left; x < region.right; x += 1) {
            if (!over.some((each) => isIn(each, x, y))) expect(parts.some((part) => isIn(part, x, y))).toBe(true)
          }
        }
      }
    }
  })

  it('draws nothing under what covers all', () => {
    const region = rect(0, 0, 8, 8)
    expect(seenParts([EMPTY_RECT, rect(-1, -1, 9, 9), EMPTY_RECT], region)).toEqual({ seen: [[], [region], [region]], behindAll: [] })
  })
})
