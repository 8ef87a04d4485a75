// The pieces that mattes are made and measured with.
// One file, though long: its cases share the same small mattes.
import { describe, expect, it } from 'vitest'
import { seededRandom } from '../random/seeded.ts'
import { blankPicture, type FloatPicture, type Plane } from '../picture/float-picture.ts'
import { fieldOfPlate, fieldOfSurface, gainFor, SURFACE_NUMBERS, surfaceColour } from './backdrop.ts'
import { keyFigures } from './figures.ts'
import { boxMean, guidedFilter } from './guided-filter.ts'
import { Islands } from './islands.ts'
import { matteErrors } from '../../tests/support/matte-metrics.ts'
import { guideMask, personOpacity, steepen, smallLuma } from './person-mask.ts'
import { PullPush } from './pull-push.ts'
import { levelled } from './levels.ts'
import { matteEdgeReference } from '../steps/matte-edge/reference.ts'
import { matteEdgeParams } from '../steps/matte-edge/params.ts'
import { defaultParams } from '../steps/step.ts'
import { EdgeSolver } from './solve-edges.ts'
import { featherPlane, spreadPlane } from './spread.ts'

/** A matte drawn with letters: "#" opaque, "." clear. */
function matteOf(...rows: string[]): Plane {
  const widthPx = rows[0]!.length
  return { widthPx, heightPx: rows.length, data: Float64Array.from(rows.join(''), (letter) => (letter === '#' ? 1 : 0)) }
}

function drawn({ widthPx, data }: Plane): string[] {
  const letters = Array.from(data, (value) => (value > 0.5 ? '#' : '.')).join('')
  return letters.match(new RegExp(`.{${widthPx}}`, 'g'))!
}

describe('Islands', () => {
  const clean = (matte: Plane, specks: number, holes: number) => {
    const data = Float64Array.from(matte.data)
    new Islands(matte.widthPx, matte.heightPx).clean(data, 0, 1, 1, specks, holes)
    return drawn({ ...matte, data })
  }
  const untidy = matteOf('#.......', '..####..', '..#..#..', '..####..', '.......#')

  it('takes specks away and leaves what is as large as asked for', () => {
    expect(clean(untidy, 2, 0)).toEqual(['........', '..####..', '..#..#..', '..####..', '........'])
    expect(clean(untidy, 1, 0)).toEqual(drawn(untidy))
    expect(clean(untidy, 11, 0).join('')).not.toContain('#')
  })

  it('fills holes, but never what is open to the border', () => {
    expect(clean(untidy, 0, 3)).toEqual(['#.......', '..####..', '..####..', '..####..', '.......#'])
    expect(clean(untidy, 0, 1000)).toEqual(['#.......', '..####..', '..####..', '..####..', '.......#'])
  })

  it('takes diagonal neighbours for strangers', () => {
    expect(clean(matteOf('#...', '.#..', '..#.', '...#'), 2, 0).join('')).not.toContain('#')
  })

  it('joins arms that meet late, whatever their shape', () => {
    const comb = matteOf('#.#.#.#', '#.#.#.#', '#######')
    expect(clean(comb, 14, 0)).toEqual(drawn(comb))
    expect(clean(comb, 16, 0).join('')).not.toContain('#')
  })

  it.each([1, 2, 3])('changes nothing for sizes of one, and the same twice, on noise (seed %d)', (seed) => {
    const random = seededRandom(seed)
    const noise: Plane = { widthPx: 40, heightPx: 30, data: Float64Array.from({ length: 1200 }, () => (random() < 0.5 ? 1 : 0)) }
    expect(clean(noise, 1, 1)).toEqual(drawn(noise))
    const once = clean(noise, 6, 0)
    expect(clean(matteOf(...once), 6, 0)).toEqual(once)
  })

  it('reads every fourth byte of packed pixels', () => {
    const bytes = new Uint8Array(5 * 3 * 4)
    bytes[7 * 4 + 3] = 255
    new Islands(5, 3).clean(bytes, 3, 4, 255, 2, 0)
    expect(bytes.every((value) => value === 0)).toBe(true)
  })
})

