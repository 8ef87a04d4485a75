// Half an hour of edits, scene changes, texts that tell the time and transitions, at accelerated time: nothing grows.
import { newTextLayer } from '../../core/layers/text.ts'
import { newStep } from '../../core/steps/treatment.ts'
import { newInputLayer } from '../../core/layers/input.ts'
import { setFlagsFromString } from 'node:v8'
import { runInNewContext } from 'node:vm'
import { beforeAll, describe, expect, it } from 'vitest'
import type { Picture } from '../../core/picture/picture.ts'
import { planFrame } from '../../core/stage/plan-frame.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { addContents, updateText } from '../../core/show/contents.ts'
import { BARE_SCENE } from '../../core/show/create.ts'
import { addLayer, placeLayer, setStepParams } from '../../core/show/edits.ts'
import type { Scene, Show } from '../../core/show/show.ts'
import { goTo, settled, type Stage } from '../../core/stage/stage.ts'
import { usualTransitions } from '../../core/transitions/index.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import { picturesFor, showCase } from '../../tests/support/random-shows.ts'
import type { SourceFrame } from '../executor.ts'
import { CpuExecutor } from './cpu-executor.ts'
import type { Heap } from './heap.ts'
import { Treatments } from './treatments.ts'

const MINUTES = 30
const FRAME_EVERY_MS = 250
const BUDGET_BYTES = 6 * 1024 * 1024

let heap: Heap
let collect: () => void
beforeAll(async () => {
  heap = await nodeHeap()
  setFlagsFromString('--expose-gc')
  collect = runInNewContext('gc') as () => void
})

describe('half an hour', () => {
  it('of edits and scene changes leaves the heap, what is kept and the program’s own memory as they were', () => {
    const one = showCase(301)
    const { show, titleId, contentId } = withTitle(one.show)
    const treatments = new Treatments(heap, BUDGET_BYTES)
    const executor = new CpuExecutor(treatments)
    const random = seededRandom(77)
    const ways = Object.values(usualTransitions)
    let now = show
    let sceneAt = 0
    let stage: Stage = { scene: sceneOf(now, 0) }
    const marks: { readonly heap: number; readonly kept: number; readonly own: number }[] = []
    const frames = (MINUTES * 60_000) / FRAME_EVERY_MS
    for (let frame = 0; frame < frames; frame += 1) {
      const timeMs = frame * FRAME_EVERY_MS
      if (frame % 16 === 8) {
        now = placeLayer(now, 'first', titleId, { x: Math.round(random() * 100) })
        now = updateText(now, contentId, (text) => ({ ...text, blocks: text.blocks.map((block) => ({ ...block, text: `{time} ${frame}` })) }))
        now = setStepParams(now, { type: 'input', inputId: 'camera' }, toneId(now), { exposure: Math.round(random() * 100) / 100 })
        stage = { scene: sceneOf(now, sceneAt) }
      }
      if (frame % 24 === 0) {
        sceneAt = (sceneAt + 1) % now.scenes.length
        stage = goTo(stage, sceneOf(now, sceneAt), { ...ways[Math.floor(random() * ways.length)]!, durationMs: 1000 }, timeMs)
      }
      stage = settled(stage, timeMs)
      const plan = planFrame(now, stage, timeMs, one.infos, { wall: { epochMs: 0, utcOffsetMin: 0, locale: 'en-GB' } })
      const pictures: ReadonlyMap<string, Picture> = picturesFor(one, plan)
      executor.render(
        plan,
        new Map([...pictures].map(([id, picture]) => [id, { picture, version: id === 'input:camera' ? frame : 1, isLive: id === 'input:camera' }])),
      )
      // What the frame itself needs is never refused.
      expect(treatments.surfaces.bytes).toBeLessThanOrEqual(BUDGET_BYTES * 1.2)
      if ((frame + 1) % (frames / 6) !== 0) continue
      collect()
      marks.push({ heap: heap.usedBytes, kept: treatments.surfaces.size, own: process.memoryUsage().heapUsed })
    }
    const [, second, third, ...later] = marks
    const spread = Math.max(second!.heap, third!.heap)
    for (const mark of later) {
      // What is kept varies within its budget; nothing comes on top.
      expect(mark.heap).toBeLessThan(spread + BUDGET_BYTES / 4)
      expect(mark.kept).toBeLessThan(Math.max(second!.kept, third!.kept) * 2)
      expect(mark.own - second!.own).toBeLessThan(8 * 1024 * 1024)
    }
    executor.dispose()
    treatments.dispose()
    // A machine that others use too may take some times as long as usual.
  }, 240_000)

  it('ends with all memory given back', async () => {
    const own = await nodeHeap()
    const before = own.usedBytes
    const one = showCase(302)
    const treatments = new Treatments(own)
    const executor = new CpuExecutor(treatments)
    const plan = planFrame(one.show, { scene: one.show.scenes[0]! }, 0, one.infos)
    executor.render(plan, new Map([...picturesFor(one, plan)].map(([id, picture]) => [id, { picture, version: 1, isLive: id === 'input:camera' }])))
    executor.dispose()
    treatments.dispose()
    expect(own.usedBytes).toBe(before)
  })
})

