import { inputSourceId } from '../../core/inputs/source-ids.ts'
import { afterEach, beforeAll, describe, expect, it } from 'vitest'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { rgbaToI420 } from '../../tests/support/i420.ts'
import { planFrame } from '../../core/stage/plan-frame.ts'
import { treatedNodes } from '../../core/plan/read-plan.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import { parseCube } from '../../core/lut/cube.ts'
import { addStep } from '../../tests/support/steps.ts'
import { sceneNamed, testShow } from '../../tests/support/shows.ts'
import type { SourceFrame } from '../executor.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { codeAtPlace, ColourMemo } from './colour-memo.ts'
import { CpuExecutor } from './cpu-executor.ts'
import type { Heap } from './heap.ts'
import { Treatments } from './treatments.ts'

let heap: Heap
beforeAll(async () => {
  heap = await nodeHeap()
})

function plain(rgb: readonly number[], widthPx = 1280, heightPx = 720): RgbaPicture {
  const data = new Uint8Array(widthPx * heightPx * 4)
  for (let at = 0; at < data.length; at += 4) data.set([...rgb, 255], at)
  return { format: 'rgba', widthPx, heightPx, data }
}

/** Given back after each test, so that the heap is as empty as before. */
const opened: (CpuExecutor | Treatments)[] = []
afterEach(() => opened.splice(0).forEach((each) => each.dispose()))

function openExecutor(treatments = new Treatments(heap)): CpuExecutor {
  const executor = new CpuExecutor(treatments)
  opened.push(executor, treatments)
  return executor
}

describe('the CPU executor', () => {
  const show = testShow()
  const scene = sceneNamed(show, 'Just me')
  const cameraId = inputSourceId(show.inputs[0]!.id)
  const wallId = inputSourceId(show.inputs[1]!.id)
  const plan = planFrame(
    show,
    { scene },
    0,
    new Map([
      [cameraId, { widthPx: 1280, heightPx: 720, isOpaque: true }],
      [wallId, { widthPx: 1280, heightPx: 720, isOpaque: true }],
    ]),
  )
  const green = rgbaToI420(plain([43, 181, 82]))
  const skin = rgbaToI420(plain([200, 140, 110]))
  const framesWith = (camera: SourceFrame['picture'], version: number, wall: RgbaPicture, wallVersion = 1) =>
    new Map<string, SourceFrame>([
      [cameraId, { picture: camera, version, isLive: true }],
      [wallId, { picture: wall, version: wallVersion, isLive: false }],
    ])
  const middle = (picture: RgbaPicture) => [...picture.data.subarray((360 * 1280 + 640) * 4, (360 * 1280 + 640) * 4 + 4)]

  it('shows the wall through the cloth, and a live change in the next frame', () => {
    const executor = openExecutor()
    const wall = plain([10, 20, 30])
    expect(middle(executor.render(plan, framesWith(green, 1, wall)))).toEqual([10, 20, 30, 255])
    expect(middle(executor.render(plan, framesWith(skin, 2, wall)))[0]).toBeGreaterThan(190)
    expect(middle(executor.render(plan, framesWith(green, 3, wall)))).toEqual([10, 20, 30, 255])
  })

  it('notices a new version of a still picture', () => {
    const executor = openExecutor()
    executor.render(plan, framesWith(green, 1, plain([10, 20, 30])))
    expect(middle(executor.render(plan, framesWith(green, 1, plain([90, 80, 70]), 2)))).toEqual([90, 80, 70, 255])
  })

  it('shows a look that comes after the first frame, on a still layer, without an edit', () => {
    const treatments = new Treatments(heap)
    const executor = openExecutor(treatments)
    const look = 'd'.repeat(64)
    const looked = addStep({ ...show, inputs: [show.inputs[1]!, show.inputs[0]!] }, 'look', { look, amount: 1 })
    const info = { widthPx: 64, heightPx: 36, isOpaque: true }
    const still = {
      ...sceneNamed(show, 'Just me'),
      layers: sceneNamed(show, 'Just me').layers.filter((layer) => layer.kind === 'input' && layer.inputId === show.inputs[1]!.id),
    }
    const stillPlan = planFrame(looked, { scene: still }, 0, new Map([[wallId, info]]))
    const frames = new Map<string, SourceFrame>([[wallId, { picture: plain([10, 20, 30], 64, 36), version: 1, isLive: false }]])
    expect(middle(executor.render(stillPlan, frames)).slice(0, 3)).toEqual([10, 20, 30])
    const negative = parseCube('LUT_1D_SIZE 2\n1 1 1\n0 0 0\n')
    treatments.setResources({ lut: (reference) => (reference === look ? negative : null), picture: () => null })
    expect(middle(executor.render(stillPlan, frames)).slice(0, 3)).toEqual([245, 235, 225])
  })

  it('goes on without a source that vanished and takes it back when it returns', () => {
    const executor = openExecutor()
    const wall = plain([10, 20, 30])
    executor.render(plan, framesWith(skin, 1, wall))
    const without = framesWith(skin, 2, wall)
    without.delete(cameraId)
    expect(middle(executor.render(plan, without))).toEqual([10, 20, 30, 255])
    expect(middle(executor.render(plan, framesWith(skin, 3, wall)))[0]).toBeGreaterThan(190)
  })

  it('allocates nothing in the heap over three hundred frames', () => {
    const executor = openExecutor()
    const wall = plain([10, 20, 30])
    executor.render(plan, framesWith(skin, 1, wall))
    const before = heap.usedBytes
    for (let version = 2; version < 302; version += 1) executor.render(plan, framesWith(version % 2 === 0 ? green : skin, version, wall))
    expect(heap.usedBytes).toBe(before)
  })
})

