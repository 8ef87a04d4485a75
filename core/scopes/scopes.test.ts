// Properties of the scopes; colour bars from outside are in tests/references/scopes.test.ts.
import { describe, expect, it } from 'vitest'
import type { RgbaPicture } from '../picture/picture.ts'
import { seededRandom } from '../random/seeded.ts'
import { CLIP_HIGH, CLIP_LOW, clippingOf, histogramOf, vectorscopeOf, vectorTargets, waveformOf } from './scopes.ts'

function pictureOf(widthPx: number, heightPx: number, colourAt: (x: number, y: number) => readonly number[]): RgbaPicture {
  const data = new Uint8Array(widthPx * heightPx * 4)
  for (let y = 0; y < heightPx; y += 1) for (let x = 0; x < widthPx; x += 1) data.set(colourAt(x, y), (y * widthPx + x) * 4)
  return { format: 'rgba', widthPx, heightPx, data }
}

function noise(seed: number, alpha = 255): RgbaPicture {
  const random = seededRandom(seed)
  const code = () => Math.floor(random() * 256)
  return pictureOf(40, 30, () => [code(), code(), code(), alpha])
}

const sum = (counts: Uint32Array) => counts.reduce((total, count) => total + count, 0)

describe('every scope', () => {
  it.each([1, 2, 3])('counts each opaque pixel once (seed %d)', (seed) => {
    const picture = noise(seed)
    const { red, green, blue, luma } = histogramOf(picture)
    for (const counts of [red, green, blue, luma, waveformOf(picture, 20).counts, vectorscopeOf(picture).counts]) expect(sum(counts)).toBe(1200)
  })

  it('leaves out what is mostly clear', () => {
    const clear = noise(4, 127)
    expect(sum(histogramOf(clear).luma)).toBe(0)
    expect(sum(waveformOf(clear, 10).counts)).toBe(0)
    expect(sum(vectorscopeOf(clear).counts)).toBe(0)
    expect(clippingOf(clear)).toEqual({ black: 0, white: 0 })
  })

  it('takes every second pixel of every second row when asked', () => {
    expect(sum(histogramOf(noise(5), 2).luma)).toBe(300)
  })
})

describe('histogram', () => {
  it('puts each channel at its code', () => {
    const { red, green, blue } = histogramOf(pictureOf(4, 4, () => [10, 20, 30, 255]))
    expect([red[10], green[20], blue[30]]).toEqual([16, 16, 16])
  })
})

describe('waveform', () => {
  it('shows a ramp as a diagonal, bright at the top', () => {
    const { columns, rows, counts } = waveformOf(
      pictureOf(256, 2, (x) => [x, x, x, 255]),
      256,
    )
    expect([columns, rows]).toEqual([256, 256])
    for (const code of [0, 64, 128, 255]) expect(counts[(255 - code) * 256 + code]).toBe(2)
  })
})

describe('vectorscope', () => {
  it('shows greys in the middle and nothing else there', () => {
    const { counts } = vectorscopeOf(pictureOf(16, 16, (x, y) => [x * y, x * y, x * y, 255]))
    expect(counts[(255 - 128) * 256 + 128]).toBe(256)
  })

  it('shows stronger colour farther out, at the same angle', () => {
    const placeOf = (strength: number) => {
      const { counts } = vectorscopeOf(pictureOf(1, 1, () => [128 + strength, 128 - strength, 128 - strength, 255]))
      const at = counts.findIndex((count) => count > 0)
      return { x: (at % 256) - 128, y: 127 - Math.floor(at / 256) }
    }
    const near = placeOf(30)
    const far = placeOf(90)
    expect(Math.hypot(far.x, far.y)).toBeGreaterThan(2 * Math.hypot(near.x, near.y))
    expect(Math.atan2(far.y, far.x)).toBeCloseTo(Math.atan2(near.y, near.x), 1)
  })

  it('has its targets opposite to their complements', () => {
    const targets = Object.fromEntries(vectorTargets().map((target) => [target.name, target]))
    for (const [name, other] of [
      ['red', 'cyan'],
      ['green', 'magenta'],
      ['blue', 'yellow'],
    ] as const) {
      const turn = Math.abs(targets[name]!.angleDeg - targets[other]!.angleDeg)
      expect(Math.min(turn, 360 - turn)).toBeCloseTo(180, 5)
      expect(targets[name]!.magnitude).toBeCloseTo(targets[other]!.magnitude, 5)
    }
  })
})

describe('clipping', () => {
  it('is the share at either end, one code of room given', () => {
    const picture = pictureOf(10, 1, (x) => (x < 2 ? [CLIP_LOW, 0, 1, 255] : x < 5 ? [CLIP_HIGH, 100, 100, 255] : [100, 100, 100, 255]))
    const { black, white } = clippingOf(picture)
    expect(black).toBeCloseTo(0.2, 10)
    expect(white).toBeCloseTo(0.3, 10)
  })
})

it('has no stripes where the picture is narrower than the waveform, and counts every pixel once where it is not', () => {
  for (const widthPx of [1, 7, 100, 128, 255, 256, 300]) {
    const grey = { format: 'rgba' as const, widthPx, heightPx: 2, data: new Uint8Array(widthPx * 8).fill(255).map((_, i) => (i % 4 === 3 ? 255 : 64)) }
    const { counts, columns } = waveformOf(grey, 256)
    const row = counts.subarray((255 - 64) * columns, (256 - 64) * columns)
    expect(Math.min(...row)).toBeGreaterThan(0)
    if (widthPx >= 256) expect(row.reduce((sum, count) => sum + count, 0)).toBe(widthPx * 2)
  }
})
