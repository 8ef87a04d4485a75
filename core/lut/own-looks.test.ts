import { describe, expect, it } from 'vitest'
import { luma709 } from '../colour/luma.ts'
import { seededRandom } from '../random/seeded.ts'
import { applyLut, type Lut } from './lut.ts'
import { isOwnLook, ownLook, ownLooks } from './own-looks.ts'

const seen = (lut: Lut, red: number, green: number, blue: number): [number, number, number] => {
  const pixel = Float64Array.of(red, green, blue, 1)
  applyLut(lut, pixel)
  return [pixel[0]!, pixel[1]!, pixel[2]!]
}

describe('our own looks', () => {
  it('are at least twelve, each known by name', () => {
    expect(ownLooks.length).toBeGreaterThanOrEqual(12)
    expect(new Set(ownLooks).size).toBe(ownLooks.length)
    for (const name of ownLooks) expect(isOwnLook(name)).toBe(true)
    expect(isOwnLook('a'.repeat(64))).toBe(false)
  })

  it.each(ownLooks)('"%s" stays in range, keeps dark below bright, and is not nothing', (name) => {
    const lut = ownLook(name)
    expect(lut).toMatchObject({ kind: '3d', size: 33 })
    expect(lut.data.every((value) => value >= 0 && value <= 1)).toBe(true)
    let last = -1
    for (let step = 0; step <= 32; step += 1) {
      const luma = luma709(...seen(lut, step / 32, step / 32, step / 32))
      expect(luma).toBeGreaterThanOrEqual(last - 1e-6)
      last = luma
    }
    const random = seededRandom(2)
    const changes = Array.from({ length: 50 }, () => {
      const colour = [random(), random(), random()] as const
      return Math.max(...seen(lut, ...colour).map((value, channel) => Math.abs(value - colour[channel]!)))
    })
    expect(Math.max(...changes)).toBeGreaterThan(0.01)
  })

  it('hold a black-and-white, a sepia and a two-colour one', () => {
    const random = seededRandom(7)
    for (let i = 0; i < 40; i += 1) {
      const colour = [random(), random(), random()] as const
      const [red, green, blue] = seen(ownLook('inkwell'), ...colour)
      expect(Math.max(red, green, blue) - Math.min(red, green, blue)).toBeLessThan(1e-5)
      const [warmRed, , warmBlue] = seen(ownLook('sepia'), ...colour)
      expect(warmRed).toBeGreaterThan(warmBlue)
    }
    // Two colours: dark is one hue, bright another.
    const dark = seen(ownLook('duskTwoTone'), 0.1, 0.1, 0.1)
    const bright = seen(ownLook('duskTwoTone'), 0.9, 0.9, 0.9)
    expect(dark[2]).toBeGreaterThan(dark[1])
    expect(bright[0]).toBeGreaterThan(bright[2])
  })

  it('leave skin recognisable: hue moves by less than a quarter turn, unless the look has no colours of its own', () => {
    const hue = ([red, green, blue]: readonly number[]) => Math.atan2(Math.sqrt(3) * (green! - blue!), 2 * red! - green! - blue!)
    const skin = [0.78, 0.58, 0.47] as const
    for (const name of ownLooks.filter((each) => !/inkwell|newsprint|TwoTone/.test(each))) {
      expect(Math.abs(hue(seen(ownLook(name), ...skin)) - hue(skin)), name).toBeLessThan(Math.PI / 8)
    }
  })
})
