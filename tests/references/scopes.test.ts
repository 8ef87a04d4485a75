import { describe, expect, it } from 'vitest'
import { ycbcrCoding, ycbcrToRgb } from '../../core/colour/ycbcr.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { clippingOf, histogramOf, vectorscopeOf, vectorTargets, waveformOf } from '../../core/scopes/scopes.ts'
import { casesOf, loadPicture, sourceOf } from './cases.ts'

/** Columns of one colour each. */
function columns(colours: readonly (readonly number[])[], heightPx = 8, perColour = 4): RgbaPicture {
  const widthPx = colours.length * perColour
  const data = new Uint8Array(widthPx * heightPx * 4)
  for (let i = 0; i < widthPx * heightPx; i += 1) data.set([...colours[Math.floor((i % widthPx) / perColour)]!, 255], i * 4)
  return { format: 'rgba', widthPx, heightPx, data }
}

describe(`histogram — ${sourceOf('scope.histogram')}`, () => {
  it.each(['R', 'G'])('channel %s of a test picture', async (channel) => {
    const { expected } = casesOf('scope.histogram').find(({ input }) => input.channel === channel)!
    const histogram = histogramOf(await loadPicture('testsrc2_320x180.png'))
    const counts = channel === 'R' ? histogram.red : histogram.green
    for (const [code, count] of Object.entries(expected.bins)) expect(counts[Number(code)], `code ${code}`).toBe(count)
    expect(counts.reduce((sum, count) => sum + count, 0)).toBe(expected.total)
    expect(counts.filter((count) => count > 0)).toHaveLength(expected.nonzero_bins)
  })
})

/** Bars in RGB, as their standard's case has them. */
function barsOf(amplitude: number): Readonly<Record<string, { rgb8_full: number[]; ycbcr8: number[] }>> {
  return casesOf('bars.75_100').find(({ input, params }) => input.amplitude === amplitude && params.matrix === 'BT.709')!.expected
}

describe(`waveform — ${sourceOf('bars.75_100')}`, () => {
  it('puts each bar at its luma, in its place', () => {
    const bars = barsOf(1)
    const names = Object.keys(bars)
    const waveform = waveformOf(columns(names.map((name) => bars[name]!.rgb8_full)), names.length)
    names.forEach((name, column) => {
      // The standard's code has 219 steps from 16; ours 255 from 0.
      const code = ((bars[name]!.ycbcr8[0]! - 16) / 219) * 255
      const rows = Array.from({ length: 256 }, (_, row) => row).filter((row) => waveform.counts[row * names.length + column]! > 0)
      expect(rows).toHaveLength(1)
      expect(Math.abs(255 - rows[0]! - code), name).toBeLessThanOrEqual(1.3)
    })
  })
  it(`puts the luma of ${sourceOf('scope.waveform')} in the rows where the tool draws it`, () => {
    const { expected } = casesOf('scope.waveform')[0]!
    const drawn = Object.values(expected.luma_codes_at_column as Record<string, number[]>).map(([code]) => code!)
    // The tool's bars are BT.601 and drawn in limited range; greys of the same luma are the same in any matrix.
    const greys = drawn.map((code) => Math.round(((code - 16) * 255) / 219))
    const { counts, columns: width } = waveformOf(columns(greys.map((grey) => [grey, grey, grey])), greys.length)
    const rows = greys.map((_, column) => Array.from({ length: 256 }, (_each, row) => row).filter((row) => counts[row * width + column]! > 0))
    expect(rows.map((lit) => lit.map((row) => Math.round(16 + ((255 - row) * 219) / 255)))).toEqual(drawn.map((code) => [code]))
  })
})

describe('vectorscope', () => {
  it(`lights the cell that ${sourceOf('scope.vectorscope')} lights`, () => {
    const { input, expected } = casesOf('scope.vectorscope')[0]!
    const coding = ycbcrCoding('bt709', 'limited')
    let compared = 0
    for (const [cb, cr] of input.uv as [number, number][]) {
      const rgb = new Float64Array(3)
      ycbcrToRgb(coding, 126, cb, cr, rgb)
      // Only colours that exist as RGB can be shown to us.
      if (rgb.some((value) => value < 0 || value > 1)) continue
      const { counts } = vectorscopeOf(columns([[...rgb].map((value) => Math.round(value * 255))]))
      const lit = counts.findIndex((count) => count > 0)
      const target = (expected.lit_xy as [number, number][]).find(([x]) => x === cb)!
      expect(Math.abs((lit % 256) - target[0])).toBeLessThanOrEqual(1)
      expect(Math.abs(Math.floor(lit / 256) - target[1])).toBeLessThanOrEqual(1)
      compared += 1
    }
    expect(compared).toBeGreaterThanOrEqual(2)
  })

  it(`has its targets where ${sourceOf('scope.vectorscope_targets')} puts them`, () => {
    const { expected } = casesOf('scope.vectorscope_targets').find(({ params }) => params.matrix === 'BT.709')!
    const short = { red: 'R', magenta: 'Mg', blue: 'B', cyan: 'Cy', green: 'G', yellow: 'Yl' } as const
    for (const target of vectorTargets()) {
      const { angle, mag } = expected[short[target.name]]
      expect(target.angleDeg, target.name).toBeCloseTo(angle, 2)
      expect(target.magnitude, target.name).toBeCloseTo(mag, 4)
    }
  })

  it('puts bars where the standard’s codes lie', () => {
    const bars = barsOf(1)
    const { counts } = vectorscopeOf(columns(Object.values(bars).map(({ rgb8_full }) => rgb8_full)))
    for (const [name, { ycbcr8 }] of Object.entries(bars)) {
      const near = [-1, 0, 1].some((dy) => [-1, 0, 1].some((dx) => counts[(255 - ycbcr8[2]! + dy) * 256 + ycbcr8[1]! + dx]! > 0))
      expect(near, name).toBe(true)
    }
  })
})

it('clipping counts what lies at either end, and nothing that is clear', () => {
  const picture = columns([
    [0, 0, 0],
    [255, 10, 10],
    [128, 128, 128],
    [0, 40, 0],
  ])
  expect(clippingOf(picture)).toEqual({ black: 0.25, white: 0.25 })
  const half = { ...picture, data: Uint8Array.from(picture.data, (value, i) => (i % 4 === 3 ? 0 : value)) }
  expect(clippingOf(half)).toEqual({ black: 0, white: 0 })
})
