// Sessions that cross: a page that opens our microphone while the camera's session is still coming about asks for another.
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { FromMeeting, ToMeeting } from '../signal.ts'
import type { Transport } from '../transport/transport.ts'
import { pictureWish } from './constraints.ts'
import { Receiver } from './receiver.ts'

/** A connection whose descriptions are taken when the test says so, and refused once it is closed, as W3C WebRTC §4.4.2 has it (from memory). */
class FakeConnection {
  static readonly made: FakeConnection[] = []
  remoteDescription: unknown = null
  localDescription = { sdp: 'answer' }
  readonly candidates: RTCIceCandidateInit[] = []
  isClosed = false
  connectionState = 'new'
  ontrack: ((event: { track: object; receiver: object }) => void) | null = null
  ondatachannel: ((event: { channel: object }) => void) | null = null
  go: () => void = () => undefined

  constructor() {
    FakeConnection.made.push(this)
  }

  async setRemoteDescription(offer: unknown): Promise<void> {
    await new Promise<void>((resolve) => (this.go = resolve))
    if (this.isClosed) throw new DOMException('closed', 'InvalidStateError')
    this.remoteDescription = offer
  }

  setLocalDescription(): Promise<void> {
    return this.isClosed ? Promise.reject(new DOMException('closed', 'InvalidStateError')) : Promise.resolve()
  }

  addIceCandidate(candidate: RTCIceCandidateInit): Promise<void> {
    if (this.isClosed) return Promise.reject(new DOMException('closed', 'InvalidStateError'))
    this.candidates.push(candidate)
    return Promise.resolve()
  }

  getTransceivers = () => []
  close = () => void (this.isClosed = true)
}

class FakeGenerator {
  readonly id = 'track'
  readonly writable = { getWriter: () => ({ closed: Promise.resolve(), write: () => Promise.resolve(), close: () => Promise.resolve() }) }
  stop = () => undefined
}

class Closable {
  readonly displayWidth = 1280
  readonly displayHeight = 720
  clone = () => new Closable()
  close = () => undefined
}

const sent: FromMeeting[] = []
const sessions = () => sent.flatMap((message) => (message.type === 'want' ? [message.session] : []))
let receiver: Receiver

beforeEach(() => {
  vi.useFakeTimers()
  FakeConnection.made.length = 0
  sent.length = 0
  vi.stubGlobal('RTCPeerConnection', FakeConnection)
  vi.stubGlobal('MediaStreamTrackGenerator', FakeGenerator)
  vi.stubGlobal('VideoFrame', Closable)
  vi.stubGlobal('AudioData', Closable)
  vi.stubGlobal('document', { createElement: () => ({ getContext: () => null }) })
  const transport = { send: (message: FromMeeting) => void sent.push(message), onMessage: null, onState: null, close: () => undefined } satisfies Transport<
    FromMeeting,
    ToMeeting
  >
  receiver = new Receiver(transport, true, { widthPx: 1280, heightPx: 720, frameRate: 30 }, () => undefined)
  receiver.openTrack(pictureWish({}))
})

afterEach(() => {
  receiver.close()
  vi.unstubAllGlobals()
  vi.useRealTimers()
})

const offerTo = (session: string) => receiver.receive({ type: 'description', session, description: { type: 'offer', sdp: 'offer' } })
const candidateTo = (session: string, name: string) => receiver.receive({ type: 'candidate', session, candidate: { candidate: name } })

describe('Receiver', () => {
  it('goes on with the new session when the one before it fails for having been given up, and keeps the candidates of each apart', async () => {
    const first = sessions()[0]!
    const answering = offerTo(first)
    receiver.openSound({ channels: 2, echoCancellation: false })
    const second = sessions()[1]!
    expect(second).not.toBe(first)
    await candidateTo(second, 'of the second')
    FakeConnection.made[0]!.go()
    await answering
    expect(sent.filter(({ type }) => type === 'bye')).toEqual([{ type: 'bye', session: first }])
    const next = offerTo(second)
    FakeConnection.made[1]!.go()
    await next
    expect(sent.at(-1)).toMatchObject({ type: 'description', session: second })
    expect(FakeConnection.made[1]!.candidates).toEqual([{ candidate: 'of the second' }])
    expect(FakeConnection.made[0]!.candidates).toEqual([])
  })

  it('says so when the session that is wanted cannot be made', async () => {
    const session = sessions()[0]!
    const answering = offerTo(session)
    vi.spyOn(FakeConnection.made[0]!, 'setLocalDescription').mockRejectedValue(new Error('no such format'))
    FakeConnection.made[0]!.go()
    await expect(answering).rejects.toThrow('no such format')
  })

  /** Answers the session that was asked for last, and lets `frames` come from it. */
  async function connect(frames: ReadableStream<Closable>): Promise<FakeConnection> {
    vi.stubGlobal(
      'MediaStreamTrackProcessor',
      class {
        readonly readable = frames
      },
    )
    const answering = offerTo(sessions().at(-1)!)
    const connection = FakeConnection.made.at(-1)!
    connection.go()
    await answering
    connection.connectionState = 'connected'
    connection.ontrack!({ track: { stop: () => undefined }, receiver: {} })
    return connection
  }

  it('waits for the studio’s engine in a session that stands, and asks for another after ten seconds', async () => {
    let send: ReadableStreamDefaultController<Closable> | undefined
    await connect(new ReadableStream<Closable>({ start: (controller) => void (send = controller) }))
    send!.enqueue(new Closable())
    await vi.advanceTimersByTimeAsync(100)
    const asked = sessions().length
    await vi.advanceTimersByTimeAsync(9000)
    expect(sessions()).toHaveLength(asked)
    await vi.advanceTimersByTimeAsync(1500)
    expect(sessions()).toHaveLength(asked + 1)
  })

  it('asks for another within two seconds when the connection is lost', async () => {
    let send: ReadableStreamDefaultController<Closable> | undefined
    const connection = await connect(new ReadableStream<Closable>({ start: (controller) => void (send = controller) }))
    send!.enqueue(new Closable())
    await vi.advanceTimersByTimeAsync(100)
    const asked = sessions().length
    connection.connectionState = 'disconnected'
    await vi.advanceTimersByTimeAsync(3000)
    expect(sessions()).toHaveLength(asked + 1)
  })

  it('asks for a session with sound when the microphone is opened again after it was ended, while the camera goes on', async () => {
    receiver.openSound({ channels: 2, echoCancellation: false })
    const connection = await connect(new ReadableStream<Closable>())
    connection.ondatachannel!({ channel: { close: () => undefined } })
    receiver.end('microphone')
    const asked = sessions().length
    receiver.openSound({ channels: 2, echoCancellation: false })
    expect(sessions()).toHaveLength(asked + 1)
  })

  it('answers no session but the one it asked for last', async () => {
    await offerTo('another')
    expect(FakeConnection.made).toEqual([])
  })
})
