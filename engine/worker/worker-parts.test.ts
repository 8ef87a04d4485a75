// The parts of the worker that need no worker.
// One file, though long: parts too small for one each.
import { describe, expect, it, vi } from 'vitest'
import { rgbaToI420 } from '../../tests/support/i420.ts'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { Step } from '../../core/show/show.ts'
import { chromaKeyParams } from '../../core/steps/chroma-key/params.ts'
import { defaultParams } from '../../core/steps/step.ts'
import { toneParams } from '../../core/steps/tone/params.ts'
import { LiveSource } from './live-source.ts'
import { FeedWriter } from './feed-writer.ts'
import { FrameLedger } from './frame-ledger.ts'
import { GrabQueue, type GrabRequest } from './grab-queue.ts'
import { pickColour } from './pick-colour.ts'
import { RateMeter } from './rate-meter.ts'

/** Left half one colour, right half another. */
function halves(left: readonly number[], right: readonly number[], widthPx = 64, heightPx = 32): RgbaPicture {
  const data = new Uint8Array(widthPx * heightPx * 4)
  for (let y = 0; y < heightPx; y += 1) for (let x = 0; x < widthPx; x += 1) data.set([...(x < widthPx / 2 ? left : right), 255], (y * widthPx + x) * 4)
  return { format: 'rgba', widthPx, heightPx, data }
}

describe('pickColour', () => {
  const picture = halves([43, 181, 82], [200, 140, 110])

  it('gives the mean where it was clicked', () => {
    const [red, green, blue] = pickColour(picture, [], null, 0.2, 0.5)
    expect([red * 255, green * 255, blue * 255].map(Math.round)).toEqual([43, 181, 82])
  })

  it('reads camera pictures as well', () => {
    const [red, green] = pickColour(rgbaToI420(picture), [], null, 0.2, 0.5)
    expect(Math.abs(red * 255 - 43)).toBeLessThan(3)
    expect(Math.abs(green * 255 - 181)).toBeLessThan(3)
  })

  it('gives the colour as the key meets it: after the steps before, not those behind', () => {
    const treatment: Step[] = [
      { id: 'tone', kind: 'tone', on: true, params: { ...defaultParams(toneParams), exposure: -1 } },
      { id: 'key', kind: 'chromaKey', on: true, params: { ...defaultParams(chromaKeyParams), colour: '#000000' } },
      { id: 'late', kind: 'tone', on: true, params: { ...defaultParams(toneParams), exposure: -3 } },
    ]
    const [, untreated] = pickColour(picture, treatment, null, 0.2, 0.5)
    const [, darker] = pickColour(picture, treatment, 'key', 0.2, 0.5)
    expect(darker).toBeLessThan(untreated)
    expect(darker).toBeGreaterThan(0.3)
  })

  it('stays inside the picture at its corners', () => {
    for (const [x, y] of [
      [0, 0],
      [1, 1],
      [0.999, 0],
    ] as const)
      expect(pickColour(picture, [], null, x, y).every(Number.isFinite)).toBe(true)
  })
})

describe('GrabQueue', () => {
  const request = (requestId: number): GrabRequest => ({ type: 'grab', requestId, inputId: 'camera', beforeStepId: null, layer: null })
  const picture = halves([1, 2, 3], [4, 5, 6])

  function queue() {
    const state: { picture: RgbaPicture | null; readonly answers: [number, boolean][] } = { picture: null, answers: [] }
    const grabs = new GrabQueue(
      () => state.picture,
      ({ requestId }, answer) => void state.answers.push([requestId, answer !== null]),
    )
    return { state, grabs }
  }

  it('answers at once when there is a picture', () => {
    const { state, grabs } = queue()
    state.picture = picture
    grabs.ask(request(1), 100)
    expect(state.answers).toEqual([[1, true]])
  })

  it('waits for a camera that is still starting, and answers each request once', () => {
    const { state, grabs } = queue()
    grabs.ask(request(1), 100)
    grabs.serve(1000)
    grabs.ask(request(2), 1200)
    expect(state.answers).toEqual([])
    state.picture = picture
    grabs.serve(1500)
    grabs.serve(9000)
    expect(state.answers).toEqual([
      [1, true],
      [2, true],
    ])
  })

  it('says that there is none when it has waited long enough', () => {
    const { state, grabs } = queue()
    grabs.ask(request(1), 100)
    grabs.serve(4099)
    expect(state.answers).toEqual([])
    grabs.serve(4100)
    expect(state.answers).toEqual([[1, false]])
  })
})

