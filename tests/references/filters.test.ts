import { describe, expect, it } from 'vitest'
import { convolvePlane, gaussianTaps } from '../../core/filter/gaussian.ts'
import { unsharpDetail } from '../../core/steps/sharpen/reference.ts'
import { prepareColourKey } from '../../core/steps/colour-key/reference.ts'
import { formatHex } from '../../core/colour/hex.ts'
import { prepareLumaKey } from '../../core/steps/luma-key/reference.ts'
import { casesOf, loadMatte, sourceOf } from './cases.ts'

describe(`Gaussian of a step — ${sourceOf('blur.gaussian_step')}`, () => {
  it.each(casesOf('blur.gaussian_step').map((each) => [each.params.sigma, each] as const))('sigma %d', async (sigma, { expected, ...tools }) => {
    const step = await loadMatte('step.pgm')
    const blurred = convolvePlane({ ...step, data: Float64Array.from(step.data) }, gaussianTaps(sigma))
    const ours = [...blurred.data.subarray(4 * step.widthPx + 26, 4 * step.widthPx + 38)]
    // scipy samples the kernel as we do, to four sigma where we end at three: half a code.
    const { scipy } = tools as unknown as { scipy: number[] }
    scipy.forEach((value, i) => expect(Math.abs(ours[i]! - value)).toBeLessThan(0.5))
    // Samples stand for integrals: at one pixel of sigma that is two codes off the true curve, soon less.
    expected.row.forEach((value: number, i: number) => expect(Math.abs(ours[i]! - value)).toBeLessThan(sigma === 1 ? 2.2 : 0.9))
  })
  it('adds up to one and is symmetric', () => {
    for (const sigma of [0.5, 1.2, 4]) {
      const taps = gaussianTaps(sigma)
      expect(taps.reduce((sum, tap) => sum + tap, 0)).toBeCloseTo(1, 12)
      taps.forEach((tap, i) => expect(tap).toBeCloseTo(taps[taps.length - 1 - i]!, 12))
    }
  })
})

describe(`unsharp mask — ${sourceOf('sharpen.unsharp (ffmpeg unsharp)')}`, () => {
  // The tool blurs with binomial weights; with those, our sum must give its numbers.
  const binomial: Readonly<Record<number, readonly number[]>> = { 3: [1, 2, 1], 5: [1, 4, 6, 4, 1], 7: [1, 6, 15, 20, 15, 6, 1] }
  const row = Float64Array.from({ length: 64 }, (_, x) => (x >= 32 ? (x === 48 ? 240 : 180) : x === 10 ? 61 : 60))
  it.each(casesOf('sharpen.unsharp (ffmpeg unsharp)').map((each) => [JSON.stringify(each.params), each] as const))('%s', (_title, { params, expected }) => {
    const weights = binomial[params.size as number]!
    const sum = weights.reduce((total, weight) => total + weight, 0)
    const plane = { widthPx: 64, heightPx: 16, data: Float64Array.from({ length: 64 * 16 }, (_, i) => row[i % 64]!) }
    const blurred = convolvePlane(plane, weights.map((weight) => weight / sum))
    expected.x.forEach((x: number, i: number) => {
      const value = row[x]! + unsharpDetail(row[x]!, blurred.data[8 * 64 + x]!, params.amount, 0)
      expect(Math.abs(Math.min(255, Math.max(0, value)) - expected.v[i])).toBeLessThanOrEqual(1.01)
    })
  })
})

describe(`distance from one picked colour, as measured by: ${sourceOf('key.rgb_distance (ffmpeg colorkey)')}`, () => {
  const cases = casesOf('key.rgb_distance (ffmpeg colorkey)')
  it.each(cases.map((each) => [JSON.stringify(each.params), each] as const))('%s', (_title, { input, params, expected }) => {
    const colour = formatHex(params.color.map((code: number) => code / 255))
    const key = prepareColourKey({ colour, tight: params.similarity, wide: params.similarity + params.blend })
    for (const [name, rgb8] of Object.entries(input as Record<string, number[]>)) {
      const pixel = Float64Array.of(rgb8[0]! / 255, rgb8[1]! / 255, rgb8[2]! / 255, 1)
      key(pixel)
      // The tool truncates to codes.
      expect(Math.abs(pixel[3]! * 255 - expected.alpha8[name]), name).toBeLessThanOrEqual(1.01)
    }
  })
})

describe(`brightness — ${sourceOf('key.luma (ffmpeg lumakey)')}`, () => {
  it.each(casesOf('key.luma (ffmpeg lumakey)').map((each) => [JSON.stringify(each.params), each] as const))('%s', (_title, { input, params, expected }) => {
    const key = prepareLumaKey({
      from: Math.max(0, params.threshold - params.tolerance),
      to: Math.min(1, params.threshold + params.tolerance),
      softness: params.softness,
    })!
    input.Y.forEach((code: number, i: number) => {
      const pixel = Float64Array.of(code / 255, code / 255, code / 255, 1)
      key(pixel)
      // The tool cuts its bounds and ramp to whole codes, which moves a ramp of 25 codes by up to two of its steps.
      const perCode = 255 / Math.max(1, Math.floor(params.softness * 255))
      expect(Math.abs(pixel[3]! * 255 - expected.alpha8[i]), `Y ${code}`).toBeLessThanOrEqual(params.softness === 0 ? (Math.abs(code / 255 - params.threshold - params.tolerance) < 0.004 ? 255 : 0) : 2 * perCode)
    })
  })
})
