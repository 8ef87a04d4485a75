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

interface Result {
  readonly what: string
  readonly max: number
  readonly shareAbove: number
}

/** How far the live executor is, for each step and for chains; worked out once, for the tests and for docs/parity.md. */
const results = new Map<string, Result[]>()
beforeAll(() => {
  for (const step of steps) {
    const limit = limits[step.kind]
    const random = STEP_SEEDS.flatMap((seed) => {
      const { call, runs } = stepCases(step, seed)
      return runs.map((frames, i) => ({
        what: `seed ${seed}, picture ${i}: ${JSON.stringify(call)}`,
        ...treatedDifference(frames, [call], limit, roundMask()),
      }))
    })
    results.set(step.kind, [...random, { what: 'stand-in camera', ...treatedDifference([camera], [usualCall(step)], limit, roundMask()) }])
  }
  const chains = CHAIN_SEEDS.map((seed) => {
    const { chain, frames } = chainCase(seed)
    return { what: `seed ${seed}: ${JSON.stringify(chain)}`, ...treatedDifference(frames, chain, CHAIN_LIMIT, roundMask()) }
  })
  results.set('chains', chains)
}, 180_000)

it.each(steps.map((step) => step.kind))('%s agrees with the reference on random values and pictures, and on the stand-in camera', (kind) => {
  const all = results.get(kind)!
  expect(all.length).toBeGreaterThan(STEP_SEEDS.length)
  expect(all.filter(({ shareAbove }) => !(shareAbove <= ALLOWED_SHARE))).toEqual([])
})

it('random chains of three to seven steps agree within six codes on 99 % of pixels', () => {
  const all = results.get('chains')!
  expect(all).toHaveLength(CHAIN_SEEDS.length)
  expect(all.filter(({ shareAbove }) => !(shareAbove <= CHAIN_ALLOWED_SHARE))).toEqual([])
})

it('is what docs/parity.md says (GREEN_ROOM_WRITE_DOCS=1 writes it)', () => {
  const row = (name: string, limit: number, allowed: string) => {
    const all = results.get(name)!
    const share = Math.max(...all.map(({ shareAbove }) => shareAbove))
    return `| ${name} | ${limit} | ${allowed} | ${(share * 100).toFixed(3)} % | ${Math.ceil(Math.max(...all.map(({ max }) => max)))} |`
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
  const seen = [...picture.data.keys()].filter((i) => picture.data[i - (i % 4) + 3] !== 0)
  expect(seen.length).toBeGreaterThan(10_000)
  expect(seen.filter((i) => treated.data[i] !== picture.data[i])).toEqual([])
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
    const faint = updateLayer(placed, scene.id, scene.layers[1]!.id, (layer) => ({ ...layer, opacity: 0.83, frame: { ...layer.frame, cornerRadiusPx: 40 } }))
    expect(compare(faint, 'Welcome').shareAbove).toBeLessThanOrEqual(ALLOWED_SHARE)
  })

  it('gives all its memory back', () => {
    const before = heap.usedBytes
    compare(show, 'Key points')
    expect(heap.usedBytes).toBe(before)
  })
})
