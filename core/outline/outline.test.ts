import { describe, expect, it } from 'vitest'
import { seededRandom } from '../random/seeded.ts'
import { insideShares, strokeShares } from './outline-coverage.ts'
import { outlinePicture } from './outline-picture.ts'
import { OutlineError, readOutline, type Contour } from './read-outline.ts'
import { OUTLINE_BOX, starPath, usualOutlines } from './usual-outlines.ts'

const sumOf = (shares: Float64Array) => shares.reduce((sum, share) => sum + share, 0)
const contourOf = (...points: number[]): Contour => ({ points: Float64Array.from(points), isClosed: true })

/** The signed area of a polygon: half the sum of cross products (the shoelace formula, Meister 1769). */
function shoelace(points: readonly (readonly [number, number])[]): number {
  return points.reduce((sum, [x, y], i) => {
    const [nextX, nextY] = points[(i + 1) % points.length]!
    return sum + (x * nextY - nextX * y) / 2
  }, 0)
}

/** A polygon cut to a pixel, side by side (Sutherland and Hodgman, 1974). */
function cutToPixel(points: readonly (readonly [number, number])[], left: number, top: number): (readonly [number, number])[] {
  const sides = [
    ([x]: readonly [number, number]) => x - left,
    ([x]: readonly [number, number]) => left + 1 - x,
    ([, y]: readonly [number, number]) => y - top,
    ([, y]: readonly [number, number]) => top + 1 - y,
  ]
  return sides.reduce<(readonly [number, number])[]>(
    (polygon, within) =>
      polygon.flatMap((point, i) => {
        const next = polygon[(i + 1) % polygon.length]!
        const [here, there] = [within(point), within(next)]
        const share = here / (here - there)
        const crossing = [point[0] + (next[0] - point[0]) * share, point[1] + (next[1] - point[1]) * share] as const
        return [...(here >= 0 ? [point] : []), ...(here >= 0 !== there >= 0 ? [crossing] : [])]
      }),
    [...points],
  )
}

describe('insideShares', () => {
  it('are the exact areas of random polygons cut to each pixel, wherever they lie', () => {
    const random = seededRandom(21)
    for (let round = 0; round < 60; round += 1) {
      // Star-shaped about a point, so that no sides cross; it may reach beyond the picture on any side.
      const [centreX, centreY] = [random() * 14 - 2, random() * 12 - 2]
      const corners = 3 + Math.floor(random() * 9)
      const points = Array.from({ length: corners }, (_, i) => {
        const angle = ((i + random() * 0.8) / corners) * 2 * Math.PI
        const radius = 1 + random() * 8
        return [centreX + radius * Math.cos(angle), centreY + radius * Math.sin(angle)] as const
      })
      const shares = insideShares([contourOf(...points.flat())], 10, 8)
      for (let y = 0; y < 8; y += 1) {
        for (let x = 0; x < 10; x += 1) expect(Math.abs(shares[y * 10 + x]! - Math.abs(shoelace(cutToPixel(points, x, y))))).toBeLessThan(1e-9)
      }
    }
  })

  it('has a hole where an inner contour runs the other way round, and none where it runs the same way', () => {
    const outer = [2, 2, 18, 2, 18, 18, 2, 18]
    const inner = [6, 6, 12, 6, 12, 12, 6, 12]
    const backwards = [6, 6, 6, 12, 12, 12, 12, 6]
    expect(sumOf(insideShares([contourOf(...outer), contourOf(...backwards)], 20, 20))).toBeCloseTo(256 - 36, 9)
    expect(sumOf(insideShares([contourOf(...outer), contourOf(...inner)], 20, 20))).toBeCloseTo(256, 9)
  })

  it('a contour that is drawn twice, or back over itself, is what it is once; what overlaps is covered once', () => {
    const star = starPath(5, 50, 20)
    const once = insideShares(readOutline(star, 0.83, 0.79), 84, 80)
    for (const twice of [`${star} ${star}`, `${star} ${star} ${star}`]) {
      const shares = insideShares(readOutline(twice, 0.83, 0.79), 84, 80)
      for (let at = 0; at < shares.length; at += 1) expect(Math.abs(shares[at]! - once[at]!)).toBeLessThan(4 / 255)
    }
    // Two squares of 20 with sides between pixels, of which 10 × 10 overlap, in either direction: no seam where an edge of one crosses the other.
    for (const second of ['M20.3 20.6 H40.3 V40.6 H20.3 Z', 'M20.3 20.6 V40.6 H40.3 V20.6 Z']) {
      const shares = insideShares(readOutline(`M10.3 10.6 H30.3 V30.6 H10.3 Z ${second}`, 1, 1), 60, 60)
      const isSame = second.includes('H40.3 V40.6')
      expect(sumOf(shares)).toBeCloseTo(isSame ? 2 * 400 - 100 : 2 * 400 - 200, 0)
      if (isSame) for (let x = 21; x < 30; x += 1) expect(shares[20 * 60 + x]).toBe(1)
    }
    // A thread that is retraced covers nothing.
    const retraced = insideShares(readOutline('M10 10 H50 V50 H10 Z M20 20 L40 33 L20 20', 1, 1), 60, 60)
    expect(sumOf(retraced)).toBeCloseTo(1600, 6)
  })

  it('is that of circles and ellipses drawn by arcs and curves, within a five-thousandth (area π·a·b)', () => {
    for (const [a, b] of [
      [3, 3],
      [40, 40],
      [55, 9],
    ] as const) {
      const data = `M0 ${b} A${a} ${b} 0 0 1 ${2 * a} ${b} A${a} ${b} 0 0 1 0 ${b} Z`
      const area = sumOf(insideShares(readOutline(data, 1, 1), 2 * a, 2 * b))
      expect(Math.abs(area / (Math.PI * a * b) - 1)).toBeLessThan(a === 3 ? 2e-3 : 5e-4)
    }
  })
})

