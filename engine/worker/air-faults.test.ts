// What the audience sees when something on air breaks: whole pictures, by the real executor.
import { newTextLayer } from '../../core/layers/text.ts'
import { newStep } from '../../core/steps/treatment.ts'
import { newInputLayer } from '../../core/layers/input.ts'
import { newCamera } from '../../core/inputs/camera.ts'
import { inputSourceId } from '../../core/inputs/source-ids.ts'
import { createCanvas } from '@napi-rs/canvas'
import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { parseCube } from '../../core/lut/cube.ts'
import { addContents } from '../../core/show/contents.ts'
import { newShow } from '../../core/show/create.ts'
import { addInput, addLayer } from '../../core/show/edits.ts'
import type { Show, Step } from '../../core/show/show.ts'
import { usualTransitions } from '../../core/transitions/index.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import { CpuExecutor } from '../cpu/cpu-executor.ts'
import type { Heap } from '../cpu/heap.ts'
import { Treatments } from '../cpu/treatments.ts'
import { LocalRasterMaker, type RasterCanvas, type RasterMaker } from '../raster/raster.ts'
import { RASTER_PATIENCE_MS } from './kept-plan.ts'
import { OnAir } from './on-air.ts'
import { ShowBook } from './show-book.ts'
import { SourceBook } from '../sources/source-book.ts'

const openNodeCanvas = (widthPx: number, heightPx: number): RasterCanvas => {
  const pen = createCanvas(widthPx, heightPx).getContext('2d')
  return { pen: pen as unknown as RasterCanvas['pen'], read: () => pen.getImageData(0, 0, widthPx, heightPx).data }
}
vi.mock('../raster/open-canvas.ts', () => ({
  openRasterCanvas: (widthPx: number, heightPx: number) => ({ ...openNodeCanvas(widthPx, heightPx), read: () => flat(CARD, widthPx, heightPx).data }),
}))
const CARD = [1, 2, 3] as const
const SIZE = { widthPx: 64, heightPx: 36, frameRate: 30 } as const

function flat(colour: readonly number[], widthPx: number = SIZE.widthPx, heightPx: number = SIZE.heightPx): RgbaPicture {
  const data = new Uint8ClampedArray(widthPx * heightPx * 4)
  for (let i = 0; i < data.length; i += 4) data.set([...colour, 255], i)
  return { format: 'rgba', widthPx, heightPx, data }
}

let heap: Heap
beforeAll(async () => {
  heap = await nodeHeap()
})
let count = 0
beforeEach(() => {
  count = 0
})
const makeId = () => `f${(count += 1)}`

/** A camera over all of the canvas, and another in its left half. */
function twoCameras(): { show: Show; first: string; second: string } {
  const words = { scene: 'Opening', camera: 'Camera', wall: 'Wall' }
  const bare = { ...newShow('Morning', words, makeId), canvas: SIZE }
  const one = { ...newCamera('One', { type: 'standin', standin: 'cloth' } as const, SIZE, makeId), treatment: [] }
  const two = { ...newCamera('Two', { type: 'standin', standin: 'table' } as const, SIZE, makeId), treatment: [] }
  const half = newInputLayer(two, SIZE, makeId)
  const sceneId = bare.scenes[0]!.id
  const empty: Show = { ...bare, scenes: [{ ...bare.scenes[0]!, layers: [] }] }
  const withOne = addLayer(addInput(empty, one), sceneId, newInputLayer(one, SIZE, makeId))
  const show = addLayer(addInput(withOne, two), sceneId, { ...half, placement: { ...half.placement, width: 32 } })
  return { show, first: inputSourceId(one.id), second: inputSourceId(two.id) }
}

