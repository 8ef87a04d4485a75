import { describe, expect, it } from 'vitest'
import { CHUNK_FRAMES, CHUNK_MS, unpackChunk } from '../../core/sound/voice-chunk.ts'
import { VoicePacer } from '../../core/sound/voice-pacer.ts'
import type { VoiceLevel } from './voice-protocol.ts'
import { VoiceSender, type SoundChannel } from './voice-sender.ts'

const chunk = (value = 0.5) => ({ left: new Float32Array(CHUNK_FRAMES).fill(value), right: new Float32Array(CHUNK_FRAMES).fill(value) })

function setUp() {
  const levels: VoiceLevel[] = []
  const sender = new VoiceSender((level) => levels.push(level))
  const channelWith = (part: Partial<SoundChannel> = {}) => {
    const sent: { firstFrame: number; samples: Int16Array }[] = []
    const channel = { readyState: 'open', bufferedAmount: 0, send: (bytes: ArrayBuffer) => sent.push(unpackChunk(bytes)!), ...part } as SoundChannel & {
      readyState: string
    }
    sender.add(channel)
    return { channel, sent }
  }
  return { sender, levels, channelWith }
}

describe('VoiceSender', () => {
  it('gives every open meeting every chunk, each counted on from the one before', () => {
    const { sender, channelWith } = setUp()
    const [first, second] = [channelWith(), channelWith()]
    for (let i = 0; i < 5; i += 1) sender.take(chunk(), 1000 + i * CHUNK_MS)
    expect(first.sent.map(({ firstFrame }) => firstFrame)).toEqual([48_000, 48_960, 49_920, 50_880, 51_840])
    expect(second.sent).toEqual(first.sent)
  })

  it('sends nothing to a meeting that cannot keep up, waits for one that is not open yet, forgets one that is gone', () => {
    const { sender, channelWith } = setUp()
    const slow = channelWith({ bufferedAmount: 1e6 })
    const early = channelWith({ readyState: 'connecting' })
    const gone = channelWith({ readyState: 'closed' })
    sender.take(chunk(), 0)
    ;(early.channel as { readyState: string }).readyState = 'open'
    ;(gone.channel as { readyState: string }).readyState = 'open'
    sender.take(chunk(), 10)
    expect([slow.sent.length, early.sent.length, gone.sent.length]).toEqual([0, 1, 0])
  })

  it('leaves a gap in its count for a pause, so that a receiver takes what follows for punctual', () => {
    const { sender, channelWith } = setUp()
    const { sent } = channelWith()
    sender.take(chunk(), 1000)
    sender.renew()
    sender.take(chunk(), 1900)
    const pacer = new VoicePacer()
    pacer.offer(sent[0]! as never, 1005)
    pacer.take(1005)
    pacer.offer(sent[1]! as never, 1905)
    expect(pacer.take(1906)).not.toBeNull()
    expect(pacer.dropped).toBe(0)
  })

  it('tells the level twenty-five times a second', () => {
    const { sender, levels } = setUp()
    for (let i = 0; i < 50; i += 1) sender.take(chunk(0.5), i * CHUNK_MS)
    expect(levels).toHaveLength(25)
    expect(levels.at(-1)!.left.db).toBeCloseTo(-6.02, 1)
    expect(levels.at(-1)!.onlySide).toBeNull()
  })
})