it('follows a camera that changes its coding or its size under the same steps', () => {
  const treatments = new Treatments(heap)
  const show = testShow()
  const cameraId = inputSourceId(show.inputs[0]!.id)
  const node = treatedNodes(
    planFrame(show, { scene: sceneNamed(show, 'Just me') }, 0, new Map([[cameraId, { widthPx: 1280, heightPx: 720, isOpaque: true }]])),
  )[0]!
  const skin = [200, 140, 110]
  const coded = rgbaToI420(plain(skin))
  const pictures = [coded, { ...coded, matrix: 'bt601' as const }, plain(skin), rgbaToI420(plain(skin, 640, 360)), coded]
  const pixels = pictures.map((picture, version) => {
    const treated = treatments.treated(node, { picture, version, isLive: true })
    const at = treated.at + ((treated.heightPx / 2) * treated.widthPx + treated.widthPx / 2) * 4
    return [...heap.bytes.subarray(at, at + 4)]
  })
  // Read with the other matrix the same codes are another colour; all else agrees within rounding.
  expect(pixels[1]).not.toEqual(pixels[0])
  expect(pixels[4]).toEqual(pixels[0])
  for (const index of [2, 3]) pixels[index]!.forEach((value, channel) => expect(Math.abs(value - pixels[0]![channel]!)).toBeLessThanOrEqual(3))
  // The crop follows the size: the left edge is clear in both.
  expect(heap.bytes[treatments.treated(node, { picture: pictures[3]!, version: 9, isLive: true }).at + 3]).toBe(0)
  treatments.dispose()
})

it('makes room by forgetting pictures that were not used for longest', async () => {
  const small = await nodeHeap()
  // All but forty megabytes are taken, and each treated picture needs seven.
  const taken: ReturnType<Heap['allocate']>[] = []
  while (small.bytes.length - small.usedBytes > 90 << 20) taken.push(small.allocate(16 << 20))
  const treatments = new Treatments(small)
  const show = testShow()
  const wall = plain([10, 20, 30])
  const node = treatedNodes(
    planFrame(
      show,
      { scene: sceneNamed(show, 'Just me') },
      0,
      new Map([[inputSourceId(show.inputs[1]!.id), { widthPx: 1280, heightPx: 720, isOpaque: true }]]),
    ),
  )[0]!
  for (let i = 0; i < 12; i += 1) {
    const picture = treatments.treated(
      { ...node, sourceId: `input:${i}`, treatedKey: `same table ${i % 2}`, steps: [] },
      { picture: wall, version: i, isLive: false },
    )
    expect([...small.bytes.subarray(picture.at, picture.at + 4)]).toEqual([10, 20, 30, 255])
  }
  treatments.dispose()
  for (const block of taken) small.free(block)
})

describe('the heap', () => {
  it('joins freed neighbours, so that a big block fits again', () => {
    const used = heap.usedBytes
    const blocks = Array.from({ length: 6 }, () => heap.allocate(1 << 20))
    for (const index of [1, 3, 2, 0, 5, 4]) heap.free(blocks[index]!)
    expect(heap.usedBytes).toBe(used)
    const big = heap.allocate(6 << 20)
    expect(big.at).toBe(blocks[0]!.at)
    heap.free(big)
  })

  it('says so when there is no room', () => {
    expect(() => heap.allocate(2 ** 31)).toThrow('the picture memory has no room')
  })

  it('hands out zeros after reuse when asked', () => {
    const dirty = heap.allocate(4096)
    heap.bytes.fill(7, dirty.at, dirty.at + 4096)
    heap.free(dirty)
    const clean = heap.allocateZeroed(4096)
    expect(heap.bytes.subarray(clean.at, clean.at + 4096).every((value) => value === 0)).toBe(true)
    heap.free(clean)
  })
})

describe('a colour memo', () => {
  it('computes a place once and forgets it when reset', () => {
    const memo = new ColourMemo(heap)
    const list = heap.allocate(64)
    let calls = 0
    const count = (pixel: Float64Array) => {
      calls += 1
      pixel[0] = 1
    }
    memo.reset([count], 'rgb', 'straight')
    // The place of blue 0x10, green 0x20, red 0x30: high halves first, then low ones.
    const place = 0x123000
    heap.words[list.at >> 2] = place
    heap.words[(list.at >> 2) + 2] = place
    memo.computeListed(list.at, 2)
    expect(calls).toBe(1)
    expect(heap.words[(memo.at >> 2) + place]).toBe(0xff1020ff)
    memo.reset([], 'rgb', 'straight')
    expect(heap.words[(memo.at >> 2) + place]).toBe(0)
    heap.free(list)
    memo.dispose()
  })

  it('has one place for every code', () => {
    const random = seededRandom(3)
    const places = new Set(Array.from({ length: 5000 }, () => Math.floor(random() * 2 ** 24)))
    const codes = [...places].map(codeAtPlace)
    expect(codes.every((code) => code >= 0 && code < 2 ** 24)).toBe(true)
    expect(new Set(codes).size).toBe(places.size)
    expect(codeAtPlace(0xffffff)).toBe(0xffffff)
    expect(codeAtPlace(0x000001)).toBe(0x000001)
  })
})