describe('GrabQueue, when a grab throws', () => {
  it('answers that one, lets the throw be reported, and forgets none of the others', () => {
    const request = (requestId: number): GrabRequest => ({ type: 'grab', requestId, inputId: 'camera', beforeStepId: null, layer: null })
    const answers: [number, boolean][] = []
    let isReady = false
    const grabs = new GrabQueue(
      ({ requestId }) => {
        if (!isReady) return null
        if (requestId === 1) throw new Error('broken step')
        return halves([1, 2, 3], [4, 5, 6])
      },
      ({ requestId }, answer) => void answers.push([requestId, answer !== null]),
    )
    grabs.ask(request(1), 0)
    grabs.ask(request(2), 0)
    isReady = true
    expect(() => grabs.serve(100)).toThrow('broken step')
    grabs.serve(133)
    grabs.serve(9000)
    expect(answers).toEqual([
      [1, false],
      [2, true],
    ])
  })
})

describe('RateMeter', () => {
  it('tells the rate of the last two seconds and counts everything', () => {
    const meter = new RateMeter()
    expect(meter.rate(0)).toBe(0)
    for (let i = 0; i < 90; i += 1) meter.note((i * 1000) / 30)
    expect(meter.rate(3000)).toBeCloseTo(30, 0)
    expect(meter.total).toBe(90)
    expect(meter.rate(9000)).toBe(0)
  })
})

describe('LiveSource from a port', () => {
  const frame = (frameNumber: number) => ({ frameNumber, widthPx: 4, heightPx: 2, data: new Uint8Array(12).fill(frameNumber) })

  /** A port whose far end is a list of what came back. */
  function setUp() {
    const returned: { type: string; data?: Uint8Array }[] = []
    const port = {
      onmessage: null as ((event: { data: unknown }) => void) | null,
      postMessage: (message: { type: string; data?: Uint8Array }) => returned.push(message),
      close: vi.fn(),
    }
    const onFrame = vi.fn()
    const source = LiveSource.fromPort(port as unknown as MessagePort, { onFrame, onEnd: () => undefined })
    return { source, onFrame, returned, send: (frameNumber: number) => port.onmessage!({ data: frame(frameNumber) }), port }
  }

  it('shows the newest frame and gives the one before back', () => {
    const { source, onFrame, returned, send } = setUp()
    send(1)
    send(2)
    expect(source.frameNumber).toBe(2)
    expect(source.frame?.version).toBe(2)
    expect(source.frame?.picture.data[0]).toBe(2)
    expect(onFrame).toHaveBeenCalledTimes(2)
    expect(returned.map(({ data }) => data?.[0])).toEqual([1])
  })

  it('holds the picture while frozen, and returns what comes', () => {
    const { source, returned, send } = setUp()
    send(1)
    source.freeze(true)
    send(2)
    expect(source.frame?.picture.data[0]).toBe(1)
    expect(returned.map(({ data }) => data?.[0])).toEqual([2])
    source.freeze(false)
    send(3)
    expect(source.frame?.picture.data[0]).toBe(3)
  })

  it('stops the camera when closed, once', () => {
    const { source, returned, send, port } = setUp()
    source.close()
    source.close()
    send(4)
    expect(source.frame).toBeNull()
    expect(returned).toEqual([{ type: 'stop' }])
    expect(port.close).toHaveBeenCalledTimes(1)
  })
})

