import { describe, expect, it } from 'vitest'
import { testShow } from '../../tests/support/shows.ts'
import { SAFE_INSET } from '../layout/safe-area.ts'
import { addScene } from '../show/edits.ts'
import { readShow } from '../show/migrate.ts'
import { corners, logoOf, makeLogo, tightInCorner } from './logo.ts'

let count = 0
const makeId = () => `l${(count += 1)}`
const show = testShow()
const picture = show.inputs.find(({ kind }) => kind === 'picture')!
const canvases = [
  { widthPx: 1280, heightPx: 720 },
  { widthPx: 720, heightPx: 1280 },
  { widthPx: 333, heightPx: 333 },
]

describe('a logo', () => {
  it('is a graphic of one picture that a show can hold', () => {
    const made = makeLogo(picture, 'Logo', 'topRight', show.canvas, makeId)
    const withLogo = addScene(show, made)
    expect(readShow(structuredClone(withLogo))).toEqual(withLogo)
    expect(logoOf(made)).toBe(made.layers[0])
    expect(logoOf({ ...made, graphic: null })).toBeNull()
    expect(logoOf({ ...made, layers: [...made.layers, ...made.layers] })).toBeNull()
    expect(logoOf({ ...made, layers: [] })).toBeNull()
  })

  it.each(corners.flatMap((corner) => canvases.flatMap((canvas) => [0.05, 1, 30].map((aspect) => [corner, canvas, aspect] as const))))(
    'stands in its corner, within what every screen shows: %s of %o, %d times as wide as high',
    (corner, canvas, aspect) => {
      const { x, y, width, height } = tightInCorner(corner, canvas, aspect)
      // SMPTE ST 2046-1:2009 and EBU R 95: 5 % from every edge.
      const [left, top] = [canvas.widthPx * SAFE_INSET.title, canvas.heightPx * SAFE_INSET.title]
      expect(x).toBeGreaterThanOrEqual(left - 0.5)
      expect(y).toBeGreaterThanOrEqual(top - 0.5)
      expect(x + width).toBeLessThanOrEqual(canvas.widthPx - left + 1)
      expect(y + height).toBeLessThanOrEqual(canvas.heightPx - top + 1)
      const [isLeft, isTop] = [corner.endsWith('Left'), corner.startsWith('top')]
      expect(isLeft ? x : canvas.widthPx - x - width).toBeLessThanOrEqual(left + 1.5)
      expect(isTop ? y : canvas.heightPx - y - height).toBeLessThanOrEqual(top + 1.5)
      expect(Math.min(width, height)).toBeGreaterThanOrEqual(1)
    },
  )
})
