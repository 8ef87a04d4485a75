// What goes to the feed, picture by picture: with a camera, without it, and when drawing fails.
import { inputSourceId } from '../../core/inputs/source-ids.ts'
import { afterEach, describe, expect, it, vi } from 'vitest'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { FramePlan, OutputId } from '../../core/plan/frame-plan.ts'
import { usualTransitions } from '../../core/transitions/index.ts'
import type { SourceFrames } from '../executor.ts'
import { newShow } from '../../core/show/create.ts'
import type { RasterMaker } from '../raster/raster.ts'
import { FrameLedger } from './frame-ledger.ts'
import { FeedWriter } from './feed-writer.ts'
import { WEBCAM } from '../output-order.ts'
import { OnAir } from './on-air.ts'
import { ShowBook } from './show-book.ts'
import { SourceBook } from '../sources/source-book.ts'

const flat = (value: number, widthPx = 1, heightPx = 1): RgbaPicture => ({
  format: 'rgba',
  widthPx,
  heightPx,
  data: new Uint8Array(widthPx * heightPx * 4).fill(value),
})
// The ground of the card is painted by the browser, which is not here.
vi.mock('../raster/open-canvas.ts', () => ({
  openRasterCanvas: (widthPx: number, heightPx: number) => ({ pen: noPen, read: () => flat(CARD, widthPx, heightPx).data }),
}))
const noPen = new Proxy({}, { get: () => () => noPen, set: () => true })
const CARD = 9

class FakeFrame {
  readonly data: Uint8Array
  constructor(from: Uint8Array | FakeFrame) {
    this.data = from instanceof FakeFrame ? from.data : Uint8Array.from(from)
  }
  clone() {
    return new FakeFrame(this)
  }
  close() {
    return undefined
  }
}

/** A show with one camera, an executor whose pictures carry their number, and a feed that keeps what was written. */
function onAir() {
  vi.stubGlobal('VideoFrame', FakeFrame)
  let ids = 0
  const show = newShow('Morning', { scene: 'Opening', camera: 'Camera', wall: 'Wall' }, () => `id-${(ids += 1)}`)
  const cameraId = inputSourceId(show.inputs.find((input) => input.kind === 'camera')!.id)
  const maker: RasterMaker = { make: ({ job }) => flat(CARD, job.widthPx, job.heightPx) }
  const book = new SourceBook(() => Promise.reject(new Error('no pictures here')), maker, { onChange: () => air.invalidate(), onAssetFailed: () => undefined })
  const drawing = { isBroken: false, drawn: 100 }
  const render = (): RgbaPicture => {
    if (drawing.isBroken) throw new Error('out of memory')
    drawing.drawn += 1
    return { format: 'rgba', widthPx: 1, heightPx: 1, data: new Uint8Array(4).fill(drawing.drawn) }
  }
  const executor = {
    name: 'cpu' as const,
    render,
    renderOutputs: (_plan: FramePlan, _sources: SourceFrames, ids: readonly OutputId[] = []) => new Map(ids.map((id) => [id, render()])),
    dispose: () => undefined,
  }
  const shows = new ShowBook()
  const air: OnAir = new OnAir(executor, book, maker, shows, {
    isLive: (sourceId) => sourceId === cameraId,
    isCamera: (sourceId) => sourceId === cameraId,
  })
  shows.take('show', { type: 'whole', document: show })
  shows.openId = 'show'
  air.receive({ type: 'take', scene: { showId: 'show', sceneId: show.scenes[0]!.id }, transition: usualTransitions.cut }, 0)
  const sent: number[] = []
  const feed = new WritableStream<VideoFrame>({ write: (frame) => void sent.push((frame as unknown as FakeFrame).data[0]!) }, { highWaterMark: 100 })
  book.follow(show)
  let nowMs = 0
  return {
    air,
    shows,
    show,
    open: (writable: WritableStream<VideoFrame>) => air.open(WEBCAM, new FeedWriter(writable, new FrameLedger())),
    drawing,
    sent,
    feed,
    turnOnCamera: (version = 1) =>
      book.setLive(cameraId, { picture: { format: 'rgba', widthPx: 2, heightPx: 2, data: new Uint8Array(16) }, version, isLive: true }),
    turnOffCamera: () => book.remove(cameraId),
    /** One tick of the loop, as the engine does it. */
    tick: async () => {
      nowMs += 33
      let picture: RgbaPicture | null = null
      try {
        picture = air.makePictures(nowMs)
      } catch {
        air.coverFault(nowMs)
      }
      await new Promise((resolve) => setImmediate(resolve))
      return picture
    },
    stats: (missedTicks = 5) => air.stats(WEBCAM.id, missedTicks, nowMs)!,
    passMs: (ms: number) => (nowMs += ms),
  }
}

