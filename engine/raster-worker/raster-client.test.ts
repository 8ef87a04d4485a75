// The line to the worker that draws: who goes first, and what happens when it dies.
import { describe, expect, it, vi } from 'vitest'
import type { Show } from '../../core/show/show.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import { URGENCY, type Raster } from '../raster/raster.ts'
import type { FromRaster, ToRaster } from './protocol.ts'
import { RasterClient, type DrawingWorker } from './raster-client.ts'

const card = (title: string): Raster => ({ type: 'card', job: { widthPx: 1, heightPx: 1, title, detail: '' } })
const picture: RgbaPicture = { format: 'rgba', widthPx: 1, heightPx: 1, data: new Uint8Array(4) }

/** Workers in the test's hands. */
function drawing() {
  const workers: { readonly worker: DrawingWorker; readonly got: ToRaster[]; isGone: boolean }[] = []
  const onCover = vi.fn()
  const client = new RasterClient(
    { fonts: [], wasmUrl: '', assetUrlPrefix: '' },
    () => {
      const one = { got: [] as ToRaster[], isGone: false, worker: null as unknown as DrawingWorker }
      one.worker = { postMessage: (message: ToRaster) => void one.got.push(message), terminate: () => (one.isGone = true), onmessage: null, onerror: null }
      workers.push(one)
      return one.worker
    },
    onCover,
  )
  const titles = (index = workers.length - 1) =>
    workers[index]!.got.flatMap((message) => (message.type === 'draw' && message.raster.type === 'card' ? [message.raster.job.title] : []))
  const answer = (title: string) => {
    const { got, worker } = workers.at(-1)!
    const draw = got.find((message) => message.type === 'draw' && message.raster.type === 'card' && message.raster.job.title === title)
    const data: FromRaster = { type: 'drawn', requestId: (draw as { requestId: number }).requestId, picture }
    worker.onmessage!.call(worker as Worker, { data } as MessageEvent)
  }
  const die = () => workers.at(-1)!.worker.onerror!.call(null as never, { message: 'out of memory' } as ErrorEvent)
  return { client, workers, titles, answer, die, onCover }
}

describe('RasterClient', () => {
  it('starts its worker with the first thing to draw, and gives it what the audience waits for first', async () => {
    const { client, workers, titles, answer } = drawing()
    expect(workers).toHaveLength(0)
    const all = [client.make(card('a'), URGENCY.small), client.make(card('b'), URGENCY.small), client.make(card('c'), URGENCY.small)]
    const air = client.make(card('air'), URGENCY.air)
    client.make(card('stage'), URGENCY.stage).catch(() => undefined)
    expect(workers[0]!.got[0]).toMatchObject({ type: 'start' })
    expect(titles()).toEqual(['a', 'b'])
    answer('a')
    expect(titles()).toEqual(['a', 'b', 'air'])
    answer('air')
    expect(await air).toBe(picture)
    answer('stage')
    expect(titles()).toEqual(['a', 'b', 'air', 'stage', 'c'])
    answer('b')
    answer('c')
    expect(await Promise.all(all)).toEqual([picture, picture, picture])
  })

  it('asks a new worker for what a dead one had, in order; what two died of is given up, the rest goes on', async () => {
    const { client, workers, titles, answer, die } = drawing()
    const bad = client.make(card('bad'), URGENCY.small)
    const also = client.make(card('also'), URGENCY.small)
    const later = client.make(card('later'), URGENCY.small)
    die()
    expect([workers.length, workers[0]!.isGone, titles()]).toEqual([2, true, ['bad', 'also']])
    answer('also')
    expect(await also).toBe(picture)
    expect(titles()).toEqual(['bad', 'also', 'later'])
    die()
    await expect(bad).rejects.toThrow('out of memory')
    expect([workers.length, titles()]).toEqual([3, ['later']])
    answer('later')
    expect(await later).toBe(picture)
  })

  it('replaces a worker that does not answer, and not one that is only slow', async () => {
    vi.useFakeTimers()
    const { client, workers, titles, answer } = drawing()
    const slow = [client.make(card('a'), URGENCY.air), client.make(card('b'), URGENCY.air)]
    vi.advanceTimersByTime(14_000)
    answer('a')
    vi.advanceTimersByTime(14_000)
    expect(workers).toHaveLength(1)
    vi.advanceTimersByTime(1000)
    expect([workers.length, titles()]).toEqual([2, ['b']])
    answer('b')
    vi.advanceTimersByTime(60_000)
    expect(workers).toHaveLength(2)
    vi.useRealTimers()
    expect(await Promise.all(slow)).toEqual([picture, picture])
  })

  it('answers a cover once; none that was dropped; nothing where the worker died', () => {
    const { client, workers, die, onCover } = drawing()
    const cover = (requestId: number) => client.cover({ type: 'cover', requestId, show: {} as Show, sceneId: 's', widthPx: 10 })
    const tell = (requestId: number) => workers[0]!.worker.onmessage!.call(null as never, { data: { type: 'covered', requestId, picture } } as MessageEvent)
    for (const requestId of [1, 2, 3]) cover(requestId)
    client.dropCover(2)
    client.dropCover(99)
    for (const requestId of [1, 2, 1]) tell(requestId)
    expect(onCover.mock.calls).toEqual([[1, picture]])
    expect(workers[0]!.got.filter(({ type }) => type === 'dropCover')).toHaveLength(1)
    die()
    expect(onCover.mock.calls.slice(1)).toEqual([[3, null]])
  })
})
