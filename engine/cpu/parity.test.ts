// The live executor against the exact reference: within two codes on 99.9 % of pixels.
import { readFileSync } from 'node:fs'
import { beforeAll, describe, expect, it } from 'vitest'
import type { Picture, RgbaPicture } from '../../core/picture/picture.ts'
import { rgbaToI420 } from '../../core/picture/i420.ts'
import { inputSourceId, planFrame, plainSourceId } from '../../core/plan/plan-frame.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { renderReference } from '../../core/render/render-reference.ts'
import { treatReference } from '../../core/render/treat-reference.ts'
import { parseHex } from '../../core/colour/hex.ts'
import { placeLayer, updateLayer } from '../../core/show/edits.ts'
import type { Show } from '../../core/show/show.ts'
import { steps, type StepCall } from '../../core/steps/index.ts'
import { defaultParams, type ParamSpec } from '../../core/steps/step.ts'
import { demoPictures } from '../../demo/seed.ts'
import { ClothCamera } from '../../standins/camera/cloth-camera.ts'
import { nodeSheet } from '../../standins/drawing/node-sheet.ts'
import { loadFonts, nodeHeap, nodeTextPicture } from '../../server/cli/node-engine.ts'
import { differenceOf } from '../../tests/support/pictures.ts'
import { sceneNamed, testShow } from '../../tests/support/shows.ts'
import sharp from 'sharp'
import type { SourceFrame } from '../executor.ts'
import { CpuExecutor } from './cpu-executor.ts'
import type { Heap } from './heap.ts'
import { treatStill } from './treat-still.ts'
import { Treatments } from './treatments.ts'

const LIMIT = 2
const ALLOWED_SHARE = 0.001

let heap: Heap
let camera: Picture
beforeAll(async () => {
  heap = await nodeHeap()
  loadFonts()
  const mix = readFileSync(new URL('../../standins/camera/kernels/mix.wasm', import.meta.url))
  camera = (await ClothCamera.create(nodeSheet, mix, { widthPx: 1280, heightPx: 720, frameRate: 30, seed: 7 })).picture(8200)
})

/** A picture with every sort of colour and opacity. */
function randomPicture(seed: number, widthPx = 96, heightPx = 64, isOpaque = false): RgbaPicture {
  const random = seededRandom(seed)
  const data = Uint8Array.from({ length: widthPx * heightPx * 4 }, (_, i) => (i % 4 === 3 && isOpaque ? 255 : Math.floor(random() * 256)))
  return { format: 'rgba', widthPx, heightPx, data }
}

/** Pixels of two straight pictures, premultiplied, so that colours of clear pixels don't count. */
function treatedDifference(picture: Picture, calls: readonly StepCall[]) {
  const exact = treatReference(picture, calls).data
  const live = treatStill(heap, picture, calls).data
  const premultiplied = (value: (i: number) => number) =>
    Float64Array.from(exact, (_, i) => (i % 4 === 3 ? value(i) : (value(i) * value(i - (i % 4) + 3)) / 255))
  return differenceOf(
    premultiplied((i) => exact[i]! * 255),
    premultiplied((i) => live[i]!),
    LIMIT,
  )
}

describe.each(steps.map((step) => [step.kind, step] as const))('%s', (kind, step) => {
  const specs = Object.entries(step.params as Readonly<Record<string, ParamSpec>>)
  it.each([11, 12, 13, 14])('agrees with the reference on random values and pictures (seed %d)', (seed) => {
    const random = seededRandom(seed)
    const params = Object.fromEntries(specs.map(([name, spec]) => [name, spec.type === 'number' ? spec.min + random() * (spec.max - spec.min) : '#2bb552']))
    const call = { kind, params } as unknown as StepCall
    expect(treatedDifference(randomPicture(seed), [call]).shareAbove, JSON.stringify(params)).toBeLessThanOrEqual(ALLOWED_SHARE)
    expect(treatedDifference(rgbaToI420(randomPicture(seed, 97, 63, true)), [call]).shareAbove).toBeLessThanOrEqual(ALLOWED_SHARE)
  })
  it('agrees on the stand-in camera with its defaults', () => {
    const call = { kind, params: { ...defaultParams(step.params), ...(kind === 'chromaKey' ? { colour: '#2bb552' } : {}) } } as StepCall
    expect(treatedDifference(camera, [call]).shareAbove).toBeLessThanOrEqual(ALLOWED_SHARE)
  })
})

