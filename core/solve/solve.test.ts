// What is solved from a picture, on stand-in cameras whose truth is known.
import { beforeAll, describe, expect, it } from 'vitest'
import { backdrops } from '../../standins/camera/backdrop.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import { treatStill } from '../../engine/cpu/treat-still.ts'
import type { Heap } from '../../engine/cpu/heap.ts'
import { matteOf, pickMean } from '../../tests/support/pictures.ts'
import { parseHex, type Rgb } from '../colour/hex.ts'
import { matteErrors } from '../../tests/support/matte-metrics.ts'
import { surfaceColour, SURFACE_NUMBERS } from '../matte/backdrop.ts'
import type { RgbaPicture } from '../picture/picture.ts'
import { toRgba8 } from '../render/render-reference.ts'
import { treatReference } from '../render/treat-reference.ts'
import type { StandinCamera } from '../show/show.ts'
import { plainContext } from '../steps/chain.ts'
import { chromaKey } from '../steps/chroma-key/index.ts'
import type { StepCall } from '../steps/index.ts'
import { defaultParams, type StepContext } from '../steps/step.ts'
import { keyFigures, LEAST_PRESENTER } from '../matte/figures.ts'
import { clothEnds } from './cloth-ends.ts'
import { findCloth, quantile } from './fit-backdrop.ts'
import { findKey, solvedCalls } from './find-key.ts'
import { measureWhite } from './measure-white.ts'
import { nodeCamera } from '../../standins/camera/node-camera.ts'

const WIDTH = 640
const HEIGHT = 360
const CROP: StepCall = { kind: 'crop', params: { left: 13, top: 0, right: 10, bottom: 0, feather: 0 } }

let heap: Heap
beforeAll(async () => {
  heap = await nodeHeap()
})

async function sceneOf(standin: StandinCamera, timeMs = 8200) {
  const camera = await nodeCamera({ widthPx: WIDTH, heightPx: HEIGHT, standin })
  const picture = toRgba8(treatReference(camera.picture(timeMs), [CROP]))
  return { camera, picture, truth: { widthPx: WIDTH, heightPx: HEIGHT, data: camera.matte(timeMs) } }
}

const treat = (picture: RgbaPicture, calls: readonly StepCall[], resources: StepContext) => treatStill(heap, picture, calls, { resources })

describe('find it for me', () => {
  it.each(['cloth', 'evenCloth', 'unevenCloth', 'creasedCloth', 'noisyCloth', 'blueCloth', 'heavySpill', 'warmLight', 'dimLight', 'darkNoisyCloth'] as const)(
    'beats the usual values on the stand-in "%s", and says by how much',
    async (standin) => {
      const { picture, truth } = await sceneOf(standin)
      const { x, y } = backdrops[standin].pick!
      const colour = pickMean(picture, Math.round(WIDTH * x), Math.round(HEIGHT * y), 4)
      const usual: StepCall = { kind: 'chromaKey', params: { ...defaultParams(chromaKey.params), colour } }
      const progress: number[] = []
      const found = findKey({ picture, hint: parseHex(colour), plate: null, before: [usual], treat, onProgress: (share) => progress.push(share) })!
      const context = plainContext(WIDTH, HEIGHT)
      const errorsOf = (calls: readonly StepCall[]) => matteErrors(matteOf(treat(picture, calls, context)), truth)
      const before = errorsOf([usual])
      const after = errorsOf(solvedCalls(found))
      expect(after.mse).toBeLessThan(before.mse)
      expect(after.sad).toBeLessThan(before.sad)
      // Half a percent is where the interface starts to warn.
      expect(found.after.veil).toBeLessThanOrEqual(Math.max(found.before!.veil, 0.005))
      expect(found.after.fringe).toBeLessThanOrEqual(2)
      expect(progress.at(-1)).toBe(1)
      expect(progress).toEqual([...progress].sort((a, b) => a - b))
    },
  )

  // Limits of the task: a cloth of mean luma 40 under grain of eight codes.
  it.each([7, 21])(
    'keys a nearly dark, grainy cloth: squared error at most 0.0030, at most a thousandth of the presenter see-through (seed %i)',
    async (seed) => {
      const [widthPx, heightPx] = [1280, 720]
      const camera = await nodeCamera({ widthPx, heightPx, seed, standin: 'darkNoisyCloth' })
      const cropped = (timeMs: number) => toRgba8(treatReference(camera.picture(timeMs), [CROP]))
      const first = cropped(1000)
      const { x, y } = backdrops.darkNoisyCloth.pick!
      const found = findKey({ picture: first, hint: parseHex(pickMean(first, widthPx * x, heightPx * y, 6)), plate: null, before: [], treat })!
      // Grain this strong is calmed first, and never in time.
      expect(found.denoise).toMatchObject({ time: 0 })
      // Another moment than the one that was solved.
      const truth = camera.matte(8200)
      const matte = matteOf(treat(cropped(8200), solvedCalls(found), plainContext(widthPx, heightPx)))
      expect(matteErrors(matte, { widthPx, heightPx, data: truth }).mse).toBeLessThanOrEqual(0.003)
      let opaque = 0
      let thin = 0
      truth.forEach((alpha, i) => {
        if (alpha !== 255) return
        opaque += 1
        if (matte.data[i]! < 0.97 * 255) thin += 1
      })
      expect(thin / opaque).toBeLessThanOrEqual(0.001)
    },
  )

  it('leaves grain alone where it is weaker than the cloth', async () => {
    const { picture } = await sceneOf('noisyCloth')
    expect(findKey({ picture, hint: [0.17, 0.7, 0.32], plate: null, before: [], treat })!.denoise).toBeNull()
  })

  it('says so when there is no cloth of that colour', async () => {
    const { picture } = await sceneOf('whiteWall')
    expect(findKey({ picture, hint: [0.1, 0.7, 0.3], plate: null, before: [], treat })).toBeNull()
  })

  it('keys against a plate when there is one', async () => {
    const { camera, picture, truth } = await sceneOf('unevenCloth')
    const plate = toRgba8(treatReference(camera.emptyPicture(), []))
    const found = findKey({ picture, hint: [0.17, 0.7, 0.32], plate: { reference: 'p', picture: plate }, before: [], treat })!
    expect(found.chromaKey).toMatchObject({ backdrop: 'plate', plate: 'p' })
    const context = { ...plainContext(WIDTH, HEIGHT), picture: () => plate }
    const matte = matteOf(
      treat(
        picture,
        [
          { kind: 'chromaKey', params: found.chromaKey },
          { kind: 'matteEdge', params: found.matteEdge },
        ],
        context,
      ),
    )
    expect(matteErrors(matte, truth).mse).toBeLessThan(0.003)
  })
})