it('forty inputs with a chain of their own each are no cliff: no table is made anew for a frame of still pictures', () => {
  const one = showCase(303)
  const inputs = Array.from({ length: 40 }, (_, i) => ({
    ...one.show.inputs[1]!,
    id: `photo${i}`,
    treatment: [
      { ...newStep('tone', () => `t${i}`), params: { ...newStep('tone', () => 't').params, exposure: i / 40 } },
    ] as Show['inputs'][number]['treatment'],
  }))
  let count = 0
  const layers = inputs.map((input, i) => ({
    ...newInputLayer(input, one.show.canvas, () => `l${(count += 1)}`),
    placement: { x: (i % 8) * 20, y: Math.floor(i / 8) * 24, width: 18, height: 20, angleDeg: 0, fit: 'fill' as const },
  }))
  const camera = newInputLayer(one.show.inputs[0]!, one.show.canvas, () => 'camera-layer')
  const show: Show = { ...one.show, inputs: [one.show.inputs[0]!, ...inputs] }
  const picture = one.inputs.get('input:photo')!
  const infos = new Map(one.infos)
  for (const { id } of inputs) infos.set(`input:${id}`, { widthPx: picture.widthPx, heightPx: picture.heightPx, isOpaque: true })
  const plan = planFrame(show, { scene: { ...BARE_SCENE, id: 'many', name: 'Many', layers: [camera, ...layers] } }, 0, infos)
  const treatments = new Treatments(heap)
  const executor = new CpuExecutor(treatments)
  let uploads = 0
  const upload = treatments.upload.bind(treatments)
  treatments.upload = (id, frame) => {
    if (id !== 'input:camera') uploads += 1
    return upload(id, frame)
  }
  const render = (version: number) =>
    executor.render(
      plan,
      new Map<string, SourceFrame>([
        ['input:camera', { picture: one.inputs.get('input:camera')!, version, isLive: true }],
        ...inputs.map(({ id }) => [`input:${id}`, { picture, version: 1, isLive: false }] as const),
      ]),
    )
  render(1)
  expect(uploads).toBeGreaterThanOrEqual(40)
  uploads = 0
  for (let version = 2; version < 12; version += 1) render(version)
  expect(uploads).toBe(0)
  executor.dispose()
  treatments.dispose()
})

const sceneOf = (show: Show, at: number): Scene => show.scenes[at]!
const toneId = (show: Show) => show.inputs[0]!.treatment[0]!.id

function withTitle(show: Show) {
  const { layer, contents } = newTextLayer('Title', '{time}', show.canvas, () => 'title')
  const small = { ...layer, placement: { ...layer.placement, x: 5, y: 80, width: 100, height: 30 } }
  return { show: addLayer(addContents(show, contents), 'first', small), titleId: 'title', contentId: 'title' }
}
