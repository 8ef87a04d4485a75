// Strokes: their areas against geometry, their pixels against Skia (@napi-rs/canvas), the same picture again after one came and went.
import { createCanvas } from '@napi-rs/canvas'
import { describe, expect, it } from 'vitest'
import { randomStrokes } from '../../tests/support/random-drawings.ts'
import type { RgbaPicture } from '../picture/picture.ts'
import { strokeContours } from './stroke-contours.ts'
import { isStrokeNear } from './stroke-near.ts'
import { storedPoint, strokeSchema, type Stroke, type StrokeTool } from './stroke.ts'
import { strokePicture, StrokesCanvas, type DrawnPicture } from './strokes-canvas.ts'
import { drawnSize, FADE_MS, fadedOpacity, pageSurface, sceneSurface, surfaceOf } from './surface.ts'

const [WIDTH, HEIGHT] = [400, 200]
const stroke = (tool: StrokeTool, points: readonly number[], width = 0.05, id = 's'): Stroke => ({ id, tool, colour: '#102030', width, points })
const form = (tool: StrokeTool, from: readonly [number, number], to: readonly [number, number], width = 0.05) => stroke(tool, [...from, 0.5, ...to, 0.5], width)

/** How many pixels' worth a picture covers. */
const areaOf = (drawn: DrawnPicture | null) => Array.from(drawn?.picture.data ?? []).reduce((sum, code, index) => (index % 4 === 3 ? sum + code / 255 : sum), 0)
/** Alpha at a pixel of the surface. */
function alphaAt({ x, y, picture }: DrawnPicture, atX: number, atY: number): number {
  const [column, row] = [atX - x, atY - y]
  const isInside = column >= 0 && row >= 0 && column < picture.widthPx && row < picture.heightPx
  return isInside ? picture.data[(row * picture.widthPx + column) * 4 + 3]! : 0
}

describe('the forms', () => {
  // Width of the line in pixels: 0.05 × 200.
  const line = 10
  it('has a line with round ends: its length times its width and a circle', () => {
    const drawn = strokePicture(form('line', [0.1, 0.5], [0.6, 0.5]), WIDTH, HEIGHT)
    expect(areaOf(drawn)).toBeCloseTo(200 * line + Math.PI * 25, -0.5)
    expect(alphaAt(drawn!, 40, 96)).toBe(255)
    expect(alphaAt(drawn!, 40, 106)).toBe(0)
  })

  it('has a box: the area between two boxes', () => {
    expect(areaOf(strokePicture(form('rectangle', [0.25, 0.25], [0.5, 0.75]), WIDTH, HEIGHT))).toBeCloseTo(110 * 110 - 90 * 90, 0)
  })

  it('has an ellipse: the area between two ellipses, within a hundredth', () => {
    const area = areaOf(strokePicture(form('ellipse', [0.25, 0.25], [0.75, 0.75]), WIDTH, HEIGHT))
    // The band of constant width round an ellipse: its circumference (Ramanujan's second, 1914, from memory) times the width.
    const [a, b] = [100, 50]
    const h = ((a - b) / (a + b)) ** 2
    const round = Math.PI * (a + b) * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)))
    expect(Math.abs(area / (round * line) - 1)).toBeLessThan(0.01)
  })

  it('has an arrow that points at its end, and is a dot where both are one', () => {
    const drawn = strokePicture(form('arrow', [0.1, 0.5], [0.6, 0.5]), WIDTH, HEIGHT)!
    expect([alphaAt(drawn, 236, 100), alphaAt(drawn, 241, 100), alphaAt(drawn, 200, 115), alphaAt(drawn, 180, 115)]).toEqual([255, 0, expect.any(Number), 0])
    expect(alphaAt(drawn, 200, 112)).toBeGreaterThan(0)
    expect(areaOf(strokePicture(form('arrow', [0.5, 0.5], [0.5, 0.5]), WIDTH, HEIGHT))).toBeCloseTo(Math.PI * 25, -0.5)
  })

  it('lets a marker through, four times as wide as a pen', () => {
    const points = Array.from({ length: 20 }, (_, i) => [0.1 + i * 0.04, 0.5, 0.5]).flat()
    const drawn = strokePicture(stroke('marker', points), WIDTH, HEIGHT)!
    expect(alphaAt(drawn, 200, 100)).toBe(Math.round(255 * 0.4))
    expect([alphaAt(drawn, 200, 82), alphaAt(drawn, 200, 117), alphaAt(drawn, 200, 121)]).toEqual([102, 102, 0])
  })

  it('draws a pen wider where it is pressed', () => {
    const points = Array.from({ length: 60 }, (_, i) => [0.1 + i * 0.013, 0.5, i / 59]).flat()
    const drawn = strokePicture(stroke('pen', points, 0.1), WIDTH, HEIGHT)!
    const widthAt = (x: number) => Array.from({ length: HEIGHT }, (_, y) => alphaAt(drawn, x, y) / 255).reduce((sum, share) => sum + share, 0)
    expect(widthAt(300)).toBeGreaterThan(widthAt(100) * 1.4)
  })
})