describe('findCloth', () => {
  /** A cloth whose light falls off across, with a grey block before it. */
  function cloth(falloff: number): RgbaPicture {
    const data = new Uint8Array(300 * 200 * 4)
    for (let i = 0; i < 300 * 200; i += 1) {
      const x = i % 300
      const y = Math.floor(i / 300)
      const light = 1 - (falloff * x) / 300
      const isBlock = x > 110 && x < 190 && y > 70
      data.set(isBlock ? [128, 124, 120, 255] : [50 * light, 190 * light, 85 * light, 255], i * 4)
    }
    return { format: 'rgba', widthPx: 300, heightPx: 200, data }
  }

  it('fits the light of the cloth, also where the presenter stands before it', () => {
    const found = findCloth(cloth(0.5), [0.2, 0.75, 0.33])!
    expect(found.surface).toHaveLength(SURFACE_NUMBERS)
    expect(found.unevenness).toBeGreaterThan(1.7)
    expect(found.roughness).toBeLessThan(2)
    const out = [0, 0, 0]
    for (const x of [-0.8, 0, 0.8]) {
      surfaceColour(found.surface, x, 0.5, out)
      const light = 1 - (0.5 * (x + 1)) / 2
      expect(out[1]! * 255).toBeCloseTo(190 * light, -1)
    }
  })

  it('calls an even cloth even, and finds nothing in another hue', () => {
    expect(findCloth(cloth(0), [0.2, 0.75, 0.33])!.unevenness).toBeLessThan(1.02)
    expect(findCloth(cloth(0), [0.1, 0.2, 0.9])).toBeNull()
  })

  it('gives quantiles between the ends', () => {
    expect(quantile([5, 1, 3, 2, 4], 0)).toBe(1)
    expect(quantile([5, 1, 3, 2, 4], 0.5)).toBe(3)
    expect(quantile([5, 1, 3, 2, 4], 1)).toBe(5)
  })
})