describe('strokeShares', () => {
  it('of an open line is its length times its width: ends are cut straight (stroke-linecap butt, SVG 2 §13.5.4)', () => {
    for (const [x1, y1] of [
      [90, 40],
      [60, 40],
      [40, 15],
    ] as const) {
      const contour = { points: Float64Array.of(20, 40, x1, y1), isClosed: false }
      const length = Math.hypot(x1 - 20, y1 - 40)
      const area = sumOf(strokeShares([contour], 110, 80, 6))
      expect(Math.abs(area / (length * 12) - 1)).toBeLessThan(3e-3)
    }
  })

  it('of a circle is a ring: 2π·r times its width; a hair line too', () => {
    const circle = readOutline('M10 40 A30 30 0 0 1 70 40 A30 30 0 0 1 10 40 Z', 1, 1)
    for (const width of [10, 3, 0.5]) {
      expect(Math.abs(sumOf(strokeShares(circle, 80, 80, width / 2)) / (2 * Math.PI * 30 * width) - 1)).toBeLessThan(5e-3)
    }
  })

  it('has mitred corners up to a limit of four widths, and cuts sharper ones off (stroke-miterlimit, SVG 2 §13.5.6)', () => {
    // A right angle: both arms, and the square at the corner. At 29 degrees the mitre is four widths long; a little sharper it is cut off.
    const corner = (angleDeg: number) => {
      const angle = (angleDeg * Math.PI) / 180
      const points = Float64Array.of(140, 50, 60, 50, 60 + 80 * Math.cos(angle), 50 + 80 * Math.sin(angle))
      return sumOf(strokeShares([{ points, isClosed: false }], 180, 160, 4))
    }
    expect(corner(90)).toBeCloseTo(2 * 80 * 8 - 16 + 16, 0)
    const exact = (angleDeg: number, isMitred: boolean) => {
      const half = (angleDeg * Math.PI) / 360
      // Two arms that overlap in a kite; the outer corner is the same kite, or the triangle between the cut ends.
      const kite = (4 * 4) / Math.tan(half)
      return 2 * 80 * 8 - kite + (isMitred ? kite : (4 * 4 * Math.sin(2 * half)) / 2)
    }
    for (const [angleDeg, isMitred] of [
      [120, true],
      [60, true],
      [30, true],
      [28, false],
      [20, false],
    ] as const) {
      expect(Math.abs(corner(angleDeg) / exact(angleDeg, isMitred) - 1), `${angleDeg}`).toBeLessThan(4e-3)
    }
  })

  it('is whole where it crosses and touches itself: no notch, and nothing twice', () => {
    // Two bars of 8 that cross at 90 degrees: their sum less the square they share.
    const cross = readOutline('M10 40 H70 M40 10 V70', 1, 1)
    expect(sumOf(strokeShares(cross, 80, 80, 4))).toBeCloseTo(2 * 60 * 8 - 64, 6)
    expect(strokeShares(cross, 80, 80, 4)[40 * 80 + 40]).toBe(1)
    // A corner over a line further back, turned either way.
    for (const side of [1, -1]) {
      const [y, over] = [60 - side * 20, 60 + side * 12]
      const points = Float64Array.of(10, 60, 110, 60, 110, y, 62, y, 60, over, 58, y)
      expect(strokeShares([{ points, isClosed: false }], 120, 120, 6)[60 * 120 + 60], `turned to ${side}`).toBe(1)
      expect(
        Math.max(
          ...strokeShares([{ points, isClosed: false }], 120, 120, 6)
            .slice(60 * 120 + 15, 60 * 120 + 105)
            .map((share) => 1 - share),
        ),
      ).toBe(0)
    }
    // The same line there and back is the line.
    const [there, back] = [readOutline('M10 31 L70 44', 1, 1), readOutline('M10 31 L70 44 L10 31', 1, 1)]
    const [once, twice] = [strokeShares(there, 80, 80, 3), strokeShares(back, 80, 80, 3)]
    for (let at = 0; at < once.length; at += 1) expect(Math.abs(once[at]! - twice[at]!)).toBeLessThan(0.008)
  })

  it('is closed only where the contour is', () => {
    const corner = (isClosed: boolean) => strokeShares([{ points: Float64Array.of(5, 5, 35, 5, 35, 35), isClosed }], 40, 40, 2)
    expect(corner(false)[20 * 40 + 20]).toBe(0)
    expect(corner(true)[20 * 40 + 20]).toBe(1)
  })
})