describe('the pixels', () => {
  /** Alpha of the same contours filled by Skia eight times as large, without its anti-aliasing, and averaged. */
  function bySkia(strokes: readonly Stroke[], widthPx: number, heightPx: number): Float64Array {
    const times = 8
    const canvas = createCanvas(widthPx * times, heightPx * times)
    const pen = canvas.getContext('2d')
    for (const one of strokes) {
      pen.globalAlpha = one.tool === 'marker' ? 0.4 : 1
      pen.beginPath()
      for (const { points } of strokeContours(one, widthPx, heightPx)) {
        for (let i = 0; i < points.length; i += 2) pen[i === 0 ? 'moveTo' : 'lineTo'](points[i]! * times, points[i + 1]! * times)
        pen.closePath()
      }
      pen.fill('nonzero')
    }
    const large = pen.getImageData(0, 0, widthPx * times, heightPx * times).data
    const alpha = new Float64Array(widthPx * heightPx)
    for (let at = 0; at < large.length / 4; at += 1) {
      const [column, row] = [at % (widthPx * times), Math.floor(at / (widthPx * times))]
      alpha[Math.floor(row / times) * widthPx + Math.floor(column / times)]! += large[at * 4 + 3]! / times ** 2
    }
    return alpha
  }

  it.each([1, 2, 3, 4, 5, 6])('are those of Skia on a finer grid, within a sixteenth but where strokes share an edge (seed %i)', (seed) => {
    const strokes = randomStrokes(seed, 8)
    const canvas = new StrokesCanvas(WIDTH, HEIGHT)
    canvas.show(strokes)
    const whole = spread(canvas.picture()!, WIDTH, HEIGHT)
    const skia = bySkia(strokes, WIDTH, HEIGHT)
    const differ = skia.reduce((count, theirs, at) => (Math.abs(whole[at * 4 + 3]! - theirs) > 16 ? count + 1 : count), 0)
    expect(differ / skia.length).toBeLessThan(0.001)
  })

  it('are the same however they came about, to the last bit', () => {
    const strokes = randomStrokes(9, 30)
    const at = (list: readonly Stroke[]) => {
      const canvas = new StrokesCanvas(WIDTH, HEIGHT)
      canvas.show(list)
      return canvas.picture()
    }
    const canvas = new StrokesCanvas(WIDTH, HEIGHT)
    for (let count = 1; count <= 30; count += 1) canvas.show(strokes.slice(0, count))
    expect(canvas.picture()).toEqual(at(strokes))
    canvas.show(strokes.slice(0, 29))
    expect(canvas.picture()).toEqual(at(strokes.slice(0, 29)))
    canvas.show(strokes)
    expect(canvas.picture()).toEqual(at(strokes))
    const rubbed = strokes.filter((_, index) => index !== 3 && index !== 17)
    canvas.show(rubbed)
    expect(canvas.picture()).toEqual(at(rubbed))
    canvas.show([])
    expect(canvas.picture()).toBeNull()
  })

  it('are the same by themselves as on a surface, within a code of alpha', () => {
    for (const one of randomStrokes(11, 12)) {
      const canvas = new StrokesCanvas(WIDTH, HEIGHT)
      canvas.show([one])
      const [alone, among] = [strokePicture(one, WIDTH, HEIGHT), canvas.picture()]
      expect([alone?.x, alone?.y, alone?.picture.widthPx]).toEqual([among?.x, among?.y, among?.picture.widthPx])
      alone?.picture.data.forEach((code, index) => {
        if (index % 4 === 3 && Math.abs(code - among!.picture.data[index]!) > 1) throw new Error(`${code} and ${among!.picture.data[index]} at ${index}`)
      })
    }
  })

  it('have a clear edge all round, and nothing where all lies beyond the surface', () => {
    const { picture } = strokePicture(form('rectangle', [-0.5, -0.5], [0.5, 0.5]), WIDTH, HEIGHT)!
    const border = Array.from(
      { length: picture.widthPx },
      (_, x) => picture.data[x * 4 + 3]! + picture.data[((picture.heightPx - 1) * picture.widthPx + x) * 4 + 3]!,
    )
    expect(Math.max(...border)).toBe(0)
    expect(strokePicture(form('line', [1.2, 1.2], [1.9, 1.9]), WIDTH, HEIGHT)).toBeNull()
    expect(areaOf(strokePicture(form('line', [0, 0], [1, 1], 0.2), 1, 1))).toBeGreaterThan(0)
  })
})