describe('PullPush', () => {
  it('keeps well-known cells and gives all others something between', () => {
    const spread = new PullPush(16, 8)
    spread.sums.data.set([8 * 0.2, 8 * 0.4, 8 * 0.6, 8], (2 * 16 + 3) * 4)
    spread.sums.data.set([8 * 0.8, 8 * 0.1, 8 * 0.3, 8], (6 * 16 + 13) * 4)
    const colours = spread.run()!
    const at = (x: number, y: number) => [...colours.subarray((y * 16 + x) * 3, (y * 16 + x) * 3 + 3)]
    at(3, 2).forEach((value, i) => expect(value).toBeCloseTo([0.2, 0.4, 0.6][i]!, 5))
    at(13, 6).forEach((value, i) => expect(value).toBeCloseTo([0.8, 0.1, 0.3][i]!, 5))
    for (let cell = 0; cell < 128; cell += 1) {
      const red = colours[cell * 3]!
      expect(red).toBeGreaterThanOrEqual(0.2 - 1e-6)
      expect(red).toBeLessThanOrEqual(0.8 + 1e-6)
    }
    expect(at(4, 2)[0]!).toBeLessThan(at(12, 6)[0]!)
  })

  it('trusts a cell with few samples only so far', () => {
    const spread = new PullPush(8, 8)
    for (let cell = 0; cell < 64; cell += 1) spread.sums.data.set([6 * 0.5, 0, 0, 6], cell * 4)
    spread.sums.data.set([1, 0, 0, 1], 27 * 4)
    const colours = spread.run()!
    expect(colours[27 * 3]!).toBeGreaterThan(0.5)
    expect(colours[27 * 3]!).toBeLessThan(0.7)
  })

  it('says that nothing is known; odd sizes and single cells work', () => {
    expect(new PullPush(7, 5).run()).toBeNull()
    const one = new PullPush(1, 1)
    one.sums.data.set([3, 6, 9, 3])
    expect([...one.run()!]).toEqual([1, 2, 3])
  })
})

describe('growing, choking and softening', () => {
  const dot = matteOf('.......', '.......', '...#...', '.......', '.......')

  it('grows by a square and chokes back to where it was', () => {
    const grown = spreadPlane(dot, 1)
    expect(drawn(grown)).toEqual(['.......', '..###..', '..###..', '..###..', '.......'])
    expect([...spreadPlane(grown, -1).data]).toEqual([...dot.data])
  })

  it('mixes between whole sizes', () => {
    const grown = spreadPlane(dot, 0.25)
    expect(grown.data[2 * 7 + 3]).toBe(1)
    expect(grown.data[2 * 7 + 4]).toBeCloseTo(0.25, 10)
    expect(grown.data[2 * 7 + 5]).toBe(0)
  })

  it('keeps the sum when softening away from the border', () => {
    const large: Plane = { widthPx: 41, heightPx: 41, data: new Float64Array(41 * 41) }
    ;(large.data as Float64Array)[20 * 41 + 20] = 1
    const soft = featherPlane(large, 3)
    expect([...soft.data].reduce((sum, value) => sum + value, 0)).toBeCloseTo(1, 10)
    expect(soft.data[20 * 41 + 20]).toBeLessThan(0.02)
    expect(featherPlane(large, 0)).toBe(large)
  })
})

describe('the guided filter', () => {
  it('leaves an even input as it is, whatever the guide', () => {
    const random = seededRandom(4)
    const guide = Float32Array.from({ length: 20 * 12 }, () => random())
    const { gain, offset } = guidedFilter(guide, new Float32Array(240).fill(0.7), 20, 12, 3, 0.01)
    gain.forEach((value) => expect(value).toBeCloseTo(0, 5))
    offset.forEach((value) => expect(value).toBeCloseTo(0.7, 5))
  })

  it('follows the guide where the input is the guide', () => {
    const guide = Float32Array.from({ length: 32 * 32 }, (_, i) => (i % 32 < 16 ? 0.1 : 0.9))
    const { gain, offset } = guidedFilter(guide, guide, 32, 32, 3, 1e-4)
    for (const x of [14, 15, 16, 17]) {
      const i = 16 * 32 + x
      expect(gain[i]! * guide[i]! + offset[i]!).toBeCloseTo(guide[i]!, 2)
    }
  })

  it('takes means of what lies inside only', () => {
    const values = Float32Array.from({ length: 5 * 4 }, (_, i) => i % 5)
    boxMean(values, new Float32Array(20), 5, 4, 1)
    expect([...values.subarray(0, 5)].map((value) => Number(value.toFixed(4)))).toEqual([0.5, 1, 2, 3, 3.5])
  })

  it('sharpens a soft mask along the edge of the picture', () => {
    const widthPx = 64
    const picture: FloatPicture = blankPicture(widthPx, 64)
    for (let i = 0; i < widthPx * 64; i += 1) picture.data.fill(i % widthPx < 32 ? 0.2 : 0.8, i * 4, i * 4 + 3)
    const blurred = Float32Array.from({ length: widthPx * 64 }, (_, i) => Math.min(1, Math.max(0, ((i % widthPx) - 26) / 12)))
    const opacity = personOpacity(guideMask({ widthPx, heightPx: 64, data: blurred }, picture.data, 1, widthPx, 64), picture).data
    expect(opacity[32 * widthPx + 29]!).toBeLessThan(0.1)
    expect(opacity[32 * widthPx + 34]!).toBeGreaterThan(0.9)
  })

  it('steepens with whole ends and the middle in the middle', () => {
    expect([steepen(-1), steepen(0.2), steepen(0.8), steepen(2)]).toEqual([0, 0, 1, 1])
    expect(steepen(0.5)).toBeCloseTo(0.5, 10)
  })
})