it('a still without steps comes back as it was', () => {
  const picture = randomPicture(5)
  const treated = treatStill(heap, picture, [])
  picture.data.forEach((value, i) => {
    if (picture.data[i - (i % 4) + 3] !== 0) expect(treated.data[i]).toBe(value)
  })
})

describe('whole scenes', () => {
  const show = testShow()
  let pictures: Map<string, Picture>
  beforeAll(async () => {
    const files = demoPictures()
    const decode = async (bytes: Buffer): Promise<RgbaPicture> => {
      const { data, info } = await sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true })
      return { format: 'rgba', widthPx: info.width, heightPx: info.height, data: new Uint8Array(data) }
    }
    pictures = new Map<string, Picture>([[inputSourceId(show.inputs[0]!.id), camera]])
    for (const [name, bytes] of [
      ['Apiary wall', files.wall],
      ['Society mark', files.mark],
      ['Evening meadow', files.meadow],
    ] as const) {
      pictures.set(inputSourceId(show.inputs.find((input) => input.name === name)!.id), await decode(bytes))
    }
    for (const input of show.inputs) {
      if (input.kind !== 'colour') continue
      const [red, green, blue] = parseHex(input.colour)
      pictures.set(plainSourceId(input.colour), { format: 'rgba', widthPx: 1, heightPx: 1, data: Uint8Array.of(red * 255, green * 255, blue * 255, 255) })
    }
  })

  function compare(changed: Show, sceneName: string) {
    const infos = new Map([...pictures].map(([id, { widthPx, heightPx, format }]) => [id, { widthPx, heightPx, isOpaque: format === 'i420' }]))
    const plan = planFrame(changed, sceneNamed(changed, sceneName), infos)
    for (const job of plan.texts) pictures.set(job.sourceId, nodeTextPicture(job))
    const frames = new Map<string, SourceFrame>([...pictures].map(([id, picture]) => [id, { picture, version: 1, isLive: picture.format === 'i420' }]))
    const treatments = new Treatments(heap)
    const executor = new CpuExecutor(treatments)
    const first = Uint8Array.from(executor.render(plan, frames).data)
    const again = executor.render(plan, frames).data
    expect(differenceOf(first, again, 0).max, 'the second frame of a plan is the first').toBe(0)
    const exact = renderReference(plan, pictures).data.map((value) => value * 255)
    const result = differenceOf(first, exact, LIMIT)
    executor.dispose()
    treatments.dispose()
    return result
  }

  it.each(show.scenes.map((scene) => scene.name))('"%s" of the demo agrees with the reference', (name) => {
    expect(compare(show, name).shareAbove).toBeLessThanOrEqual(ALLOWED_SHARE)
  })

  it.each([
    ['turned', { angleDeg: 17 }],
    ['shrunk to a seventh', { x: 33.5, y: 40.25, width: 183, height: 103 }],
    ['enlarged past the canvas', { x: -300, y: -200, width: 2100, height: 1181 }],
    ['stretched off the grid', { x: 10.4, y: 7.7, width: 900.5, height: 300.2, fit: 'stretch' as const }],
  ])('a camera %s agrees with the reference', (_name, placement) => {
    const scene = sceneNamed(show, 'Welcome')
    const placed = placeLayer(show, scene.id, scene.layers[1]!.id, placement)
    const faint = updateLayer(placed, scene.id, scene.layers[1]!.id, (layer) => ({ ...layer, opacity: 0.83, frame: { cornerRadiusPx: 40 } }))
    expect(compare(faint, 'Welcome').shareAbove).toBeLessThanOrEqual(ALLOWED_SHARE)
  })

  it('gives all its memory back', () => {
    const before = heap.usedBytes
    compare(show, 'Key points')
    expect(heap.usedBytes).toBe(before)
  })
})
