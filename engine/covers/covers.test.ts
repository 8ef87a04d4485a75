// Stills of scenes of any show, drawn by the real executor: pictures that come late, never, or fifty times at once.
import { newScreen } from '../../core/inputs/screen.ts'
import { newInputLayer } from '../../core/layers/input.ts'
import { beforeAll, describe, expect, it } from 'vitest'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { addInput, addLayer } from '../../core/show/edits.ts'
import { newShow } from '../../core/show/create.ts'
import type { Input, Show } from '../../core/show/show.ts'
import { nodeHeap } from '../../server/cli/node-engine.ts'
import { CpuExecutor } from '../cpu/cpu-executor.ts'
import type { Heap } from '../cpu/heap.ts'
import { Treatments } from '../cpu/treatments.ts'
import type { LoadedStill } from '../still/still-protocol.ts'
import { Covers } from './covers.ts'
import { SourceBook } from '../sources/source-book.ts'

let heap: Heap
beforeAll(async () => {
  heap = await nodeHeap()
})

const RED = 'a'.repeat(64)
const still = (red: number): LoadedStill => ({
  picture: { format: 'rgba', widthPx: 2, heightPx: 2, data: Uint8Array.from({ length: 16 }, (_, i) => [red, 0, 0, 255][i % 4]!) },
  isOpaque: true,
})
let count = 0
const makeId = () => `c${(count += 1)}`

/** A wall, a person where the camera will be, and a picture in front of the left half. */
function showWithPicture(): Show {
  const show = newShow('Morning', { scene: 'Opening', camera: 'Camera', wall: 'Wall' }, makeId)
  const input: Input = { id: makeId(), kind: 'picture', name: 'Red', asset: RED, treatment: [] }
  const layer = newInputLayer(input, show.canvas, makeId)
  const left = { ...layer, placement: { ...layer.placement, width: 320, fit: 'stretch' as const } }
  return addLayer(addInput(show, input), show.scenes[0]!.id, left)
}

/** Covers whose pictures and timers are the test's. */
function covers() {
  const loads: { readonly resolve: (one: LoadedStill) => void; readonly reject: (error: Error) => void }[] = []
  const timers: (() => void)[] = []
  const answers = new Map<number, RgbaPicture | null>()
  let pens = 0
  const made = new Covers(
    (events) =>
      new SourceBook(
        () => new Promise((resolve, reject) => loads.push({ resolve, reject })),
        { make: () => Promise.reject(new Error('no words here')) },
        events,
      ),
    () => {
      const treatments = new Treatments(heap)
      const executor = new CpuExecutor(treatments)
      pens += 1
      return {
        executor,
        dispose: () => {
          pens -= 1
          executor.dispose()
          treatments.dispose()
        },
      }
    },
    (requestId, picture) => answers.set(requestId, picture),
    (run) => {
      timers.push(run)
      return () => timers.splice(timers.indexOf(run), 1)
    },
  )
  const settle = () => new Promise((resolve) => setImmediate(resolve))
  const ask = (requestId: number, show: Show, sceneId = show.scenes[0]!.id) => made.ask({ type: 'cover', requestId, show, sceneId, widthPx: 128 })
  return { made, ask, loads, timers, answers, settle, pens: () => pens }
}

const pixel = ({ data, widthPx }: RgbaPicture, x: number, y: number) => [...data.slice((y * widthPx + x) * 4, (y * widthPx + x) * 4 + 3)]
const WALL = [0x8f, 0xa3, 0x96]

describe('Covers', () => {
  it('draws a scene small, once its pictures are there, with a person where the camera will be', async () => {
    const { ask, loads, answers, settle, timers, pens } = covers()
    ask(1, showWithPicture())
    await settle()
    expect(answers.size).toBe(0)
    loads[0]!.resolve(still(200))
    await settle()
    const picture = answers.get(1)!
    expect([picture.widthPx, picture.heightPx]).toEqual([128, 72])
    expect(pixel(picture, 10, 36)).toEqual([200, 0, 0])
    expect(pixel(picture, 120, 5)).toEqual(WALL)
    // Shoulders: darker than the wall, which shows through.
    const shoulder = pixel(picture, 64, 68)
    expect(shoulder[0]).toBeGreaterThan(0x1d)
    expect(shoulder[0]).toBeLessThan(WALL[0]! - 20)
    await settle()
    expect([timers.length, pens()]).toEqual([0, 0])
  })

  it('waits for no screen and no film: a window and a film are drawn, of an animation its first picture', async () => {
    const base = newShow('Morning', { scene: 'Opening', camera: 'Camera', wall: 'Wall' }, makeId)
    const clip: Input = { id: makeId(), kind: 'clip', name: 'Loop', asset: RED, fromMs: 0, toMs: null, rate: 1, loops: true, moving: null, treatment: [] }
    const screen = newScreen('Screen', { type: 'shared', label: '' }, makeId)
    const onLeft = (input: Input): Show => {
      const layer = newInputLayer(input, base.canvas, makeId)
      const left = { ...layer, placement: { ...layer.placement, width: 320, fit: 'stretch' as const } }
      return addLayer(addInput(base, input), base.scenes[0]!.id, left)
    }
    const { ask, loads, answers, settle, timers } = covers()
    ask(1, onLeft(screen))
    await settle()
    // Paper, but for the lines that are cut out of it.
    expect(pixel(answers.get(1)!, 1, 1)).toEqual([0xf1, 0xf3, 0xee])
    ask(2, onLeft(clip))
    await settle()
    loads[0]!.resolve(still(77))
    await settle()
    expect(pixel(answers.get(2)!, 10, 36)).toEqual([77, 0, 0])
    ask(3, onLeft(clip))
    await settle()
    loads[1]!.reject(new Error('a film'))
    await settle()
    expect(pixel(answers.get(3)!, 2, 5)).toEqual([0x4c, 0x62, 0x59])
    expect(timers).toEqual([])
  })

  it('leaves out what cannot be loaded, and what has not come in time', async () => {
    const { ask, loads, answers, settle, timers } = covers()
    ask(1, showWithPicture())
    ask(2, showWithPicture())
    await settle()
    loads[0]!.reject(new Error('gone'))
    await settle()
    expect(pixel(answers.get(1)!, 10, 5)).toEqual(WALL)
    expect(answers.has(2)).toBe(false)
    timers[0]!()
    await settle()
    expect(pixel(answers.get(2)!, 10, 5)).toEqual(WALL)
  })

  it('answers fifty in turn, and leaves out those that nobody waits for any more', async () => {
    const { made, ask, loads, answers, settle } = covers()
    const show = showWithPicture()
    for (let i = 0; i < 50; i += 1) ask(i, show)
    for (let i = 10; i < 40; i += 1) made.giveUp(i)
    for (let done = 0; done < 20; done += 1) {
      await settle()
      loads[done]!.resolve(still(done))
      await settle()
    }
    expect([...answers.keys()]).toEqual([...Array.from({ length: 10 }, (_, i) => i), ...Array.from({ length: 10 }, (_, i) => 40 + i)])
    expect(pixel(answers.get(45)!, 10, 36)).toEqual([15, 0, 0])
  })

  it('says when a scene cannot be drawn, and goes on with the next', async () => {
    const { ask, answers, settle, loads } = covers()
    ask(1, showWithPicture(), 'nowhere')
    ask(2, showWithPicture())
    await settle()
    loads[0]!.resolve(still(9))
    await settle()
    expect(answers.get(1)).toBeNull()
    expect(answers.get(2)).not.toBeNull()
  })
})