describe('luma under a mask', () => {
  it.each([
    [512, 288],
    [511, 287],
    [300, 200],
    [256, 144],
    [160, 120],
    [17, 3],
    [1, 1],
  ])('of a picture of %i × %i is that of its pixels, never black for want of any', (widthPx, heightPx) => {
    const grey = Uint8Array.from({ length: widthPx * heightPx * 4 }, (_, i) => (i % 4 === 3 ? 255 : 128))
    const lumas = [...smallLuma(grey, 255, widthPx, heightPx, 256, 144)]
    expect(lumas).toHaveLength(256 * 144)
    expect(Math.max(...lumas.map((luma) => Math.abs(luma - 128 / 255)))).toBeLessThan(1e-5)
  })

  it('looks at every pixel where there are few', () => {
    // Columns of black and white in turn: every second one alone would be black.
    const stripes = Uint8Array.from({ length: 500 * 200 * 4 }, (_, i) => ((i >> 2) % 2 === 0 ? 0 : 255))
    const luma = smallLuma(stripes, 255, 500, 200, 25, 200)
    expect(Math.max(...luma.map((value) => Math.abs(value - 0.5)))).toBeLessThan(0.06)
  })

  it('follows a picture smaller than the mask', () => {
    const halves = Uint8Array.from({ length: 64 * 36 * 4 }, (_, i) => ((i >> 2) % 64 < 32 ? 0 : 255))
    const luma = smallLuma(halves, 255, 64, 36, 256, 144)
    expect([luma[0], luma[127], luma[128], luma[255]]).toEqual([0, 0, 1, 1])
  })
})

describe('EdgeSolver', () => {
  /** Skin before cloth, mixed over a ramp of true opacity in the middle; the key got the ramp wrong by a power. */
  function scene() {
    const skin = [0.8, 0.6, 0.5]
    const cloth = [0.1, 0.7, 0.3]
    const truth = Float64Array.from({ length: 96 * 64 }, (_, i) => Math.min(1, Math.max(0, ((i % 96) - 40) / 16)))
    const data = new Float64Array(96 * 64 * 4)
    truth.forEach((alpha, i) => {
      for (let channel = 0; channel < 3; channel += 1) data[i * 4 + channel] = skin[channel]! * alpha + cloth[channel]! * (1 - alpha)
      data[i * 4 + 3] = alpha ** 2
    })
    return { skin, truth, data }
  }

  it('finds the true opacity and the presenter’s own colour in the soft edge', () => {
    const { skin, truth, data } = scene()
    new EdgeSolver(96, 64).solve(data, { black: 0, white: 1, amount: 1 })
    for (const x of [44, 48, 52]) {
      const i = 32 * 96 + x
      expect(data[i * 4 + 3]).toBeCloseTo(truth[i]!, 2)
      for (let channel = 0; channel < 3; channel += 1) expect(data[i * 4 + channel]).toBeCloseTo(skin[channel]!, 1)
    }
    expect(data[(32 * 96 + 80) * 4 + 3]).toBe(1)
    expect(data[(32 * 96 + 5) * 4 + 3]).toBe(0)
  })

  it('keeps the key’s own opacity for an amount of nothing, and does nothing without a backdrop', () => {
    const { data } = scene()
    const alphas = data.filter((_, i) => i % 4 === 3)
    new EdgeSolver(96, 64).solve(data, { black: 0, white: 1, amount: 0 })
    const differences = [...data.filter((_, i) => i % 4 === 3)].map((alpha, i) => Math.abs(alpha - alphas[i]!))
    expect(Math.max(...differences)).toBeLessThan(1e-10)
    const opaque = new Float64Array(96 * 64 * 4).fill(0.5).map((value, i) => (i % 4 === 3 ? 1 : value))
    const before = opaque.slice()
    new EdgeSolver(96, 64).solve(opaque, { black: 0, white: 1, amount: 1 })
    expect(opaque).toEqual(before)
  })
})