afterEach(() => vi.unstubAllGlobals())

describe('OnAir', () => {
  it('sends the card until the camera has a picture, then the scene, and counts both', async () => {
    const { open, feed, tick, sent, turnOnCamera, stats } = onAir()
    open(feed)
    await tick()
    await tick()
    expect(sent).toEqual([CARD, CARD])
    turnOnCamera()
    await tick()
    expect(sent).toEqual([CARD, CARD, 101])
    expect(stats()).toMatchObject({ isOpen: true, sent: 3, cards: 2, lost: 0, showsCard: false })
  })

  it('counts as lost what was missed since the first picture, and forgets it after a minute', async () => {
    const { open, feed, tick, turnOnCamera, stats, passMs } = onAir()
    turnOnCamera()
    open(feed)
    // What the loop missed before the feed had a picture is nobody's loss.
    expect(stats(40)).toMatchObject({ lost: 0, lostLastMinute: 0 })
    await tick()
    stats(40)
    expect(stats(43)).toMatchObject({ lost: 3, lostLastMinute: 3 })
    passMs(30_000)
    expect(stats(45)).toMatchObject({ lost: 5, lostLastMinute: 5 })
    passMs(31_000)
    expect(stats(45)).toMatchObject({ lost: 5, lostLastMinute: 2 })
    passMs(30_000)
    expect(stats(45)).toMatchObject({ lost: 5, lostLastMinute: 0 })
  })

  it('counts the frames for which no camera had a new picture, apart from cards and from the feed before', async () => {
    const { open, feed, tick, turnOnCamera, stats } = onAir()
    open(feed)
    await tick()
    await tick()
    for (const version of [1, 2, 2, 2, 2, 3, 3]) {
      turnOnCamera(version)
      await tick()
    }
    expect(stats()).toMatchObject({ sent: 9, cards: 2, repeated: 4 })
    open(new WritableStream())
    expect(stats().repeated).toBe(0)
  })

  it('sends the last picture again for the first second without the camera, then the card', async () => {
    const { open, feed, tick, sent, turnOnCamera, turnOffCamera } = onAir()
    turnOnCamera()
    open(feed)
    await tick()
    turnOffCamera()
    for (let i = 0; i < 40; i += 1) await tick()
    expect(sent).toHaveLength(41)
    expect(sent.slice(0, 30)).toEqual(new Array(30).fill(101))
    expect(sent.at(-1)).toBe(CARD)
    expect(sent.filter((value) => value !== 101 && value !== CARD)).toEqual([])
  })

  it('sends the last whole picture again when drawing fails, the card when it keeps failing, and the scene once it is mended', async () => {
    const { air, open, feed, tick, sent, drawing, turnOnCamera } = onAir()
    turnOnCamera()
    open(feed)
    await tick()
    drawing.isBroken = true
    for (let i = 0; i < 32; i += 1) await tick()
    expect(sent.slice(0, 31)).toEqual(new Array(31).fill(101))
    expect(sent.slice(31)).toEqual([CARD, CARD])
    expect(air.showsCard).toBe(true)
    drawing.isBroken = false
    await tick()
    expect(sent.at(-1)).toBe(102)
    expect(air.showsCard).toBe(false)
    // A new fault counts from the start.
    drawing.isBroken = true
    await tick()
    expect(sent.at(-1)).toBe(102)
  })

  it('sends the card when the very first picture fails', async () => {
    const { open, feed, tick, sent, drawing, turnOnCamera } = onAir()
    turnOnCamera()
    drawing.isBroken = true
    open(feed)
    await tick()
    expect(sent).toEqual([CARD])
  })

  it('draws for the views without a feed, and covers a fault without one', async () => {
    const { air, tick, sent, drawing, turnOnCamera } = onAir()
    turnOnCamera()
    expect((await tick())?.data[0]).toBe(101)
    drawing.isBroken = true
    expect(await tick()).toBeNull()
    expect(sent).toEqual([])
    expect(air.isFeedOpen).toBe(false)
  })
})
