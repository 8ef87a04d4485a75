import { describe, expect, it } from 'vitest'
import type { LiveSupply } from '../protocol.ts'
import { LiveSources } from './live-sources.ts'
import { FrameLedger } from './frame-ledger.ts'

/** A stand-in's port: frames come when they are sent. */
function port() {
  const sent: string[] = []
  const end = {
    onmessage: null as ((event: { data: unknown }) => void) | null,
    postMessage: (message: { type: string }) => sent.push(message.type),
    close: () => sent.push('closed'),
  }
  return {
    sent,
    supply: { type: 'port', port: end as unknown as MessagePort } as LiveSupply,
    send: (frameNumber: number) => end.onmessage!({ data: { frameNumber, widthPx: 4, heightPx: 2, data: new Uint8Array(12) } }),
  }
}

function studio() {
  const seen: string[] = []
  const cameras = new LiveSources(new FrameLedger(), {
    onFrame: (inputId, { frameNumber }) => seen.push(`${inputId} ${frameNumber}`),
    onGone: (inputId, ended) => seen.push(`${inputId} ${ended === null ? 'dropped' : ended.fault === null ? 'ended' : `failed: ${ended.fault}`}`),
  })
  return { cameras, seen }
}

describe('cameras', () => {
  it('tell of every picture, and of nothing that an earlier supply of the same input still sends', () => {
    const { cameras, seen } = studio()
    const [first, second] = [port(), port()]
    cameras.open('desk', { supply: first.supply, serial: 1, setsBeat: true })
    first.send(1)
    cameras.open('desk', { supply: second.supply, serial: 1, setsBeat: true })
    first.send(2)
    second.send(7)
    expect(seen).toEqual(['desk 1', 'desk 7'])
    expect(first.sent).toEqual(['stop', 'closed'])
  })

  it('are dropped with the input that they were for, and closed', () => {
    const { cameras, seen } = studio()
    const [desk, table] = [port(), port()]
    cameras.open('desk', { supply: desk.supply, serial: 1, setsBeat: true })
    cameras.open('table', { supply: table.supply, serial: 1, setsBeat: true })
    cameras.keepOnly(new Set(['table', 'nobody']))
    expect(seen).toEqual(['desk dropped'])
    expect(desk.sent).toContain('closed')
    table.send(1)
    expect(cameras.stats(0)).toMatchObject({ table: { frameNumber: 1, widthPx: 4, heightPx: 2 } })
    expect(Object.keys(cameras.stats(0))).toEqual(['table'])
  })

  it('that end by themselves say so, once', async () => {
    const { cameras, seen } = studio()
    const readable = new ReadableStream<VideoFrame>({ start: (controller) => controller.close() })
    cameras.open('desk', { supply: { type: 'stream', readable }, serial: 1, setsBeat: true })
    await expect.poll(() => seen).toEqual(['desk ended'])
    expect(cameras.stats(0)).toEqual({})
  })

  it('the frontmost that is drawn on air sets the beat; any does when none is; none without cameras', () => {
    const { cameras } = studio()
    expect(cameras.beatInputId(['input:desk'])).toBeNull()
    cameras.open('desk', { supply: port().supply, serial: 1, setsBeat: true })
    cameras.open('table', { supply: port().supply, serial: 1, setsBeat: true })
    expect(cameras.beatInputId(['input:table', 'input:desk', 'input:photo'])).toBe('desk')
    expect(cameras.beatInputId(['input:desk', 'input:table'])).toBe('table')
    expect(cameras.beatInputId(['input:photo'])).toBe('desk')
  })

  it('hold their picture while frozen', () => {
    const { cameras, seen } = studio()
    const desk = port()
    cameras.open('desk', { supply: desk.supply, serial: 1, setsBeat: true })
    cameras.freeze('desk', true)
    cameras.freeze('nobody', true)
    desk.send(1)
    expect(seen).toEqual([])
  })

  it('screens and clips never set the beat: a still screen sends nothing', () => {
    const { cameras } = studio()
    const [screen, desk] = [port(), port()]
    cameras.open('screen', { supply: screen.supply, serial: 1, setsBeat: false })
    expect(cameras.beatInputId(['input:screen'])).toBeNull()
    cameras.open('desk', { supply: desk.supply, serial: 1, setsBeat: true })
    expect(cameras.beatInputId(['input:desk', 'input:screen'])).toBe('desk')
    expect(cameras.beatInputId(['input:screen'])).toBe('desk')
    // The same input, another supply: a camera that a clip has taken the place of.
    cameras.open('desk', { supply: desk.supply, serial: 1, setsBeat: false })
    expect(cameras.beatInputId(['input:desk'])).toBeNull()
  })
})