describe('the matte’s levels', () => {
  const treat = (data: Float64Array, widthPx: number, params: Record<string, number>) =>
    matteEdgeReference({ widthPx, heightPx: data.length / 4 / widthPx, data }, { ...defaultParams(matteEdgeParams), ...params }).data.filter(
      (_, i) => i % 4 === 3,
    )
  /** The presenter has left: the key leaves a veil on the cloth. */
  const veiled = () => Float64Array.from({ length: 64 * 32 * 4 }, (_, i) => (i % 4 === 3 ? 0.015 + 0.05 * ((i >> 2) % 2) : 0.5))

  it('apply when nobody is in the picture, at any detail', () => {
    for (const detail of [0, 0.01, 0.5, 1]) expect(Math.max(...treat(veiled(), 64, { black: 0.1, white: 0.9, detail }))).toBe(0)
  })

  it('apply in full at a detail of next to nothing', () => {
    const ramp = () => Float64Array.from({ length: 96 * 8 * 4 }, (_, i) => (i % 4 === 3 ? Math.min(1, Math.max(0, (((i >> 2) % 96) - 32) / 32)) : (i % 4) / 4))
    const without = treat(ramp(), 96, { black: 0.2, white: 0.8, detail: 0 })
    const little = treat(ramp(), 96, { black: 0.2, white: 0.8, detail: 0.01 })
    expect(Math.max(...[...little].map((alpha, i) => Math.abs(alpha - without[i]!)))).toBeLessThan(0.04)
  })

  it('may be equal: what is above is opaque', () => {
    expect([0.49, 0.5, 0.51].map((alpha) => levelled(alpha, 0.5, 0.5))).toEqual([0, 0, 1])
    for (const detail of [0, 0.5, 1]) {
      const alphas = treat(veiled(), 64, { black: 0.5, white: 0.5, detail })
      expect(alphas.every((alpha) => alpha === 0 || alpha === 1)).toBe(true)
    }
  })
})

describe('specks and holes together', () => {
  it('are judged one after the other: a speck goes with the hole in it, a hole with the speck in it', () => {
    const widthPx = 24
    const alpha = new Float64Array(widthPx * widthPx)
    const box = (left: number, top: number, size: number, value: number) => {
      for (let y = top; y < top + size; y += 1) for (let x = left; x < left + size; x += 1) alpha[y * widthPx + x] = value
    }
    // A ring of 4 × 4 with a hole of 2 × 2, then a solid of 12 × 12 with a hole of 5 × 5 and a dot in it.
    box(1, 1, 4, 1)
    box(2, 2, 2, 0)
    box(9, 9, 12, 1)
    box(12, 12, 5, 0)
    box(14, 14, 1, 1)
    new Islands(widthPx, widthPx).clean(alpha, 0, 1, 1, 20, 30)
    for (let y = 0; y < widthPx; y += 1) {
      for (let x = 0; x < widthPx; x += 1) expect(alpha[y * widthPx + x]).toBe(x >= 9 && x < 21 && y >= 9 && y < 21 ? 1 : 0)
    }
  })
})