describe('measureWhite', () => {
  /** Greys and a coloured patch in a light that multiplies channels. */
  function room(light: Rgb, greys = true): RgbaPicture {
    const data = new Uint8Array(160 * 90 * 4)
    for (let i = 0; i < 160 * 90; i += 1) {
      const level = 60 + (i % 160)
      const colour = greys && i % 160 > 60 ? [level, level, level] : [200, 60, 40]
      data.set([...colour.map((value, channel) => Math.min(255, value * light[channel]!)), 255], i * 4)
    }
    return { format: 'rgba', widthPx: 160, heightPx: 90, data }
  }

  it('finds warm light warm and cool light cool', () => {
    const warm = measureWhite(room([1.1, 1, 0.85]))!
    const plain = measureWhite(room([1, 1, 1]))!
    const cool = measureWhite(room([0.88, 1, 1.1]))!
    expect(warm.temperature).toBeLessThan(plain.temperature - 400)
    expect(cool.temperature).toBeGreaterThan(plain.temperature + 400)
    expect(Math.abs(plain.temperature - 6500)).toBeLessThanOrEqual(150)
  })

  it('makes the grey parts grey', () => {
    const picture = room([1.08, 1, 0.86])
    const treated = treat(picture, [{ kind: 'balance', params: measureWhite(picture)! }], plainContext(160, 90))
    for (const x of [80, 110, 140]) {
      const [red, green, blue] = [...treated.data.subarray((40 * 160 + x) * 4, (40 * 160 + x) * 4 + 3)] as [number, number, number]
      expect(Math.max(red, green, blue) - Math.min(red, green, blue)).toBeLessThanOrEqual(4)
    }
  })

  it('says so when nothing is near grey', () => {
    expect(measureWhite(room([1, 1, 1], false))).toBeNull()
  })
})

describe('where the cloth ends', () => {
  // The drawing itself is the truth: standins/camera/cloth.ts hangs it from 74 to 1196 of 1280 at the top, 110 to 1174 at the bottom,
  // and the frame's number lies over its lower left as far as 156.
  it.each(['cloth', 'unevenCloth', 'creasedCloth', 'noisyCloth', 'blueCloth', 'heavySpill', 'warmLight', 'darkNoisyCloth'] as const)(
    'is seen on the stand-in "%s": the wall at the left, the lamp stand at the right, all of it and little more',
    async (standin) => {
      const camera = await nodeCamera({ widthPx: 1280, heightPx: 720, standin })
      const picture = toRgba8(treatReference(camera.picture(8200), []))
      const hint = parseHex(standin === 'blueCloth' ? '#2040c0' : '#00b140')
      const ends = clothEnds(picture, findCloth(picture, hint)!.colour)!
      expect(ends.left).toBeGreaterThanOrEqual((110 / 1280) * 100 - 0.3)
      expect(ends.left).toBeLessThanOrEqual((156 / 1280) * 100 + 1.5)
      expect(ends.right).toBeGreaterThanOrEqual(((1280 - 1174) / 1280) * 100 - 0.3)
      expect(ends.right).toBeLessThanOrEqual(((1280 - 1174) / 1280) * 100 + 1.5)
    },
  )

  it('asks for no crop where one was made, or where the cloth fills the picture', async () => {
    const { picture } = await sceneOf('cloth')
    expect(clothEnds(picture, findCloth(picture, parseHex('#00b140'))!.colour)).toBeNull()
    const flat: RgbaPicture = { format: 'rgba', widthPx: 64, heightPx: 36, data: new Uint8Array(64 * 36 * 4).map((_, i) => [20, 180, 60, 255][i % 4]!) }
    expect(clothEnds(flat, [20 / 255, 180 / 255, 60 / 255])).toBeNull()
  })

  it.each([1, 2, 3, 5])('survives a picture %i pixels wide', (widthPx) => {
    const flat: RgbaPicture = { format: 'rgba', widthPx, heightPx: 1, data: new Uint8Array(widthPx * 4).fill(128) }
    expect(clothEnds(flat, [0.1, 0.7, 0.2])).toBeNull()
  })
})

describe('a key that was found', () => {
  it('has no figures of before when no key was on, and tells the sides that need a crop', async () => {
    const camera = await nodeCamera({ widthPx: WIDTH, heightPx: HEIGHT, standin: 'cloth' })
    const picture = toRgba8(treatReference(camera.picture(8200), []))
    const found = findKey({ picture, hint: parseHex('#00b140'), plate: null, before: [], treat })!
    expect(found.before).toBeNull()
    expect(found.ends).not.toBeNull()
    expect(found.after.presenter).toBeGreaterThan(0.1)
  })

  it('says that nobody is left when the cloth has swallowed the presenter', async () => {
    const { picture } = await sceneOf('cloth')
    const swallowed: StepCall = { kind: 'chromaKey', params: { ...defaultParams(chromaKey.params), colour: '#2bb552', tolerance: 1, softness: 0.01 } }
    const empty = treat(picture, [swallowed], plainContext(WIDTH, HEIGHT))
    for (let i = 3; i < empty.data.length; i += 4) if (i % 97 !== 0) (empty.data as Uint8Array)[i] = 0
    expect(keyFigures(empty, parseHex('#2bb552')).presenter).toBeLessThan(LEAST_PRESENTER)
  })
})
