import { describe, expect, it } from 'vitest'
import type { RgbaPicture } from '../picture/picture.ts'
import { seededRandom } from '../random/seeded.ts'
import { toRgba8 } from '../render/render-reference.ts'
import { treatReference } from '../render/treat-reference.ts'
import { randomCall } from '../../tests/support/random-steps.ts'
import { makesMatte, plainContext, prepareChain } from './chain.ts'
import { steps, stepOf, type StepCall, type StepKind, type StepParams } from './index.ts'
import { defaultParams, type ParamSpec, type ParamSpecs } from './step.ts'

/** Values that change nothing, by kind, beside the defaults; a key is given a backdrop that can't be keyed. */
const identities: Readonly<Record<StepKind, Record<string, number | string>>> = {
  framing: {},
  crop: {},
  denoise: { time: 0, space: 0 },
  balance: {},
  tone: {},
  colour: {},
  chromaKey: { colour: '#808080' },
  colourKey: { colour: '#ff00ff', tight: 0, wide: 0 },
  lumaKey: { from: 0, to: 0 },
  matteEdge: {},
  spill: { amount: 0 },
  room: { effect: 'asIs' },
  look: { amount: 0 },
  sharpen: { amount: 0 },
}

/** The colour functions and rectangle of a chain without spatial work. */
const onlyRun = (calls: readonly StepCall[], widthPx = 64, heightPx = 48) => {
  const { runs } = prepareChain(calls, plainContext(widthPx, heightPx))
  expect(runs).toHaveLength(1)
  return runs[0]!
}

function randomPicture(seed: number): RgbaPicture {
  const random = seededRandom(seed)
  return { format: 'rgba', widthPx: 32, heightPx: 24, data: Uint8Array.from({ length: 32 * 24 * 4 }, () => Math.floor(random() * 256)) }
}