describe('a device’s pictures', () => {
  /** A frame that can be copied, or cannot. */
  const frame = (isWhole: boolean) => {
    const closed: string[] = []
    const made = {
      format: 'I420',
      codedWidth: 4,
      codedHeight: 2,
      visibleRect: { width: 4, height: 2 },
      timestamp: 0,
      colorSpace: { fullRange: false, matrix: 'bt709' },
      copyTo: () => (isWhole ? Promise.resolve([]) : Promise.reject(new Error('the frame was taken away'))),
      close: () => closed.push('closed'),
    }
    return { made: made as unknown as VideoFrame, closed }
  }
  const openStream = (frames: readonly VideoFrame[], end: 'close' | 'error') => {
    const ledger = new FrameLedger()
    const seen: string[] = []
    let tell: () => void = () => undefined
    const over = new Promise<void>((resolve) => (tell = resolve))
    const cameras = new LiveSources(ledger, {
      onFrame: () => seen.push('picture'),
      onGone: (_inputId, ended) => {
        seen.push(ended?.fault ?? 'ended')
        tell()
      },
    })
    const waiting = [...frames]
    const readable = new ReadableStream<VideoFrame>({
      pull: (controller) => {
        const next = waiting.shift()
        if (next !== undefined) controller.enqueue(next)
        else if (end === 'close') controller.close()
        else controller.error(new Error('the device does not answer'))
      },
    })
    cameras.open('desk', { supply: { type: 'stream', readable }, serial: 1, setsBeat: true })
    return { ledger, seen, over }
  }

  it('that cannot be read any more are a fault that is told, not silence', async () => {
    const { ledger, seen, over } = openStream([frame(true).made], 'error')
    await over
    expect(seen).toEqual(['picture', 'the device does not answer'])
    expect(ledger.open).toBe(0)
  })

  it('rest while nobody looks: the first is read and the others let go, until somebody does', async () => {
    const ledger = new FrameLedger()
    const seen: string[] = []
    const cameras = new LiveSources(ledger, { onFrame: () => seen.push('picture'), onGone: () => seen.push('gone') })
    let give: (frame: VideoFrame) => void = () => undefined
    const readable = new ReadableStream<VideoFrame>({ start: (controller) => void (give = (one) => controller.enqueue(one)) })
    cameras.rest(true)
    cameras.open('desk', { supply: { type: 'stream', readable }, serial: 1, setsBeat: true })
    const frames = Array.from({ length: 5 }, () => frame(true))
    for (const { made } of frames) give(made)
    await expect.poll(() => frames.map(({ closed }) => closed.length)).toEqual([1, 1, 1, 1, 1])
    expect(seen).toEqual(['picture'])
    cameras.rest(false)
    give(frame(true).made)
    await expect.poll(() => seen).toEqual(['picture', 'picture'])
    expect(ledger.open).toBe(0)
  })

  it('of which single ones cannot be copied go on; a camera that gives no whole one any more is given up and said so', async () => {
    const broken = Array.from({ length: 9 }, () => frame(false).made)
    const going = openStream([...broken, frame(true).made, ...broken, frame(true).made], 'close')
    await going.over
    expect(going.seen).toEqual(['picture', 'picture', 'ended'])
    expect(going.ledger.open).toBe(0)
    const failing = openStream([frame(true).made, ...broken, frame(false).made, frame(true).made], 'close')
    await failing.over
    expect(failing.seen).toEqual(['picture', 'the frame was taken away'])
    expect(failing.ledger.open).toBe(0)
  })
})
