// The studio's end of the feed, with peer connections that do what the test says.
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { FromStudio, ToStudio } from '../signal.ts'
import type { Transport } from '../transport/transport.ts'
import { StudioHost } from './studio-host.ts'

class FakeConnection {
  connectionState = 'new'
  onconnectionstatechange: (() => void) | null = null
  onicecandidate: unknown = null
  localDescription = { sdp: 'v=0' }
  readonly close = vi.fn()
  readonly setLocalDescription = vi.fn(async () => undefined)
  readonly addIceCandidate = vi.fn(async () => undefined)
  readonly setRemoteDescription = vi.fn(async ({ sdp }: { sdp: string }) => {
    if (sdp === 'nonsense') throw new Error('not an answer')
  })

  getTransceivers() {
    return []
  }
  readonly replaceTrack = vi.fn(async (_track: MediaStreamTrack) => undefined)
  addTransceiver() {
    const sender = { getParameters: () => ({}), setParameters: async () => undefined, replaceTrack: this.replaceTrack }
    return { setCodecPreferences: () => undefined, sender }
  }

  become(state: string) {
    this.connectionState = state
    this.onconnectionstatechange?.()
  }
}

const settle = () => new Promise((resolve) => setImmediate(resolve))
const track = {} as MediaStreamTrack

function setUp() {
  const made: FakeConnection[] = []
  const sent: FromStudio[] = []
  const counts: number[] = []
  const onTaken = vi.fn()
  const transport: Transport<FromStudio, ToStudio> = { send: (message) => sent.push(message), onMessage: null, onState: null, close: () => undefined }
  const connect = () => {
    const connection = new FakeConnection()
    made.push(connection)
    return connection as unknown as RTCPeerConnection
  }
  const host = new StudioHost(transport, { onCount: (count) => counts.push(count), onTaken }, null, connect)
  const hear = async (message: Extract<ToStudio, { type: 'meeting' }>['message']) => {
    transport.onMessage?.({ type: 'meeting', origin: 'http://meeting', message })
    await settle()
  }
  const answer = (session: string, sdp = 'v=0') => hear({ type: 'description', session, description: { type: 'answer', sdp } })
  return { host, transport, made, sent, counts, onTaken, hear, answer }
}

describe('StudioHost', () => {
  beforeEach(() => vi.stubGlobal('RTCRtpReceiver', { getCapabilities: () => null }))

  it('sends a new track in the sessions that run: an engine that starts again costs no meeting its session', async () => {
    const { host, hear, answer, made, sent } = setUp()
    host.setFeed(track)
    for (const session of ['one', 'two']) {
      await hear({ type: 'want', session })
      await answer(session)
    }
    made[1]!.replaceTrack.mockRejectedValueOnce(new DOMException('other sort of track', 'InvalidModificationError'))
    sent.length = 0
    const next = {} as MediaStreamTrack
    host.setFeed(next)
    await settle()
    expect(made[0]!.replaceTrack).toHaveBeenCalledExactlyOnceWith(next)
    expect(made[0]!.close).not.toHaveBeenCalled()
    // One that cannot take it is told so, and asks again.
    expect(sent).toEqual([{ type: 'bye', session: 'two' }])
    await hear({ type: 'want', session: 'three' })
    host.setFeed(null)
    expect(made[0]!.close).toHaveBeenCalled()
    expect(sent.at(-1)).toMatchObject({ type: 'feed', isOn: false })
  })

  it('counts meetings whose pictures flow, not those that ask', async () => {
    const { host, hear, answer, made, counts } = setUp()
    host.setFeed(track)
    for (const session of ['a', 'b', 'c']) await hear({ type: 'want', session })
    expect(counts).toEqual([])
    await answer('a')
    made[0]!.become('connected')
    expect(counts).toEqual([1])
    made[0]!.become('disconnected')
    made[0]!.become('connected')
    await hear({ type: 'bye', session: 'a' })
    expect(counts).toEqual([1, 0, 1, 0])
  })

  it('has room for twelve: who never answered gives way, who takes the feed does not', async () => {
    const { host, hear, answer, made, sent } = setUp()
    host.setFeed(track)
    for (let i = 0; i < 2000; i += 1) await hear({ type: 'want', session: `s${i}` })
    expect(made.filter(({ close }) => close.mock.calls.length === 0)).toHaveLength(12)
    for (let i = 1988; i < 2000; i += 1) await answer(`s${i}`)
    sent.length = 0
    await hear({ type: 'want', session: 'late' })
    expect(sent).toEqual([{ type: 'bye', session: 'late' }])
    expect(made.filter(({ close }) => close.mock.calls.length === 0)).toHaveLength(12)
  })

  it('ends the session that answers nonsense, and no other', async () => {
    const { host, hear, answer, made, sent } = setUp()
    host.setFeed(track)
    await hear({ type: 'want', session: 'bad' })
    await hear({ type: 'want', session: 'good' })
    await answer('bad', 'nonsense')
    expect(made[0]!.close).toHaveBeenCalledTimes(1)
    expect(made[1]!.close).not.toHaveBeenCalled()
    expect(sent).toContainEqual({ type: 'bye', session: 'bad' })
  })

  it('lets go of everything when another tab takes the feed, and says so', async () => {
    const { host, transport, hear, answer, made, counts, onTaken } = setUp()
    host.setFeed(track)
    await hear({ type: 'want', session: 'a' })
    await answer('a')
    made[0]!.become('connected')
    transport.onMessage?.({ type: 'feedTaken' })
    expect(onTaken).toHaveBeenCalledTimes(1)
    expect(made[0]!.close).toHaveBeenCalledTimes(1)
    expect(counts.at(-1)).toBe(0)
    await hear({ type: 'want', session: 'b' })
    expect(made).toHaveLength(1)
  })

  it('says that a feed ran before when its line was cut', () => {
    const { host, sent } = setUp()
    host.setFeed(track)
    host.announce()
    expect(sent).toEqual([
      { type: 'feed', isOn: true, isAgain: false },
      { type: 'feed', isOn: true, isAgain: true },
    ])
  })
})