describe.each(steps.map((step) => [step.kind, step] as const))('%s', (kind, step) => {
  const specs = Object.entries(step.params as Readonly<Record<string, ParamSpec>>)

  it('has defaults within their bounds', () => {
    for (const [name, spec] of specs) {
      if (spec.type === 'colour') expect(spec.default, name).toMatch(/^#[0-9a-f]{6}$/)
      else if (spec.type === 'number') expect(spec.default >= spec.min && spec.default <= spec.max, name).toBe(true)
      else if (spec.type === 'choice') expect(spec.options, name).toContain(spec.default)
    }
  })

  it('changes nothing with identity values', () => {
    const call = { kind, params: { ...defaultParams(step.params as ParamSpecs), ...identities[kind] } } as unknown as StepCall
    // No random picture of this size holds the one colour that is keyed.
    const picture = randomPicture(3)
    const changes = [...treatReference(picture, [call]).data].map((value, i) => Math.abs(value - picture.data[i]! / 255))
    expect(changes).toHaveLength(picture.data.length)
    expect(Math.max(...changes)).toBeLessThan(1e-12)
  })

  it('stays within 0..1 for any picture and any values (seed 41)', () => {
    const random = seededRandom(41)
    const picture = randomPicture(41)
    for (let round = 0; round < 12; round += 1) {
      const call = randomCall(step, random)
      expect(
        treatReference(picture, [call]).data.every((value) => value >= -1e-9 && value <= 1 + 1e-9),
        JSON.stringify(call),
      ).toBe(true)
    }
  })
})

describe('crop', () => {
  it('takes the edges off in percent and rounds to whole pixels', () => {
    const call = { kind: 'crop', params: { left: 12.5, top: 0, right: 10, bottom: 25, feather: 0 } } as const
    expect(onlyRun([call], 1280, 720).keep).toEqual({ left: 160, top: 0, right: 1152, bottom: 540 })
  })

  it('leaves nothing when edges meet, and never a turned-over rectangle', () => {
    const call = { kind: 'crop', params: { left: 80, top: 60, right: 80, bottom: 60, feather: 0 } } as const
    const { keep } = onlyRun([call], 100, 100)
    expect(keep.right - keep.left).toBe(0)
    expect(keep.bottom - keep.top).toBe(0)
  })

  it('keeps what two crops both keep', () => {
    const first = { kind: 'crop', params: { left: 10, top: 0, right: 0, bottom: 0, feather: 0 } } as const
    const second = { kind: 'crop', params: { left: 0, top: 20, right: 0, bottom: 0, feather: 0 } } as const
    expect(onlyRun([first, second], 100, 100).keep).toEqual({ left: 10, top: 20, right: 100, bottom: 100 })
  })
})

describe('tone', () => {
  const toneOf = (part: Partial<StepParams<'tone'>>) => {
    const { points } = onlyRun([{ kind: 'tone', params: { ...defaultParams(stepOf('tone').params), ...part } }])
    return (value: number) => {
      const pixel = Float64Array.of(value, value, value, 1)
      for (const point of points) point(pixel)
      return pixel[0]!
    }
  }

  const curves: Partial<StepParams<'tone'>>[] = [
    { exposure: 1.5 },
    { exposure: -2 },
    { contrast: 1.7 },
    { gamma: 2.2 },
    { gamma: 0.5 },
    { shadows: 1 },
    { shadows: -1 },
    { highlights: 1 },
    { highlights: -1 },
    { lift: 0.1 },
  ]
  it.each(curves)('rises with the input: %j', (part) => {
    const tone = toneOf(part)
    let last = -1
    for (let i = 0; i <= 255; i += 1) {
      const value = tone(i / 255)
      expect(value).toBeGreaterThanOrEqual(last)
      last = value
    }
  })

  it('holds black, white and the pivot where they belong', () => {
    expect(toneOf({ gamma: 1.8 })(0)).toBe(0)
    expect(toneOf({ gamma: 1.8 })(1)).toBe(1)
    expect(toneOf({ contrast: 1.8 })(0.5)).toBe(0.5)
    expect(toneOf({ exposure: -1 })(0)).toBe(0)
  })

  it('keeps black and white where shadows and highlights are moved, and helps each end alone', () => {
    for (const part of [{ shadows: 1 }, { highlights: -1 }]) {
      expect(toneOf(part)(0)).toBe(0)
      expect(toneOf(part)(1)).toBe(1)
    }
    expect(toneOf({ shadows: 1 })(0.2) - 0.2).toBeGreaterThan(3 * Math.abs(toneOf({ shadows: 1 })(0.8) - 0.8))
    expect(toneOf({ contrast: 1.5, pivot: 0.3 })(0.3)).toBeCloseTo(0.3, 12)
    expect(toneOf({ lift: 0.1 })(0)).toBeCloseTo(0.1, 12)
    expect(toneOf({ lift: 0.1 })(1)).toBe(1)
  })
})

describe('colour', () => {
  it('turns grey with no saturation, at the same luma', () => {
    const { points } = onlyRun([{ kind: 'colour', params: { saturation: 0, hue: 0 } }])
    const pixel = Float64Array.of(0.8, 0.4, 0.1, 1)
    for (const point of points) point(pixel)
    expect(pixel[0]).toBeCloseTo(0.2126 * 0.8 + 0.7152 * 0.4 + 0.0722 * 0.1, 12)
    expect(pixel[1]).toBeCloseTo(pixel[0]!, 12)
  })
})

describe('balance', () => {
  const balanced = (params: { temperature: number; tint: number }, rgb: readonly number[]) => {
    const pixel = Float64Array.of(rgb[0]!, rgb[1]!, rgb[2]!, 1)
    for (const point of onlyRun([{ kind: 'balance', params }]).points) point(pixel)
    return pixel
  }
  const grey = [0.5, 0.5, 0.5]

  it('grows warmer with the temperature and more magenta with the tint', () => {
    const warm = balanced({ temperature: 9000, tint: 0 }, grey)
    expect(warm[0]! - warm[2]!).toBeGreaterThan(0.05)
    const cool = balanced({ temperature: 4000, tint: 0 }, grey)
    expect(cool[2]! - cool[0]!).toBeGreaterThan(0.05)
    const magenta = balanced({ temperature: 6500, tint: 40 }, grey)
    expect(magenta[1]).toBeLessThan(Math.min(magenta[0]!, magenta[2]!))
  })

  it('keeps black black and nothing but small numbers for colours outside the gamut', () => {
    expect([...balanced({ temperature: 3000, tint: 50 }, [0, 0, 0])]).toEqual([0, 0, 0, 1])
    for (const value of balanced({ temperature: 2000, tint: -100 }, [1, 1, 1])) expect(value >= 0 && value <= 1).toBe(true)
  })

  // A round trip needs no source: what one light does, the click must undo.
  it.each([
    [3000, 0],
    [4500, -20],
    [5600, 15],
    [9000, 5],
  ])('finds the light from a grey seen under %d K, tint %d', (temperature, tint) => {
    const params = { temperature, tint }
    // The grey as that light shows it: what balancing turns into grey again.
    let seen = [0.4, 0.4, 0.4]
    for (let round = 0; round < 60; round += 1) {
      const now = balanced(params, seen)
      seen = seen.map((value, channel) => Math.min(1, Math.max(0.01, value + (0.4 - now[channel]!) * 0.5)))
    }
    const found = stepOf('balance').pick!([seen[0]!, seen[1]!, seen[2]!])!
    const result = balanced(found as typeof params, seen)
    expect(Math.max(...result.subarray(0, 3)) - Math.min(...result.subarray(0, 3))).toBeLessThan(0.006)
    expect(Math.abs(Number(found['temperature']) - temperature)).toBeLessThanOrEqual(temperature * 0.02)
    expect(Math.abs(Number(found['tint']) - tint)).toBeLessThanOrEqual(2)
  })

  it('refuses what can be no grey', () => {
    expect(stepOf('balance').pick!([0.02, 0.02, 0.02])).toBeNull()
    expect(stepOf('balance').pick!([0.1, 0.8, 0.2])).toBeNull()
  })
})

describe('chroma key', () => {
  const keyed = (rgb: readonly number[], part: Partial<{ colour: string; tolerance: number; softness: number; spill: number }> = {}) => {
    const params = { ...defaultParams(stepOf('chromaKey').params), colour: '#20b050', ...part }
    const { points } = onlyRun([{ kind: 'chromaKey', params }])
    const pixel = Float64Array.of(rgb[0]!, rgb[1]!, rgb[2]!, 1)
    for (const point of points) point(pixel)
    return pixel
  }
  const cloth = [0x20 / 255, 0xb0 / 255, 0x50 / 255]
  const skin = [0.81, 0.55, 0.4]

  it('clears the backdrop and keeps skin, hair, a yellow jumper and white', () => {
    expect(keyed(cloth)[3]).toBe(0)
    for (const kept of [skin, [0.2, 0.14, 0.11], [0.82, 0.58, 0.17], [1, 1, 1]]) expect([...keyed(kept)]).toEqual([...kept, 1])
  })

  it('keeps the face opaque when the tolerance is raised', () => {
    for (let tolerance = 0; tolerance <= 0.9; tolerance += 0.1) expect(keyed(skin, { tolerance })[3]).toBe(1)
  })

  it('grows clearer the nearer a mixture is to the backdrop', () => {
    let last = 2
    for (let share = 0; share <= 1; share += 0.05) {
      const mixed = skin.map((value, channel) => value * (1 - share) + cloth[channel]! * share)
      const alpha = keyed(mixed)[3]!
      expect(alpha).toBeLessThanOrEqual(last)
      last = alpha
    }
    expect(last).toBe(0)
  })

  it('works for a blue cloth with the same values', () => {
    expect(keyed([0.1, 0.3, 0.75], { colour: '#1a4dbf' })[3]).toBe(0)
    expect(keyed(skin, { colour: '#1a4dbf' })[3]).toBe(1)
  })

  it('takes the green off without changing luma, and leaves it with spill at 0', () => {
    const tinted = [0.5, 0.58, 0.45]
    const luma = ([red, green, blue]: ArrayLike<number> & Iterable<number>) => 0.2126 * red! + 0.7152 * green! + 0.0722 * blue!
    const clean = keyed(tinted, { softness: 0.3, tolerance: 0.1 })
    expect(clean[3]).toBe(1)
    expect(clean[1]! - Math.max(clean[0]!, clean[2]!)).toBeLessThan(tinted[1]! - tinted[0]!)
    expect(luma(clean)).toBeCloseTo(luma(Float64Array.from(tinted)), 9)
    expect([...keyed(tinted, { softness: 0.3, tolerance: 0.1, spill: 0 }).subarray(0, 3)]).toEqual(tinted)
  })
})

it('knows which chains make a picture see-through', () => {
  expect(makesMatte([{ kind: 'tone', params: defaultParams(stepOf('tone').params) }])).toBe(false)
  expect(makesMatte([{ kind: 'chromaKey', params: defaultParams(stepOf('chromaKey').params) }])).toBe(true)
})

describe('which steps may make an opaque picture see-through', () => {
  const makes = (kind: StepKind, params: Record<string, number | string> = {}) => {
    const call = { kind, params: { ...defaultParams(stepOf(kind).params as ParamSpecs), ...params } } as unknown as StepCall
    return makesMatte([call])
  }

  it('an untouched crop, a key on grey and a softened edge do not', () => {
    expect([makes('crop'), makes('crop', { feather: 20 }), makes('chromaKey', { colour: '#7a7c7b' }), makes('matteEdge', { feather: 5, choke: -3 })]).toEqual([
      false,
      false,
      false,
      false,
    ])
    expect([makes('crop', { right: 0.5 }), makes('chromaKey'), makes('room', { effect: 'hidden' }), makes('matteEdge', { specks: 100 })]).toEqual([
      true,
      true,
      true,
      true,
    ])
  })

  it('is never denied of one that does (seed 8)', () => {
    const random = seededRandom(8)
    const picture = { ...randomPicture(8), data: randomPicture(8).data.map((value, i) => (i % 4 === 3 ? 255 : value)) }
    let opaque = 0
    for (let round = 0; round < 300; round += 1) {
      const call = randomCall(steps[round % steps.length]!, random)
      if (makesMatte([call])) continue
      opaque += 1
      const least = treatReference(picture, [call]).data.reduce((low, value, i) => (i % 4 === 3 ? Math.min(low, value) : low), 1)
      expect({ call, least: Math.round(least * 1e9) / 1e9 }).toEqual({ call, least: 1 })
    }
    expect(opaque).toBeGreaterThan(100)
  })
})

it('eight-bit pictures end at 0 and 255 where values go beyond', () => {
  const data = Float64Array.of(1.2, -0.1, 0.5, 1, 1.004, 2, NaN, 1.5)
  expect([...toRgba8({ widthPx: 2, heightPx: 1, data }).data]).toEqual([255, 0, 128, 255, 255, 255, 0, 255])
})
