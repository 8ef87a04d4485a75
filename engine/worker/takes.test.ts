// A hundred takes at random moments, by random transitions that are interrupted, with graphics that come and go: every tick sends one picture, and
// each is what the reference draws of a stage that this test keeps by itself.
import { beforeAll, expect, it, vi } from 'vitest'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { newInputLayer } from '../../core/layers/input.ts'
import { layersOf } from '../../core/layers/tree.ts'
import { lastsMs, type Appearance } from '../../core/motion/appearance.ts'
import { namedEasings } from '../../core/motion/easing.ts'
import { seededRandom } from '../../core/random/seeded.ts'
import { renderReference } from '../../core/render/render-reference.ts'
import { newScene, newShow } from '../../core/show/create.ts'
import { addInput, addScene } from '../../core/show/edits.ts'
import type { Input, Layer, Scene, Show } from '../../core/show/show.ts'
import { planOutputs } from '../../core/stage/plan-frame.ts'
import { goTo, settled, type SceneStage, type Stage } from '../../core/stage/stage.ts'
import { usualTransitions, type Transition } from '../../core/transitions/index.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import { parseHex } from '../../core/colour/hex.ts'
import { CpuExecutor } from '../cpu/cpu-executor.ts'
import type { Heap } from '../cpu/heap.ts'
import { Treatments } from '../cpu/treatments.ts'
import type { RasterMaker } from '../raster/raster.ts'
import { SourceBook } from '../sources/source-book.ts'
import { WEBCAM } from '../output-order.ts'
import { OnAir } from './on-air.ts'
import { ShowBook } from './show-book.ts'

const SIZE = { widthPx: 48, heightPx: 28, frameRate: 30 } as const
const TICK_MS = 1000 / 30
const TAKES = 100
/** The processor's path works in 8 bits (docs/parity.md). */
const NEAR = 4

vi.mock('../raster/open-canvas.ts', () => ({
  openRasterCanvas: (widthPx: number, heightPx: number) => ({ pen: {}, read: () => new Uint8ClampedArray(widthPx * heightPx * 4) }),
}))

let heap: Heap
beforeAll(async () => {
  heap = await nodeHeap()
})
let count = 0
const makeId = () => `t${(count += 1)}`

const moves = (kind: Appearance['kind'], durationMs: number, delayMs: number, side: Appearance['side']): Appearance => ({
  kind,
  durationMs,
  delayMs,
  side,
  easing: namedEasings.easeOut,
})

/** Scenes of plain walls with smaller ones on them, and graphics that come and go in every way that needs no words. */
function library(): Show {
  const bare = { ...newShow('Takes', { scene: '', camera: '', wall: '' }, makeId), canvas: SIZE, inputs: [] as Input[], scenes: [] as Scene[] }
  const colours = ['#c02020', '#2040c0', '#20a040', '#d0c020', '#808080', '#ffffff']
  const inputs = colours.map((colour, index): Input => ({ id: `wall-${index}`, kind: 'colour', name: colour, colour, treatment: [] }))
  let show: Show = inputs.reduce<Show>(addInput, bare)
  const layer = (input: number, part: Partial<Layer['placement']>, way: Partial<Pick<Layer, 'entrance' | 'exit'>> = {}): Layer => {
    const made = newInputLayer(inputs[input]!, SIZE, makeId)
    return { ...made, ...way, placement: { ...made.placement, ...part } }
  }
  for (let index = 0; index < 4; index += 1) {
    const box = { x: 4 + index * 9, y: 5 + index * 3, width: 12 + index * 2, height: 10 }
    show = addScene(show, {
      ...newScene(`Scene ${index}`, makeId),
      id: `scene-${index}`,
      layers: [layer(index, {}), layer(4, box, index % 2 === 0 ? {} : { entrance: moves('slide', 300, 80, 'left'), exit: moves('fade', 200, 0, 'left') })],
    })
  }
  for (const [index, kind] of (['fade', 'slide', 'grow', 'wipe'] as const).entries()) {
    const way = { entrance: moves(kind, 240 + 60 * index, 40 * index, 'right'), exit: moves(kind, 160, 30 * index, 'left') }
    show = addScene(show, {
      ...newScene(`Graphic ${index}`, makeId),
      id: `graphic-${index}`,
      graphic: { key: null },
      layers: [layer(5, { x: 3 + 11 * index, y: 20, width: 9, height: 5 }, way)],
    })
  }
  return show
}

const longestExit = (scene: Scene) => Math.max(0, ...layersOf(scene).map(({ exit }) => lastsMs(exit)))

