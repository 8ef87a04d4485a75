import { describe, expect, it } from 'vitest'
import { decodeSrgb, encodeSrgb } from '../../core/colour/srgb.ts'
import { rgbToYcbcr, ycbcrCoding, ycbcrToRgb } from '../../core/colour/ycbcr.ts'
import { prepareColour } from '../../core/steps/colour/reference.ts'
import { defaultParams } from '../../core/steps/step.ts'
import { prepareTone } from '../../core/steps/tone/reference.ts'
import { toneParams } from '../../core/steps/tone/params.ts'
import { casesOf, sourceOf } from './cases.ts'

const neutral = defaultParams(toneParams)

/** One pixel of 8-bit codes through the tone step, as fractional codes. */
function toned(rgb8: readonly number[], params: Partial<typeof neutral & { saturation: number }>): number[] {
  const pixel = Float64Array.of(rgb8[0]! / 255, rgb8[1]! / 255, rgb8[2]! / 255, 1)
  const { saturation = 1, ...tone } = params
  prepareTone({ ...neutral, ...tone })?.(pixel)
  prepareColour({ saturation, hue: 0 })?.(pixel)
  return [...pixel.subarray(0, 3)].map((value) => value * 255)
}

describe(`sRGB transfer — ${sourceOf('transfer.srgb')}`, () => {
  const [decode, ...encodes] = casesOf('transfer.srgb')
  it('decodes', () => decode!.input.srgb8.forEach((code: number, i: number) => expect(decodeSrgb(code / 255)).toBeCloseTo(decode!.expected.linear[i], 6)))
  it.each(encodes.filter(({ input }) => input.linear !== undefined).map((each, i) => [i, each] as const))('encodes, case %i', (_i, { input, expected }) => {
    input.linear.forEach((linear: number, i: number) => expect(encodeSrgb(linear)).toBeCloseTo(expected.srgb[i], 4))
  })
})

describe.each(['ycbcr.limited8', 'ycbcr.full8'])('%s', (name) => {
  const cases = casesOf(name).filter(({ input, expected }) => Array.isArray(input.rgb8) && Array.isArray(expected.ycbcr8))
  it(`follows ${sourceOf(name)}`, () => {
    expect(cases.length).toBeGreaterThan(3)
    for (const { input, params, expected } of cases) {
      const coding = ycbcrCoding(params.matrix === 'BT.709' ? 'bt709' : 'bt601', name === 'ycbcr.full8' ? 'full' : 'limited')
      const out = new Float64Array(3)
      const [red, green, blue] = input.rgb8.map((code: number) => code / 255)
      rgbToYcbcr(coding, red, green, blue, out)
      // An exact tie (.5) may go either way, and full range clips at 255.
      expected.ycbcr8.forEach((code: number, i: number) => expect(Math.abs(Math.min(255, out[i]!) - code)).toBeLessThanOrEqual(0.501))
      const back = new Float64Array(3)
      ycbcrToRgb(coding, out[0]!, out[1]!, out[2]!, back)
      expect(back[0]).toBeCloseTo(red, 9)
      expect(back[1]).toBeCloseTo(green, 9)
      expect(back[2]).toBeCloseTo(blue, 9)
    }
  })
})

describe(`exposure in stops of linear light — ${sourceOf('adjust.exposure')}`, () => {
  const cases = casesOf('adjust.exposure').filter(({ input }) => input.srgb8 !== undefined)
  it.each(cases.map((each) => [each.params.ev, each] as const))('%d EV', (_ev, { input, params, expected }) => {
    input.srgb8.forEach((code: number, i: number) => {
      expect(Math.abs(toned([code, code, code], { exposure: params.ev })[0]! - expected.srgb8[i])).toBeLessThanOrEqual(0.51)
    })
  })
  it('has cases', () => expect(cases.length).toBeGreaterThan(0))
})

