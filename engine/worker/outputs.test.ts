// Several ways out of one programme, by the real executor: each its own picture, size, rate and judgement.
import { beforeAll, describe, expect, it, vi } from 'vitest'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { Transition } from '../../core/transitions/index.ts'
import { usualTransitions } from '../../core/transitions/index.ts'
import { newInputLayer } from '../../core/layers/input.ts'
import { newScene, newShow } from '../../core/show/create.ts'
import { addInput, addLayer, addScene } from '../../core/show/edits.ts'
import type { Input, Show } from '../../core/show/show.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import { CpuExecutor } from '../cpu/cpu-executor.ts'
import type { Heap } from '../cpu/heap.ts'
import { Treatments } from '../cpu/treatments.ts'
import type { RasterMaker } from '../raster/raster.ts'
import { SourceBook } from '../sources/source-book.ts'
import { WEBCAM, type OutputOrder } from '../output-order.ts'
import { OnAir } from './on-air.ts'
import type { Sink } from './output.ts'
import { ShowBook } from './show-book.ts'

const SIZE = { widthPx: 64, heightPx: 36, frameRate: 30 } as const
const CARD = [1, 2, 3] as const
const flat = (colour: readonly number[], widthPx: number, heightPx: number): RgbaPicture => {
  const data = new Uint8ClampedArray(widthPx * heightPx * 4)
  for (let i = 0; i < data.length; i += 4) data.set([...colour, 255], i)
  return { format: 'rgba', widthPx, heightPx, data }
}
vi.mock('../raster/open-canvas.ts', () => ({
  openRasterCanvas: (widthPx: number, heightPx: number) => ({ pen: noPen, read: () => flat(CARD, widthPx, heightPx).data }),
}))
const noPen = new Proxy({}, { get: () => () => noPen, set: () => true })

let heap: Heap
beforeAll(async () => {
  heap = await nodeHeap()
})
let count = 0
const makeId = () => `o${(count += 1)}`

/** A show whose scenes are plain walls: `red` and `blue` all over, `mark` in the left half. */
function walls(): Show {
  const bare = { ...newShow('Walls', { scene: 'Red', camera: 'Camera', wall: 'Wall' }, makeId), canvas: SIZE, inputs: [] as Input[] }
  let show: Show = { ...bare, scenes: [] }
  for (const [id, colour, width] of [
    ['red', '#c80000', 64],
    ['blue', '#0000c8', 64],
    ['mark', '#00c800', 32],
  ] as const) {
    const input: Input = { id: `${id} wall`, kind: 'colour', name: id, colour, treatment: [] }
    const layer = newInputLayer(input, SIZE, makeId)
    show = addScene(addInput(show, input), { ...newScene(id, makeId), id })
    show = addLayer(show, id, { ...layer, placement: { ...layer.placement, width } })
  }
  return show
}

/** A sink that keeps the colour of two pixels of what it gets: one in the left half, one in the right. */
function paper() {
  const got: string[] = []
  const sizes: string[] = []
  const sink: Sink = {
    send: ({ data, widthPx, heightPx }) => {
      const at = (x: number) => [...data.slice((Math.floor(heightPx / 2) * widthPx + x) * 4, (Math.floor(heightPx / 2) * widthPx + x) * 4 + 3)].join()
      got.push(`${at(Math.floor(widthPx / 4))} ${at(Math.floor((widthPx * 3) / 4))}`)
      sizes.push(`${widthPx}×${heightPx}`)
    },
    repeat: () => got.length > 0 && got.push(got.at(-1)!) > 0,
    close: () => void got.push('closed'),
    dropped: 0,
    meter: { rate: () => 0, total: 0 },
  }
  return { sink, got, sizes }
}

const RED = '200,0,0'
const BLUE = '0,0,200'
const GREEN = '0,200,0'

function studio(shows: Readonly<Record<string, Show>> = { open: walls() }) {
  const treatments = new Treatments(heap)
  const maker: RasterMaker = { make: ({ job }) => flat(CARD, job.widthPx, job.heightPx) }
  const book = new SourceBook(() => Promise.reject(new Error('no pictures here')), maker, { onChange: () => air.invalidate(), onAssetFailed: () => undefined })
  const showBook = new ShowBook()
  const executor = new CpuExecutor(treatments)
  const drawn = vi.spyOn(executor, 'renderOutputs')
  const air: OnAir = new OnAir(executor, book, maker, showBook, { isLive: () => false, isCamera: () => false })
  const give = (showId: string, show: Show) => {
    showBook.take(showId, { type: 'whole', document: show })
    showBook.follow(air.programme)
    const { together } = showBook
    if (together !== null) book.follow(together)
  }
  showBook.openId = 'open'
  for (const [showId, show] of Object.entries(shows)) give(showId, show)
  let nowMs = 1000
  const take = (sceneId: string, transition: Transition = usualTransitions.cut, showId = 'open') => {
    air.receive({ type: 'take', scene: { showId, sceneId }, transition }, nowMs)
    const { together } = showBook
    if (together !== null) book.follow(together)
  }
  const tick = (ms = 33) => air.makePictures((nowMs += ms))
  return { air, showBook, give, take, tick, drawn, at: () => nowMs }
}

