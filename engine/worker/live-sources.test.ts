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
    onGone: (inputId, hasEnded) => seen.push(`${inputId} ${hasEnded ? 'ended' : 'dropped'}`),
  })
  return { cameras, seen }
}

describe('cameras', () => {
  it('tell of every picture, and of nothing that an earlier supply of the same input still sends', () => {
    const { cameras, seen } = studio()
    const [first, second] = [port(), port()]
    cameras.open('desk', first.supply, true)
    first.send(1)
    cameras.open('desk', second.supply, true)
    first.send(2)
    second.send(7)
    expect(seen).toEqual(['desk 1', 'desk 7'])
    expect(first.sent).toEqual(['stop', 'closed'])
  })

  it('are dropped with the input that they were for, and closed', () => {
    const { cameras, seen } = studio()
    const [desk, table] = [port(), port()]
    cameras.open('desk', desk.supply, true)
    cameras.open('table', table.supply, true)
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
    cameras.open('desk', { type: 'stream', readable }, true)
    await expect.poll(() => seen).toEqual(['desk ended'])
    expect(cameras.stats(0)).toEqual({})
  })

  it('the frontmost that is drawn on air sets the beat; any does when none is; none without cameras', () => {
    const { cameras } = studio()
    expect(cameras.beatInputId(['input:desk'])).toBeNull()
    cameras.open('desk', port().supply, true)
    cameras.open('table', port().supply, true)
    expect(cameras.beatInputId(['input:table', 'input:desk', 'input:photo'])).toBe('desk')
    expect(cameras.beatInputId(['input:desk', 'input:table'])).toBe('table')
    expect(cameras.beatInputId(['input:photo'])).toBe('desk')
  })

  it('hold their picture while frozen', () => {
    const { cameras, seen } = studio()
    const desk = port()
    cameras.open('desk', desk.supply, true)
    cameras.freeze('desk', true)
    cameras.freeze('nobody', true)
    desk.send(1)
    expect(seen).toEqual([])
  })

  it('screens and clips never set the beat: a still screen sends nothing', () => {
    const { cameras } = studio()
    const [screen, desk] = [port(), port()]
    cameras.open('screen', screen.supply, false)
    expect(cameras.beatInputId(['input:screen'])).toBeNull()
    cameras.open('desk', desk.supply, true)
    expect(cameras.beatInputId(['input:desk', 'input:screen'])).toBe('desk')
    expect(cameras.beatInputId(['input:screen'])).toBe('desk')
    // The same input, another supply: a camera that a clip has taken the place of.
    cameras.open('desk', desk.supply, false)
    expect(cameras.beatInputId(['input:desk'])).toBeNull()
  })
})
