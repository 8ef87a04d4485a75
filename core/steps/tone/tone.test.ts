import { describe, expect, it } from 'vitest'
import { seededRandom } from '../../random/seeded.ts'
import { defaultParams, type NumberParam, type ParamsOf } from '../step.ts'
import { prepareTone } from './reference.ts'
import { toneParams } from './params.ts'

type Tone = ParamsOf<typeof toneParams>

/** What a tone makes of greys 0..255. */
function curveOf(params: Partial<Tone>): number[] {
  const apply = prepareTone({ ...defaultParams(toneParams), ...params })
  return Array.from({ length: 256 }, (_, code) => {
    const pixel = Float64Array.of(code / 255, code / 255, code / 255, 1)
    apply?.(pixel)
    return pixel[0]! * 255
  })
}

const firstDrop = (curve: readonly number[]) => curve.findIndex((value, code) => code > 0 && value < curve[code - 1]! - 1e-9)

describe('tone', () => {
  it('follows the formula of shadows and highlights: Y + s·Y(1−Y)³ + h·Y³(1−Y)', () => {
    for (const [shadows, highlights] of [
      [1, 0],
      [0, 1],
      [1, -1],
      [-1, 1],
      [0.3, -0.7],
    ] as const) {
      const curve = curveOf({ shadows, highlights })
      for (const code of [0, 1, 64, 128, 191, 254, 255]) {
        const y = code / 255
        expect(curve[code]).toBeCloseTo((y + shadows * y * (1 - y) ** 3 + highlights * y ** 3 * (1 - y)) * 255, 9)
      }
    }
  })

  it('never turns the order of greys round, whatever its values together (seed 12)', () => {
    const random = seededRandom(12)
    const names = Object.keys(toneParams) as (keyof Tone)[]
    // The ends of every range together, then anything between.
    for (let corner = 0; corner < 2 ** names.length; corner += 1) {
      const values = Object.fromEntries(names.map((name, i) => [name, (corner >> i) % 2 === 0 ? toneParams[name].min : toneParams[name].max]))
      expect({ ...values, drop: firstDrop(curveOf(values)) }).toEqual({ ...values, drop: -1 })
    }
    for (let round = 0; round < 400; round += 1) {
      const values = Object.fromEntries(
        names.map((name) => {
          const { min, max } = toneParams[name] as NumberParam
          return [name, min + random() * (max - min)]
        }),
      )
      expect({ ...values, drop: firstDrop(curveOf(values)) }).toEqual({ ...values, drop: -1 })
    }
  })
})
