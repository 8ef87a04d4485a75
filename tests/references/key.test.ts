import { beforeAll, describe, expect, it } from 'vitest'
import { matteErrors } from '../support/matte-metrics.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { treatReference } from '../../core/render/treat-reference.ts'
import { toRgba8 } from '../../core/render/render-reference.ts'
import { chromaKey } from '../../core/steps/chroma-key/index.ts'
import { prepareChromaKey } from '../../core/steps/chroma-key/reference.ts'
import { defaultParams } from '../../core/steps/step.ts'
import { Heap } from '../../engine/cpu/heap.ts'
import { treatStill } from '../../engine/cpu/treat-still.ts'
import { readFileSync } from 'node:fs'
import { casesOf, inputFile, loadMatte, loadPicture, sourceOf } from './cases.ts'
import { pickMean, matteOf } from '../support/pictures.ts'

const usual = defaultParams(chromaKey.params)

describe(`matte metrics — ${sourceOf('matte.metrics')}`, () => {
  it.each(casesOf('matte.metrics').map((each) => [each.input.est, each] as const))('%s', async (_title, { input, expected }) => {
    const errors = matteErrors(await loadMatte(input.est), await loadMatte(input.gt))
    expect(errors.sad).toBeCloseTo(expected.SAD, 3)
    expect(errors.mse).toBeCloseTo(expected.MSE, 6)
    expect(errors.gradient).toBeCloseTo(expected.GRAD, 2)
  })
})

describe(`known mixtures — ${sourceOf('key.known_alpha_composite')}`, () => {
  // The foreground of these cases holds no backdrop colour, so a key without tolerance must find at
  // least the opacity that two backdrops reveal, and clear what is backdrop.
  it.each(casesOf('key.known_alpha_composite').map((each) => [each.input.alpha, each] as const))('alpha %d', (alpha, { input, expected }) => {
    const key = prepareChromaKey({ ...usual, colour: '#00b140', tolerance: 0, softness: 1 })!
    const pixel = Float64Array.of(expected.C1[0] / 255, expected.C1[1] / 255, expected.C1[2] / 255, 1)
    key(pixel)
    expect(pixel[3]).toBeGreaterThanOrEqual(expected.alpha_triangulated_from_8bit - 0.005)
    if (alpha === 0) expect(pixel[3]).toBeLessThan(0.005)
    if (alpha === 1) {
      expect(pixel[3]).toBe(1)
      input.F.forEach((code: number, channel: number) => expect(pixel[channel]! * 255).toBeCloseTo(code, 6))
    }
  })
})

describe(`colours a key must keep or clear — ${sourceOf('key.colour_difference (formula)')}`, () => {
  const [{ input }] = casesOf('key.colour_difference (formula)') as [ReturnType<typeof casesOf>[number]]
  const opacityOf = (name: string) => {
    const pixel = Float64Array.of(...input[name].map((code: number) => code / 255), 1)
    prepareChromaKey({ ...usual, colour: '#00b140' })!(pixel)
    return pixel[3]!
  }
  // Where the formula gives 1, so must we; where it gives 0, so must we.
  it.each(['skin', 'skin_dark', 'hair', 'white', 'black', 'grey', 'blue_key', 'yellow'])('keeps %s opaque', (name) => expect(opacityOf(name)).toBe(1))
  it.each(['green_key', 'pure_green'])('clears %s', (name) => expect(opacityOf(name)).toBe(0))
})

describe(`greenscreen.png with its true matte — baselines of ${sourceOf('matte.ffmpeg_baseline')}`, () => {
  let picture: RgbaPicture
  let truth: Awaited<ReturnType<typeof loadMatte>>
  let steps: { kind: 'chromaKey'; params: typeof usual }[]
  beforeAll(async () => {
    picture = await loadPicture('greenscreen.png')
    truth = await loadMatte('greenscreen_alpha.png')
    // The backdrop is picked as a presenter would: a small square in the upper left corner.
    steps = [{ kind: 'chromaKey', params: { ...usual, colour: pickMean(picture, 12, 12, 6) } }]
  })

  it.each(['reference', 'cpu'])('beats the best plain tools with default values: %s executor', async (executor) => {
    const treated = executor === 'cpu' ? treatStill(await testHeap(), picture, steps) : toRgba8(treatReference(picture, steps))
    const matte = matteOf(treated)
    const errors = matteErrors(matte, truth)
    const baselines = casesOf('matte.ffmpeg_baseline').map(({ expected }) => expected)
    expect(errors.sad).toBeLessThanOrEqual(600)
    expect(errors.mse).toBeLessThanOrEqual(0.0016)
    expect(errors.sad).toBeLessThan(Math.min(...baselines.map(({ SAD }) => SAD)))
    expect(errors.mse).toBeLessThan(Math.min(...baselines.map(({ MSE }) => MSE)))
    const seeThrough = truth.data.reduce((count, alpha, i) => count + (alpha === 255 && matte.data[i]! < 0.97 * 255 ? 1 : 0), 0)
    expect(seeThrough).toBe(0)
  })

  it('takes at least four fifths of the green excess out of the edge', async () => {
    const foreground = await loadPicture('greenscreen_fg.png')
    const treated = toRgba8(treatReference(picture, steps))
    const greenness = ({ data }: RgbaPicture, i: number) => data[i * 4 + 1]! - Math.max(data[i * 4]!, data[i * 4 + 2]!)
    const excess = { before: 0, after: 0 }
    let count = 0
    truth.data.forEach((alpha, i) => {
      if (alpha < 128 || alpha > 250) return
      excess.before += greenness(picture, i) - greenness(foreground, i)
      excess.after += greenness(treated, i) - greenness(foreground, i)
      count += 1
    })
    expect(count).toBeGreaterThan(300)
    expect(excess.before / count).toBeGreaterThan(20)
    expect(excess.after).toBeLessThan(excess.before / 5)
  })
})

function testHeap(): Promise<Heap> {
  return Heap.create(readFileSync(new URL('../../engine/cpu/kernels/kernels.wasm', import.meta.url)))
}

it('reads the copied inputs', () => expect(readFileSync(inputFile('greenscreen.png')).length).toBeGreaterThan(1000))
