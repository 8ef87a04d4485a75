// The live executor against the exact reference: within two codes on 99.9 % of pixels.
import { readFileSync, writeFileSync } from 'node:fs'
import { beforeAll, describe, expect, it } from 'vitest'
import type { Picture } from '../../core/picture/picture.ts'
import { renderReference } from '../../core/render/render-reference.ts'
import { treatReference } from '../../core/render/treat-reference.ts'
import { placeLayer, updateLayer } from '../../core/show/edits.ts'
import type { Show } from '../../core/show/show.ts'
import type { Plane } from '../../core/picture/float-picture.ts'
import { steps, type StepCall } from '../../core/steps/index.ts'
import { loadFonts, nodeHeap } from '../../server/cli/node-engine.ts'
import { differenceOf } from '../../tests/support/pictures.ts'
import {
  ALLOWED_SHARE,
  CHAIN_ALLOWED_SHARE,
  CHAIN_LIMIT,
  CHAIN_SEEDS,
  chainCase,
  limits,
  premultiplied,
  randomPicture,
  roundMask,
  STEP_SEEDS,
  stepCases,
  usualCall,
} from '../../tests/support/parity-cases.ts'
import { demoInputPictures, sceneCase } from '../../tests/support/scene-cases.ts'
import { sceneNamed, testShow } from '../../tests/support/shows.ts'
import type { SourceFrame } from '../executor.ts'
import { CpuExecutor } from './cpu-executor.ts'
import type { Heap } from './heap.ts'
import { stillTreater, treatStill } from './treat-still.ts'
import { Treatments } from './treatments.ts'
import { nodeCamera } from '../../standins/camera/node-camera.ts'

const LIMIT = 2

let heap: Heap
let camera: Picture
beforeAll(async () => {
  heap = await nodeHeap()
  loadFonts()

  camera = (await nodeCamera()).picture(8200)
})

/** How far the live executor is from the reference on the last of some frames. */
function treatedDifference(frames: readonly Picture[], calls: readonly StepCall[], limit: number, person: Plane | null = null) {
  const memory = new Map()
  const treat = stillTreater(heap, calls, { person })
  let exact = treatReference(frames[0]!, calls, { memory, person }).data
  let live = treat.frame(frames[0]!).data
  for (const frame of frames.slice(1)) {
    exact = treatReference(frame, calls, { memory, person }).data
    live = treat.frame(frame).data
  }
  treat.dispose()
  return differenceOf(premultiplied(exact, 255), premultiplied(live, 1), limit)
}

/** The worst of each step over all its tests, for docs/parity.md. */
const worst = new Map<string, { max: number; shareAbove: number }>()

function note(name: string, result: { max: number; shareAbove: number }): number {
  const known = worst.get(name) ?? { max: 0, shareAbove: 0 }
  worst.set(name, { max: Math.max(known.max, result.max), shareAbove: Math.max(known.shareAbove, result.shareAbove) })
  return result.shareAbove
}

describe.each(steps.map((step) => [step.kind, step] as const))('%s', (kind, step) => {
  const limit = limits[kind]
  it.each(STEP_SEEDS)(`agrees with the reference within ${limit} codes on random values and pictures (seed %d)`, (seed) => {
    const { call, runs } = stepCases(step, seed)
    for (const frames of runs) {
      expect(note(kind, treatedDifference(frames, [call], limit, roundMask())), JSON.stringify(call)).toBeLessThanOrEqual(ALLOWED_SHARE)
    }
  })
  it('agrees on the stand-in camera with its defaults', () => {
    expect(note(kind, treatedDifference([camera], [usualCall(step)], limit, roundMask()))).toBeLessThanOrEqual(ALLOWED_SHARE)
  })
})

describe('random chains', () => {
  it.each(CHAIN_SEEDS)('of three to seven steps agree within six codes on 99 % of pixels (seed %d)', (seed) => {
    const { chain, frames } = chainCase(seed)
    expect(note('chains', treatedDifference(frames, chain, CHAIN_LIMIT, roundMask())), JSON.stringify(chain)).toBeLessThanOrEqual(CHAIN_ALLOWED_SHARE)
  })
})

// Runs after the tests above, which it reports on: the seeds make it the same each time.
it('is what docs/parity.md says (GREEN_ROOM_WRITE_DOCS=1 writes it)', () => {
  const row = (name: string, limit: number, allowed: string) => {
    const { max, shareAbove } = worst.get(name)!
    return `| ${name} | ${limit} | ${allowed} | ${(shareAbove * 100).toFixed(3)} % | ${Math.ceil(max)} |`
  }
  const text = [
    '# Live executors against the exact reference',
    '',
    'Made by engine/cpu/parity.test.ts: random values, pictures with and without opacity, RGBA and 4:2:0, two frames in a row,',
    'and the stand-in camera. Differences in 8-bit codes of premultiplied colour and opacity.',
    '',
    '| step | within | allowed above | measured above | largest |',
    '| --- | --- | --- | --- | --- |',
    ...steps.map((step) => row(step.kind, limits[step.kind], '0.1 %')),
    row('chains', CHAIN_LIMIT, '1 %'),
    '',
    '“chains” are eight seeded chains of random steps. The largest difference is that of a single pixel.',
    '',
  ].join('\n')
  const file = new URL('../../docs/parity.md', import.meta.url)
  if (process.env['GREEN_ROOM_WRITE_DOCS'] === '1') writeFileSync(file, text)
  expect(readFileSync(file, 'utf8')).toBe(text)
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
  let inputs: Map<string, Picture>
  beforeAll(async () => {
    inputs = await demoInputPictures(show, camera)
  })

  function compare(changed: Show, sceneName: string) {
    const { plan, pictures } = sceneCase(changed, sceneNamed(changed, sceneName), inputs)
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