it(`${TAKES} takes: no picture is lost, repeated in place of another, or anything but what its moment is`, () => {
  const show = library()
  const random = seededRandom(2101)
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const treatments = new Treatments(heap)
  const maker: RasterMaker = {
    make: ({ job }) => ({ format: 'rgba', widthPx: job.widthPx, heightPx: job.heightPx, data: new Uint8ClampedArray(job.widthPx * job.heightPx * 4) }),
  }
  const book = new SourceBook(() => Promise.reject(new Error('no pictures here')), maker, { onChange: () => air.invalidate(), onAssetFailed: () => undefined })
  const showBook = new ShowBook()
  const air: OnAir = new OnAir(new CpuExecutor(treatments), book, maker, showBook, { isLive: () => false, isCamera: () => false })
  showBook.openId = 'open'
  showBook.take('open', { type: 'whole', document: show })
  book.follow(showBook.together ?? show)

  const sent: (RgbaPicture | 'repeat')[] = []
  const scenes = show.scenes.filter(({ graphic }) => graphic === null)
  const graphics = show.scenes.filter(({ graphic }) => graphic !== null)
  let nowMs = 5000
  air.receive({ type: 'take', scene: { showId: 'open', sceneId: scenes[0]!.id }, transition: usualTransitions.cut }, nowMs)
  air.open(WEBCAM, {
    send: (picture) => void sent.push({ ...picture, data: picture.data.slice() } as RgbaPicture),
    repeat: () => sent.push('repeat') > 0,
    close: () => undefined,
    dropped: 0,
    meter: { rate: () => 0, total: 0 },
  })
  book.follow(showBook.together ?? show)

  // What this test knows of the programme: a stage, and what lies over it.
  let stage: Stage = { scene: scenes[0]! }
  let over: SceneStage[] = []
  let [takes, interrupted, ticks, graphicMessages] = [0, 0, 0, 0]
  const infos = new Map(book.infos)
  const pictures = new Map(show.inputs.map((input) => [`colour:${(input as { colour: string }).colour}`, plainPicture((input as { colour: string }).colour)]))

  while (takes < TAKES) {
    nowMs += TICK_MS
    if (random() < 0.14) {
      const scene = pick(scenes)
      const transition: Transition = { ...pick(Object.values(usualTransitions)), durationMs: pick([1, 40, 200, 500, 900]) }
      const goal = 'to' in stage ? stage.to.scene : stage.scene
      air.receive({ type: 'take', scene: { showId: 'open', sceneId: scene.id }, transition }, nowMs)
      if (scene.id !== goal.id) {
        takes += 1
        if ('to' in settled(stage, nowMs)) interrupted += 1
        stage = transition.kind === 'cut' ? { scene, enteredMs: nowMs } : goTo(stage, scene, transition, nowMs)
      }
    }
    if (random() < 0.2) {
      const scene = pick(graphics)
      graphicMessages += 1
      const isOn = over.some((one) => one.scene.id === scene.id && one.leavesMs === undefined)
      if (isOn && random() < 0.7) {
        air.receive({ type: 'hideGraphic', id: scene.id }, nowMs)
        over = over.map((one) => (one.scene.id === scene.id ? { ...one, leavesMs: nowMs } : one))
      } else if (!isOn) {
        air.receive({ type: 'showGraphic', id: scene.id, scene: { showId: 'open', sceneId: scene.id } }, nowMs)
        over = [...over.filter((one) => one.scene.id !== scene.id), { scene, enteredMs: nowMs }]
      }
    }
    over = over.filter((one) => one.leavesMs === undefined || nowMs < one.leavesMs + longestExit(one.scene))
    stage = settled(stage, nowMs)

    const before = sent.length
    air.makePictures(nowMs)
    ticks += 1
    expect(sent.length - before, `one picture at tick ${ticks}`).toBe(1)
    const picture = sent.at(-1)!
    const plan = planOutputs(show, { webcam: { stage, over, scale: 1 } }, nowMs, infos)
    const expected = renderReference(plan, pictures).data
    const shown = picture === 'repeat' ? (sent.findLast((one) => one !== 'repeat') as RgbaPicture) : picture
    let most = 0
    for (let at = 0; at < expected.length; at += 1) if (at % 4 < 3) most = Math.max(most, Math.abs(expected[at]! * 255 - shown.data[at]!))
    expect(most, `tick ${ticks}, ${'to' in stage ? stage.transition.kind : 'at rest'}`).toBeLessThanOrEqual(NEAR)
  }
  expect(interrupted, 'transitions that were interrupted').toBeGreaterThan(20)
  expect(graphicMessages).toBeGreaterThan(50)
})

function plainPicture(colour: string): RgbaPicture {
  return { format: 'rgba', widthPx: 1, heightPx: 1, data: Uint8ClampedArray.from([...parseHex(colour).map((value) => value * 255), 255]) }
}