describe('light on the cloth', () => {
  it('asks for the gain that brings a shade back, within bounds', () => {
    expect(gainFor([0.2, 0.7, 0.3], 0.1, 0.35, 0.15)).toBeCloseTo(2, 10)
    expect(gainFor([0.2, 0.7, 0.3], 0.02, 0.07, 0.03)).toBe(3)
    expect(gainFor([0.2, 0.7, 0.3], 0, 0, 0)).toBe(1)
    expect(gainFor([0.1, 0.1, 0.1], 1, 1, 1)).toBe(0.4)
  })

  it('keeps a surface within what was seen', () => {
    const surface = new Array<number>(SURFACE_NUMBERS).fill(0)
    surface.splice(0, 2, 0.5, 0.4)
    surface.splice(18, 1, 0.3)
    surface.splice(21, 1, 0.7)
    const out = [0, 0, 0]
    surfaceColour(surface, 0.25, 0, out)
    expect(out[0]).toBeCloseTo(0.6, 10)
    surfaceColour(surface, 1, 0, out)
    expect(out[0]).toBe(0.7)
    surfaceColour(surface, -1, 0, out)
    expect(out[0]).toBe(0.3)
  })

  it('gives a plate half as bright at one side twice the gain there, at any size of plate', () => {
    const key = [0.2, 0.7, 0.3] as const
    for (const [widthPx, heightPx] of [
      [64, 36],
      [33, 20],
    ] as const) {
      const data = new Uint8Array(widthPx * heightPx * 4)
      for (let i = 0; i < widthPx * heightPx; i += 1) {
        const light = (i % widthPx) * 2 < widthPx ? 1 : 0.5
        data.set([key[0] * 255 * light, key[1] * 255 * light, key[2] * 255 * light, 255], i * 4)
      }
      const field = fieldOfPlate({ format: 'rgba', widthPx, heightPx, data }, key, 64, 36)
      expect([field.columns, field.rows]).toEqual([8, 5])
      expect(field.gains[0]!).toBeCloseTo(1, 1)
      expect(field.gains[7]!).toBeCloseTo(2, 1)
    }
  })

  it('makes one gain of an even surface', () => {
    const surface = [0.1, 0.35, 0.15].flatMap((value) => [value, 0, 0, 0, 0, 0])
    const { gains } = fieldOfSurface([...surface, 0, 0, 0, 1, 1, 1], [0.2, 0.7, 0.3], 160, 90)
    gains.forEach((gain) => expect(gain).toBeCloseTo(2, 5))
  })
})

describe('figures', () => {
  /** A square presenter on a cleared cloth; alpha and colour of inside, edge and outside may be spoilt. */
  function keyed({ inside = 255, outside = 0, edge = [180, 140, 120] as readonly number[] }) {
    const data = new Uint8Array(160 * 90 * 4)
    for (let i = 0; i < 160 * 90; i += 1) {
      const far = Math.max(Math.abs((i % 160) - 80) - 40, Math.abs(Math.floor(i / 160) - 45) - 25)
      const isEdge = far === 0
      data.set(isEdge ? [...edge, 128] : [180, 140, 120, far < 0 ? inside : outside], i * 4)
    }
    return keyFigures({ format: 'rgba', widthPx: 160, heightPx: 90, data }, [43 / 255, 181 / 255, 82 / 255])
  }

  it('are nothing for a perfect key', () => {
    expect(keyed({})).toMatchObject({ fringe: 0, seeThrough: 0, veil: 0 })
  })

  it('tell a thin presenter, a veil over the cloth and a green edge apart', () => {
    expect(keyed({ inside: 240 })).toMatchObject({ seeThrough: 1, veil: 0, fringe: 0 })
    expect(keyed({ outside: 20 })).toMatchObject({ seeThrough: 0, veil: 1, fringe: 0 })
    expect(keyed({ edge: [120, 200, 110] }).fringe).toBeGreaterThan(5)
  })

  it('measure a matte against the truth as they are defined', () => {
    const truth = { widthPx: 4, heightPx: 2, data: Uint8Array.of(0, 0, 255, 255, 0, 0, 255, 255) }
    const off = { ...truth, data: Uint8Array.of(51, 0, 255, 255, 0, 0, 255, 204) }
    expect(matteErrors(truth, truth)).toEqual({ sad: 0, mse: 0, gradient: 0 })
    const errors = matteErrors(off, truth)
    expect(errors.sad).toBeCloseTo(0.4, 10)
    expect(errors.mse).toBeCloseTo((0.04 + 0.04) / 8, 10)
    expect(errors.gradient).toBeGreaterThan(0)
    expect(() => matteErrors({ ...truth, widthPx: 2, heightPx: 4 }, truth)).toThrow(/one size, got 2×4 and 4×2/)
  })
})