describe(`contrast and gamma — ${sourceOf('adjust.contrast_brightness_gamma (ffmpeg eq)')}`, () => {
  // The tool truncates to codes and its contrast path is off by up to two, as its case says.
  const cases = casesOf('adjust.contrast_brightness_gamma (ffmpeg eq)').filter(({ input, params }) => input.Y !== undefined && (params.brightness ?? 0) === 0 && (params.gamma_weight ?? 1) === 1)
  it.each(cases.map((each) => [JSON.stringify(each.params), each] as const))('%s', (_title, { input, params, expected }) => {
    input.Y.forEach((code: number, i: number) => {
      const [value] = toned([code, code, code], { contrast: params.contrast ?? 1, gamma: params.gamma ?? 1 })
      expect(Math.abs(value! - expected.Y[i])).toBeLessThanOrEqual(2.01)
    })
  })
  it('has cases', () => expect(cases.length).toBeGreaterThan(1))
})

describe(`saturation and contrast — ${sourceOf('adjust.css_filter_matrices')}`, () => {
  const cases = casesOf('adjust.css_filter_matrices').filter(({ params }) => params.saturate !== undefined || params.contrast !== undefined)
  it.each(cases.map((each) => [JSON.stringify(each.params), each] as const))('%s', (_title, { input, params, expected }) => {
    input.rgb8.forEach((rgb8: number[], i: number) => {
      const result = toned(rgb8, { saturation: params.saturate ?? 1, contrast: params.contrast ?? 1 })
      // The module rounds BT.709 luma weights to three digits; a code apart at most.
      result.forEach((value, channel) => expect(Math.abs(value - Math.min(255, Math.max(0, expected.rgb[i][channel])))).toBeLessThan(1))
    })
  })
  it('has cases', () => expect(cases.length).toBeGreaterThan(1))
})

describe(`hue and saturation about grey — ${sourceOf('adjust.hue_saturation (ffmpeg hue)')}`, () => {
  const coding = ycbcrCoding('bt709', 'full')
  const cases = casesOf('adjust.hue_saturation (ffmpeg hue)').filter(({ params }) => (params.b ?? 0) === 0)
  it('agrees wherever the colour stays within the gamut', () => {
    let compared = 0
    for (const { input, params, expected } of cases) {
      input.uv8.forEach(([cb, cr]: [number, number], i: number) => {
        const rgb = new Float64Array(4)
        ycbcrToRgb(coding, 128, cb, cr, rgb)
        // Where a colour leaves the gamut, ours is clipped as RGB, the tool's as Y'CbCr: such cases can't agree.
        const turned = Float64Array.from(rgb)
        prepareColour({ hue: params.h_deg, saturation: params.s })?.(turned)
        const isInside = (pixel: Float64Array) => pixel.subarray(0, 3).every((value) => value > 0 && value < 1)
        if (!isInside(rgb) || !isInside(turned)) return
        const codes = new Float64Array(3)
        rgbToYcbcr(coding, turned[0]!, turned[1]!, turned[2]!, codes)
        expect(Math.abs(codes[1]! - expected.uv8[i][0]), JSON.stringify(params)).toBeLessThanOrEqual(0.51)
        expect(Math.abs(codes[2]! - expected.uv8[i][1]), JSON.stringify(params)).toBeLessThanOrEqual(0.51)
        compared += 1
      })
    }
    expect(compared).toBe(4)
  })
  it('turns every grey-centred colour by the formula of the tool, gamut or not', () => {
    // u' = s(cos h·u − sin h·v), v' = s(sin h·u + cos h·v): the definition beside the cases.
    const rgb = new Float64Array(4)
    ycbcrToRgb(coding, 128, 138, 118, rgb)
    prepareColour({ hue: 90, saturation: 1 })!(rgb)
    const codes = new Float64Array(3)
    rgbToYcbcr(coding, rgb[0]!, rgb[1]!, rgb[2]!, codes)
    expect(codes[1]).toBeCloseTo(128 + 10, 6)
    expect(codes[2]).toBeCloseTo(128 + 10, 6)
  })
})