describe('two outputs', () => {
  const clean: OutputOrder = { id: 'recording', routing: { graphics: false }, scale: 1, everyTicks: 1 }

  it('get what they carry: graphics go to the one that has them', () => {
    const { air, take, tick, at } = studio()
    const [webcam, recording] = [paper(), paper()]
    take('red')
    air.open(WEBCAM, webcam.sink)
    air.open(clean, recording.sink)
    tick()
    air.receive({ type: 'showGraphic', id: 'mark', scene: { showId: 'open', sceneId: 'mark' } }, at())
    tick()
    take('blue')
    tick()
    air.receive({ type: 'hideAllGraphics' }, at())
    tick()
    expect(webcam.got).toEqual([`${RED} ${RED}`, `${GREEN} ${RED}`, `${GREEN} ${BLUE}`, `${BLUE} ${BLUE}`])
    expect(recording.got).toEqual([`${RED} ${RED}`, `${RED} ${RED}`, `${BLUE} ${BLUE}`, `${BLUE} ${BLUE}`])
  })

  it('have sizes and rates of their own, and what is not due is not drawn', () => {
    const { air, take, tick, drawn } = studio()
    const [webcam, small] = [paper(), paper()]
    take('red')
    air.open(WEBCAM, webcam.sink)
    air.open({ id: 'window', routing: { graphics: true }, scale: 0.5, everyTicks: 3 }, small.sink)
    for (let i = 0; i < 9; i += 1) tick()
    expect([webcam.got.length, small.got.length]).toEqual([9, 3])
    expect([webcam.sizes[0], small.sizes[0]]).toEqual(['64×36', '32×18'])
    expect(drawn.mock.calls.map((call) => call[2]!.length)).toEqual([1, 1, 2, 1, 1, 2, 1, 1, 2])
  })

  it('both get the card, each in its size; closing one leaves the other', () => {
    const { air, take, tick, at } = studio()
    const [webcam, small] = [paper(), paper()]
    take('red')
    air.open(WEBCAM, webcam.sink)
    air.open({ id: 'window', routing: { graphics: true }, scale: 0.5, everyTicks: 1 }, small.sink)
    air.receive({ type: 'card', isShown: true }, at())
    tick()
    expect([webcam.got, small.got]).toEqual([[`${CARD.join()} ${CARD.join()}`], [`${CARD.join()} ${CARD.join()}`]])
    expect(small.sizes).toEqual(['32×18'])
    take('red')
    air.close('window')
    tick()
    expect(small.got.at(-1)).toBe('closed')
    expect(webcam.got.at(-1)).toBe(`${RED} ${RED}`)
    expect(air.stats('window', 0, at())).toBeNull()
    expect(air.stats('webcam', 0, at())).toMatchObject({ isOpen: true, cards: 1 })
  })

  it('each have the last picture once more when drawing fails', () => {
    const { air, take, tick, drawn, at } = studio()
    const [webcam, recording] = [paper(), paper()]
    take('red')
    air.open(WEBCAM, webcam.sink)
    air.open(clean, recording.sink)
    tick()
    drawn.mockImplementationOnce(() => {
      throw new Error('out of memory')
    })
    expect(() => tick()).toThrow('out of memory')
    air.coverFault(at())
    tick()
    for (const { got } of [webcam, recording]) expect(got).toEqual(Array(3).fill(`${RED} ${RED}`))
  })
})

describe('what is on air', () => {
  const half = usualTransitions.dissolve.durationMs / 2

  it('dissolves from a show that was closed into the open one', () => {
    const held = walls()
    const { air, showBook, take, tick } = studio({ held, open: walls() })
    const webcam = paper()
    take('red', usualTransitions.cut, 'held')
    air.open(WEBCAM, webcam.sink)
    tick()
    showBook.drop('held')
    tick()
    take('blue', usualTransitions.dissolve)
    tick(half)
    tick(half)
    expect(webcam.got).toEqual([`${RED} ${RED}`, `${RED} ${RED}`, '100,0,100 100,0,100', `${BLUE} ${BLUE}`])
  })

  it('is the newest state that still had the scene, when the scene is deleted', () => {
    const show = walls()
    const { air, give, take, tick } = studio({ open: show })
    const webcam = paper()
    take('red')
    air.open(WEBCAM, webcam.sink)
    const halved = { ...show, scenes: show.scenes.map((scene) => (scene.id === 'red' ? { ...scene, layers: show.scenes[2]!.layers } : scene)) }
    give('open', halved)
    tick()
    give('open', { ...halved, scenes: halved.scenes.slice(1) })
    tick()
    expect(webcam.got).toEqual([`${GREEN} 0,0,0`, `${GREEN} 0,0,0`])
    expect(air.seenScene).toEqual({ showId: 'open', sceneId: 'red' })
  })

  it('shows edits in the middle of a transition, unless they are held; then when they are let go', () => {
    const show = walls()
    const bare = (sceneId: string): Show => ({ ...show, scenes: show.scenes.map((scene) => (scene.id === sceneId ? { ...scene, layers: [] } : scene)) })
    const { air, give, take, tick, at } = studio({ open: show })
    const webcam = paper()
    take('red')
    air.open(WEBCAM, webcam.sink)
    take('blue', usualTransitions.dissolve)
    tick(half)
    give('open', bare('red'))
    tick(0)
    expect(webcam.got).toEqual(['100,0,100 100,0,100', '0,0,100 0,0,100'])
    give('open', show)
    tick(half)
    air.receive({ type: 'holdEdits', holds: true }, at())
    give('open', { ...show, scenes: show.scenes.map((scene) => ({ ...scene, layers: show.scenes[0]!.layers })) })
    tick()
    expect(webcam.got.at(-1)).toBe(`${BLUE} ${BLUE}`)
    air.receive({ type: 'holdEdits', holds: false }, at())
    tick()
    expect(webcam.got.at(-1)).toBe(`${RED} ${RED}`)
  })
})
