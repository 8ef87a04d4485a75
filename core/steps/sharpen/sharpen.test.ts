import { describe, expect, it } from 'vitest'
import { sharpenReference } from './reference.ts'

const WIDTH = 48
const settings = { amount: 2, radius: 3, threshold: 0 }

/** A bright presenter, wholly even, before a clear cloth whose colour is `under`. */
function keyed(under: number) {
  const data = new Float64Array(WIDTH * 16 * 4)
  for (let i = 0; i < WIDTH * 16; i += 1) {
    const isIn = i % WIDTH >= 16 && i % WIDTH < 32
    for (let channel = 0; channel < 3; channel += 1) data[i * 4 + channel] = isIn ? 0.6 : under
    data[i * 4 + 3] = isIn ? 1 : 0
  }
  return sharpenReference({ widthPx: WIDTH, heightPx: 16, data }, settings).data
}

describe('sharpen', () => {
  it('leaves no halo of what a key has cleared, whatever colour lies there', () => {
    for (const under of [0, 0.1, 1]) {
      for (let x = 16; x < 32; x += 1) expect(keyed(under)[(8 * WIDTH + x) * 4]).toBeCloseTo(0.6, 9)
    }
  })

  it('still makes an edge between opaque things crisper', () => {
    const data = Float64Array.from({ length: WIDTH * 16 * 4 }, (_, i) => (i % 4 === 3 ? 1 : (i >> 2) % WIDTH < 24 ? 0.3 : 0.6))
    const { data: out } = sharpenReference({ widthPx: WIDTH, heightPx: 16, data }, settings)
    expect(out[(8 * WIDTH + 23) * 4]!).toBeLessThan(0.25)
    expect(out[(8 * WIDTH + 24) * 4]!).toBeGreaterThan(0.65)
  })
})