/** Letters that are there, or that come when the test says so. */
function onAir(start: Show, letters = { areThere: true }) {
  const treatments = new Treatments(heap)
  const drawing = new LocalRasterMaker({ isReady: () => true, load: () => Promise.resolve(), stackFor: () => 'sans-serif' }, openNodeCanvas)
  let come: (() => void)[] = []
  const words: string[] = []
  const maker: RasterMaker = {
    make: (raster) => {
      if (raster.type === 'card') return flat(CARD, raster.job.widthPx, raster.job.heightPx)
      if (raster.type === 'text') words.push(raster.job.content.blocks.map(({ text }) => text).join())
      return letters.areThere ? drawing.make(raster) : new Promise((resolve) => come.push(() => resolve(drawing.make(raster))))
    },
  }
  const book = new SourceBook(() => Promise.reject(new Error('no pictures here')), maker, { onChange: () => air.invalidate(), onAssetFailed: () => undefined })
  const cameras = new Set(start.inputs.map(({ id }) => inputSourceId(id)))
  const shows = new ShowBook()
  const air: OnAir = new OnAir(new CpuExecutor(treatments), book, maker, shows, {
    isLive: (id) => cameras.has(id),
    isCamera: (id) => cameras.has(id),
  })
  book.follow(start)
  const give = (show: Show) => {
    shows.take('show', { type: 'whole', document: show })
    shows.follow(air.programme)
  }
  give(start)
  shows.openId = 'show'
  air.receive({ type: 'take', scene: { showId: 'show', sceneId: start.scenes[0]!.id }, transition: usualTransitions.cut }, 0)
  let nowMs = 0
  let versions = 0
  const live = new Map<string, readonly number[]>()
  return {
    treatments,
    /** What was drawn, in order. */
    words,
    unplug: (id: string) => {
      live.delete(id)
      book.remove(id)
    },
    plug: (id: string, colour: readonly number[]) => live.set(id, colour),
    edit: (next: Show) => {
      book.follow(next)
      give(next)
    },
    refresh: () => air.invalidate(),
    /** The letters that were waited for are there. */
    letThemCome: async () => {
      for (const each of come) each()
      come = []
      await new Promise((resolve) => setImmediate(resolve))
    },
    /** One tick; the colour at a place of what the audience sees, or "held" when it is the last picture once more. */
    see: (x: number, y: number, ms = 33): readonly number[] | 'held' => {
      nowMs += ms
      for (const [id, colour] of live) book.setLive(id, { picture: flat(colour), version: (versions += 1), isLive: true })
      const picture = air.makePictures(nowMs)
      return picture === null ? 'held' : [...picture.data.subarray((y * SIZE.widthPx + x) * 4, (y * SIZE.widthPx + x) * 4 + 3)]
    },
  }
}

const RED = [200, 0, 0] as const
const BLUE = [0, 0, 200] as const

describe('a camera that is unplugged', () => {
  it('in a scene with two: its last picture for a second, then the scene without it; with it again when it is back', () => {
    const { show, first, second } = twoCameras()
    const studio = onAir(show)
    studio.plug(first, RED)
    studio.plug(second, BLUE)
    expect([studio.see(10, 10), studio.see(50, 10)]).toEqual([[...BLUE], [...RED]])
    studio.unplug(second)
    expect(studio.see(10, 10)).toBe('held')
    expect(studio.see(10, 10, 900)).toBe('held')
    expect([studio.see(10, 10, 200), studio.see(50, 10)]).toEqual([[...RED], [...RED]])
    studio.plug(second, BLUE)
    expect(studio.see(10, 10)).toEqual([...BLUE])
  })

  it('both: their last picture for a second, then the card, and the scene as soon as one is back', () => {
    const { show, first, second } = twoCameras()
    const studio = onAir(show)
    studio.plug(first, RED)
    studio.plug(second, BLUE)
    studio.see(10, 10)
    studio.unplug(first)
    studio.unplug(second)
    expect(studio.see(10, 10)).toBe('held')
    expect(studio.see(10, 10, 1100)).toEqual([...CARD])
    studio.plug(first, RED)
    expect(studio.see(50, 10)).toEqual([...RED])
  })
})