describe('LiveSource from a stream', () => {
  /** A frame as a device gives it. */
  function fakeFrame(luma: number, format: 'I420' | 'NV12') {
    return {
      format,
      visibleRect: { width: 4, height: 2 },
      codedWidth: 4,
      codedHeight: 2,
      colorSpace: { matrix: null, fullRange: false },
      close: vi.fn(),
      copyTo: async (out: Uint8Array) => {
        out.fill(luma)
        if (format === 'NV12') out.set([10, 20, 11, 21], 8)
        return []
      },
    }
  }

  it.each(['I420', 'NV12'] as const)('copies %s frames, closes every one, and tells the end', async (format) => {
    const ledger = new FrameLedger()
    const frames = [1, 2, 3, 4].map((luma) => fakeFrame(luma, format))
    const stream = new ReadableStream<VideoFrame>({
      start(controller) {
        for (const frame of frames) controller.enqueue(frame as unknown as VideoFrame)
        controller.close()
      },
    })
    const ended = new Promise<void>((resolve) => {
      const source = LiveSource.fromStream(stream, ledger, {
        onFrame: () => undefined,
        onEnd: () => {
          expect(source.frame?.version).toBe(4)
          expect(source.frame?.picture).toMatchObject({ format: 'i420', widthPx: 4, heightPx: 2, matrix: 'bt601' })
          if (format === 'NV12') expect([...source.frame!.picture.data.subarray(8)]).toEqual([10, 11, 20, 21])
          resolve()
        },
      })
    })
    await ended
    for (const frame of frames) expect(frame.close).toHaveBeenCalledTimes(1)
    expect(ledger.open).toBe(0)
  })
})

describe('FeedWriter', () => {
  const picture = halves([0, 0, 0], [255, 255, 255], 4, 2)

  function setUp() {
    class FakeFrame {
      close = vi.fn()
      constructor(
        readonly data: unknown,
        readonly init: VideoFrameBufferInit,
      ) {
        made.push(this)
      }
      clone() {
        return { close: vi.fn(), of: this }
      }
    }
    const made: FakeFrame[] = []
    vi.stubGlobal('VideoFrame', FakeFrame)
    const accepts: (() => void)[] = []
    const written: unknown[] = []
    const writable = new WritableStream<VideoFrame>({
      write: (frame) => {
        written.push(frame)
        return new Promise<void>((resolve) => accepts.push(resolve))
      },
    })
    const ledger = new FrameLedger()
    return { writer: new FeedWriter(writable, ledger), ledger, made, written, accepts, settle: () => new Promise((resolve) => setTimeout(resolve)) }
  }

  it('sends opaque frames of the picture’s size and hands them over', async () => {
    const { writer, ledger, made, accepts, settle } = setUp()
    await settle()
    writer.send(picture, 1000)
    expect(made[0]!.init).toMatchObject({ format: 'RGBX', codedWidth: 4, codedHeight: 2, timestamp: 1_000_000 })
    // One on its way, and the last one held.
    expect(ledger.open).toBe(2)
    await settle()
    accepts.splice(0).forEach((accept) => accept())
    await settle()
    expect(ledger.open).toBe(1)
    writer.close()
    expect(ledger.open).toBe(0)
    expect(writer.meter.total).toBe(1)
  })

  it('sends the last picture once more on demand, with a time of its own', async () => {
    const { writer, ledger, made, settle } = setUp()
    await settle()
    expect(writer.repeat(0)).toBe(false)
    writer.send(picture, 1000)
    expect(writer.repeat(1033)).toBe(true)
    expect(made[1]!.data).toMatchObject({ of: made[0] })
    expect(made[1]!.init).toEqual({ timestamp: 1_033_000 })
    writer.send(picture, 1066)
    // The clone of the first was closed when the second took its place.
    expect(ledger.open).toBe(4)
  })

  it('drops frames, and counts them, when the track does not take them', async () => {
    const { writer, ledger, settle } = setUp()
    await settle()
    for (let i = 0; i < 10; i += 1) writer.send(picture, i * 33)
    expect(ledger.open).toBe(4)
    expect(writer.dropped).toBe(7)
  })

  it('makes no frame after it was closed', async () => {
    const { writer, made, settle } = setUp()
    await settle()
    writer.close()
    writer.close()
    writer.send(picture, 0)
    expect(made).toHaveLength(0)
  })
})