describe('the eraser', () => {
  it('touches what it comes near, on the line and inside a marker, and not what a box goes round', () => {
    const box = form('rectangle', [0.25, 0.25], [0.75, 0.75], 0.02)
    expect(isStrokeNear(box, 0.5, 0.5, 0.01, 2)).toBe(false)
    expect(isStrokeNear(box, 0.25, 0.5, 0.001, 2)).toBe(true)
    // Shares of the height in both directions: 0.02 across is 0.01 of a surface twice as wide.
    expect(isStrokeNear(box, 0.25 - 0.01, 0.5, 0.012, 2)).toBe(true)
    expect(isStrokeNear(box, 0.25 - 0.02, 0.5, 0.012, 2)).toBe(false)
  })
})

describe('what is stored', () => {
  it.each([
    ['half a point', { points: [0.1, 0.2] }],
    ['no point', { points: [] }],
    ['a place far away', { points: [3, 0, 0.5] }],
    ['no number', { points: [Number.NaN, 0, 0.5] }],
    ['a pressure of two', { points: [0, 0, 2] }],
    ['a tool that is none', { tool: 'spray' }],
    ['no width', { width: 0 }],
    ['a colour by name', { colour: 'red' }],
    ['more points than a stroke holds', { points: Array.from({ length: 6003 }, () => 0.5) }],
  ])('refuses %s', (_, part) => {
    expect(strokeSchema.safeParse({ ...form('line', [0, 0], [1, 1]), ...part }).success).toBe(false)
  })

  it('keeps a point within its bounds, and never writes -0', () => {
    expect(storedPoint(-9, 9, 3)).toEqual([-1, 2, 1])
    expect(Object.is(storedPoint(-0.000001, 0, 0)[0], 0)).toBe(true)
    expect(storedPoint(1 / 3, 0, 0)[0]).toBe(0.33333)
  })

  it('names surfaces, and takes nothing else for one', () => {
    expect(surfaceOf(sceneSurface('a'))).toEqual({ sceneId: 'a' })
    expect(surfaceOf(pageSurface('d', 'p'))).toEqual({ inputId: 'd', pageId: 'p' })
    expect(['', 'scene:', 'page:d', 'page:d:p:x', 'scene:a:b', 'other:a'].map(surfaceOf)).toEqual([null, null, null, null, null, null])
  })

  it('draws no finer than 1,920 pixels, and at least one', () => {
    expect(drawnSize({ widthPx: 3840, heightPx: 2160 })).toEqual({ widthPx: 1920, heightPx: 1080 })
    expect(drawnSize({ widthPx: 1280, heightPx: 720 })).toEqual({ widthPx: 1280, heightPx: 720 })
    expect(drawnSize({ widthPx: 8192, heightPx: 1 })).toEqual({ widthPx: 1920, heightPx: 1 })
  })
})

it('fades from the moment on, in a straight line, and is gone at its end', () => {
  const from = 1000
  expect([999, 1000, 1000 + FADE_MS / 2, 1000 + FADE_MS - 1, 1000 + FADE_MS, 99_999].map((ms) => fadedOpacity(from, ms))).toEqual([
    1,
    1,
    0.5,
    expect.closeTo(1 / FADE_MS, 10),
    0,
    0,
  ])
  expect(fadedOpacity(null, 99_999)).toBe(1)
})

/** A part on its surface. */
function spread({ x, y, picture }: DrawnPicture, widthPx: number, heightPx: number): Uint8ClampedArray {
  const whole = new Uint8ClampedArray(widthPx * heightPx * 4)
  for (let row = 0; row < picture.heightPx; row += 1) {
    for (let column = 0; column < picture.widthPx; column += 1) copyPixel(picture, row, column, whole, x + column, y + row, widthPx, heightPx)
  }
  return whole
}

function copyPixel(
  { data, widthPx }: RgbaPicture,
  row: number,
  column: number,
  whole: Uint8ClampedArray,
  x: number,
  y: number,
  wide: number,
  high: number,
): void {
  if (x < 0 || y < 0 || x >= wide || y >= high) return
  const from = (row * widthPx + column) * 4
  whole.set(data.subarray(from, from + 4), (y * wide + x) * 4)
}