describe('letters that are not there', () => {
  const titled = () => {
    const { show, first, second } = twoCameras()
    const { layer, contents } = newTextLayer('Title', 'II', SIZE, makeId)
    const text = { ...layer, placement: { ...layer.placement, x: 32, y: 0, width: 32, height: 36 } }
    const content = contents.map((each) =>
      each.kind === 'text'
        ? {
            ...each,
            text: {
              ...each.text,
              plate: { colour: '#00ff00', opacity: 1, paddingPx: 0, accent: null },
              blocks: each.text.blocks.map((block) => ({ ...block, sizePx: 8 })),
            },
          }
        : each,
    )
    return { show: addLayer(addContents(show, content), show.scenes[0]!.id, text), first, second, contentId: layer.contentId }
  }

  it('are waited for a moment when a scene comes; then it goes on without them, and with them when they come', async () => {
    const { show, first, second } = titled()
    const studio = onAir(show, { areThere: false })
    studio.plug(first, RED)
    studio.plug(second, BLUE)
    expect(studio.see(60, 2)).toBe('held')
    expect(studio.see(60, 2, RASTER_PATIENCE_MS - 1)).toBe('held')
    expect([studio.see(60, 2, 1), studio.see(10, 2)]).toEqual([[...RED], [...BLUE]])
    await studio.letThemCome()
    expect(studio.see(60, 2)).toEqual([0, 255, 0])
  })

  it('for words that are typed on air leave the words of before, never a hole; cameras go on meanwhile', async () => {
    const { show, first, second, contentId } = titled()
    const letters = { areThere: true }
    const studio = onAir(show, letters)
    studio.plug(first, RED)
    studio.plug(second, BLUE)
    studio.see(60, 2)
    letters.areThere = false
    const said = (text: string, colour: string): Show => ({
      ...show,
      contents: show.contents.map((content) =>
        content.id === contentId && content.kind === 'text'
          ? {
              ...content,
              text: { ...content.text, plate: { ...content.text.plate!, colour }, blocks: content.text.blocks.map((block) => ({ ...block, text })) },
            }
          : content,
      ),
    })
    studio.edit(said('蜂', '#ffff00'))
    studio.plug(second, RED)
    expect([studio.see(60, 2), studio.see(10, 2)]).toEqual([[0, 255, 0], [...RED]])
    // Typed on while the first are being drawn: those are seen as soon as they are there, then the newest.
    studio.edit(said('蜂蜜', '#ff00ff'))
    expect(studio.see(60, 2)).toEqual([0, 255, 0])
    await studio.letThemCome()
    expect(studio.see(60, 2)).toEqual([255, 255, 0])
    await studio.letThemCome()
    expect(studio.see(60, 2)).toEqual([255, 0, 255])
  })
})

it('a clock that counts down has its next second drawn before it is due', () => {
  vi.useFakeTimers({ toFake: ['Date'], now: new Date(2026, 4, 1, 12, 0, 0, 0) })
  const { show: plain, first, second } = twoCameras()
  const { layer, contents } = newTextLayer('Clock', '{countdown}', SIZE, makeId)
  const counting = { ...plain, presenter: { ...plain.presenter, countdownTo: '12:10' } }
  const studio = onAir(addLayer(addContents(counting, contents), plain.scenes[0]!.id, layer))
  studio.plug(first, RED)
  studio.plug(second, BLUE)
  const early: string[] = []
  // Ten looks a second, until 2.4 s: what is due at 3 s is not drawn yet.
  for (let tenth = 0; tenth < 25; tenth += 1) {
    vi.setSystemTime(new Date(2026, 4, 1, 12, 0, 0, tenth * 100))
    studio.see(0, 0, 100)
    early.push(studio.words.at(-1)!)
  }
  vi.useRealTimers()
  expect(studio.words).toEqual(['10:00', '9:59', '9:58'])
  expect([early[5], early[6], early[10]]).toEqual(['10:00', '9:59', '9:59'])
})

it('a look that is loaded late: the camera without it until then, never without the camera', () => {
  const { show: plain, first, second } = twoCameras()
  const hash = 'd'.repeat(64)
  const negative = parseCube('LUT_1D_SIZE 2\n1 1 1\n0 0 0\n')
  const look = { ...newStep('look', makeId), params: { look: hash, amount: 1 } } as Step
  const show: Show = { ...plain, inputs: plain.inputs.map((input) => (inputSourceId(input.id) === first ? { ...input, treatment: [look] } : input)) }
  const studio = onAir(show)
  studio.plug(first, RED)
  studio.plug(second, BLUE)
  expect(studio.see(50, 10)).toEqual([...RED])
  studio.treatments.setResources({ lut: (id) => (id === hash ? negative : null), picture: () => null })
  studio.refresh()
  expect(studio.see(50, 10)).toEqual([55, 255, 255])
  expect(studio.see(10, 10)).toEqual([...BLUE])
})