describe('readOutline', () => {
  it('reads every command, relative ones and shortened ones too', () => {
    const [square] = readOutline('m10 10 h20 v20 h-20 z', 1, 1)
    expect([...square!.points]).toEqual([10, 10, 30, 10, 30, 30, 10, 30])
    expect(square!.isClosed).toBe(true)
    expect(readOutline('M0 0 L10 0 M20 20 L30 30 Z L0 5', 2, 1, 1).map(({ isClosed }) => isClosed)).toEqual([false, true, false])
    // A smooth curve and the same written out end in the same points.
    const written = readOutline('M0 0 C10 0 20 10 20 20 C20 30 30 40 40 40', 1, 1)[0]!.points
    expect([...readOutline('M0 0 C10 0 20 10 20 20 S30 40 40 40', 1, 1)[0]!.points]).toEqual([...written])
    expect(readOutline('', 1, 1)).toEqual([])
  })

  it('says what is wrong', () => {
    expect(() => readOutline('L10 10', 1, 1)).toThrow(OutlineError)
    expect(() => readOutline('M0 0 L10', 1, 1)).toThrow('from character 9 on')
    expect(() => readOutline('M0 0 L10 10 X', 1, 1)).toThrow('from character 13 on')
    expect(() => readOutline('a rectangle, please', 1, 1)).toThrow(OutlineError)
    for (const far of ['M0 0 L1e400 0', 'M0 0 L1e30 0 L0 1e30 Z', 'M0 0 L-1e400 1e400']) expect(() => readOutline(far, 1, 1)).toThrow(OutlineError)
  })

  it('a curve is never further from its pieces than a two-hundredth of a pixel', () => {
    // A quarter of a circle by its usual curve is a circle within 2.8e-4 of its radius.
    const k = 0.5522847498
    const [curve] = readOutline(`M400 0 C400 ${400 * k} ${400 * k} 400 0 400`, 1, 1)
    const { points } = curve!
    for (let i = 0; i + 3 < points.length; i += 2) {
      const middle = Math.hypot((points[i]! + points[i + 2]!) / 2, (points[i + 1]! + points[i + 3]!) / 2)
      expect(Math.abs(middle - 400)).toBeLessThan(0.005 + 400 * 2.8e-4)
    }
  })
})

describe('usual outlines', () => {
  it('lie in their box, and cover some of it', () => {
    for (const path of Object.values(usualOutlines)) {
      const contours = readOutline(path, 1, 1)
      for (const { points } of contours) for (const value of points) expect(value >= 0 && value <= OUTLINE_BOX).toBe(true)
      expect(sumOf(insideShares(contours, OUTLINE_BOX, OUTLINE_BOX))).toBeGreaterThan(2500)
    }
    // Five points: ten triangles about the middle, each with sides R and r and a tenth of a turn between them.
    const area = sumOf(insideShares(readOutline(starPath(5, 50, 20), 1, 1), 100, 100))
    expect(Math.abs(area - 5 * 50 * 20 * Math.sin(Math.PI / 5))).toBeLessThan(1)
  })
})

describe('outlinePicture', () => {
  it('lays the stroke over the fill; both see-through, by source-over (W3C Compositing Level 1 §5.1)', () => {
    const fill = { kind: 'plain', colour: '#ff0000', opacity: 0.5 } as const
    const stroke = { widthPx: 4, colour: '#0000ff', opacity: 0.5 }
    const picture = outlinePicture({ data: 'M0 0 H16 V16 H0 Z', boxWidth: 16, boxHeight: 16, padPx: 4, fill, stroke }, 24, 24)
    const at = (x: number, y: number) => [...picture.data.slice((y * 24 + x) * 4, (y * 24 + x) * 4 + 4)]
    expect(at(12, 12)).toEqual([255, 0, 0, 128])
    // Outside the fill the stroke alone; inside it both: ½ + ½ · ½ of alpha, of which the stroke is two thirds.
    expect(at(3, 12)).toEqual([0, 0, 255, 128])
    expect(at(5, 12)).toEqual([85, 0, 170, 191])
    expect(at(0, 0)[3]).toBe(0)
  })
})
