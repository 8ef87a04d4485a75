// The studio's side: sends the feed to every meeting page that asks.
import type { FeedFormat, FromStudio, ToStudio, FromMeeting } from '../signal.ts'
import type { Transport } from '../transport/transport.ts'
import { stampCaptureTimes, withStartBitrate } from '../sdp.ts'

const MAX_BITRATE = 8_000_000
const START_BITRATE_KBPS = 4000
/** Tracks sent at once; each costs an encoder. */
const MOST_SESSIONS = 12
/** A browser gathers a handful for one address; more are nobody's. */
const MOST_EARLY_CANDIDATES = 32

interface Session {
  readonly connection: RTCPeerConnection
  /** Sends the picture; null until the session is offered. */
  sender: RTCRtpSender | null
  readonly early: RTCIceCandidateInit[]
  hasAnswer: boolean
  /** Whether pictures can flow; only such a session counts as a meeting. */
  isConnected: boolean
}

export interface StudioHostEvents {
  /** How many meetings take the feed. */
  readonly onCount: (count: number) => void
  /** Another tab sends the feed now; this one's has ended. */
  readonly onTaken: () => void
}

/** Who fills the sound channels. */
export interface VoiceSender {
  /** Takes a channel over, which is open until its connection ends. */
  add(channel: RTCDataChannel): void
}

export class StudioHost {
  readonly #transport: Transport<FromStudio, ToStudio>
  readonly #sessions = new Map<string, Session>()
  readonly #events: StudioHostEvents
  readonly #connect: () => RTCPeerConnection
  #track: MediaStreamTrack | null = null
  #format: FeedFormat | undefined
  readonly #voice: VoiceSender | null
  #count = 0

  /** `voice` sends the sound beside the picture. `connect` makes a peer connection; a test may give its own. */
  constructor(transport: Transport<FromStudio, ToStudio>, events: StudioHostEvents, voice: VoiceSender | null = null, connect = () => new RTCPeerConnection()) {
    this.#transport = transport
    this.#events = events
    this.#voice = voice
    this.#connect = connect
    transport.onMessage = (message) => {
      if (message.type === 'feedTaken') return this.#taken()
      const { session } = message.message
      // A session that cannot be made, or answers nonsense, ends by itself; the others go on.
      this.#receive(message.message).catch(() => this.#end(session, true))
    }
  }

  /**
   * Offers a track to meetings, or none. One that takes the place of another is sent in the sessions that run, so that a meeting waits for
   * no new one. `isAgain`: the feed ran before, and must not take another tab's place.
   */
  setFeed(track: MediaStreamTrack | null, isAgain = false, format?: FeedFormat): void {
    this.#format = format
    if (track === this.#track) return
    const isReplaced = track !== null && this.#track !== null
    this.#track = track
    if (isReplaced) return this.#replace(track)
    this.#endAll()
    this.announce(isAgain)
  }

  /** The show that is on air has another size or rate now. */
  setFormat(format: FeedFormat): void {
    this.#format = format
    if (this.#track !== null) this.announce()
  }

  /** Says again whether the feed runs, after the transport came back. */
  announce(isAgain = true): void {
    this.#transport.send({ type: 'feed', isOn: this.#track !== null, isAgain, ...(this.#format === undefined ? {} : { format: this.#format }) })
  }

  dispose(): void {
    this.setFeed(null)
    this.#transport.close()
  }

  #taken(): void {
    this.#endAll()
    this.#track = null
    this.#events.onTaken()
  }

  async #receive(message: FromMeeting): Promise<void> {
    switch (message.type) {
      case 'want':
        return this.#offer(message.session)
      case 'description': {
        const session = this.#sessions.get(message.session)
        if (session === undefined) return
        const answer = { type: message.description.type, sdp: withStartBitrate(message.description.sdp, START_BITRATE_KBPS) }
        await session.connection.setRemoteDescription(answer)
        session.hasAnswer = true
        for (const candidate of session.early.splice(0)) await session.connection.addIceCandidate(candidate)
        return
      }
      case 'candidate': {
        const session = this.#sessions.get(message.session)
        if (session === undefined) return
        const candidate = message.candidate as RTCIceCandidateInit
        if (session.hasAnswer) await session.connection.addIceCandidate(candidate)
        else if (session.early.length < MOST_EARLY_CANDIDATES) session.early.push(candidate)
        return
      }
      case 'bye':
        return this.#end(message.session, false)
      default:
        message satisfies never
    }
  }

  async #offer(sessionId: string): Promise<void> {
    this.#end(sessionId, false)
    const track = this.#track
    if (track === null) return
    if (!this.#makeRoom()) return this.#transport.send({ type: 'bye', session: sessionId })
    const connection = this.#connect()
    const session: Session = { connection, sender: null, early: [], hasAnswer: false, isConnected: false }
    this.#sessions.set(sessionId, session)
    connection.onicecandidate = ({ candidate }) => {
      if (candidate !== null) this.#transport.send({ type: 'candidate', session: sessionId, candidate: candidate.toJSON() as { candidate: string } })
    }
    connection.onconnectionstatechange = () => {
      const { connectionState } = connection
      session.isConnected = connectionState === 'connected'
      this.#tellCount()
      if (connectionState === 'failed' || connectionState === 'closed') this.#end(sessionId, true)
    }
    const transceiver = connection.addTransceiver(track, {
      direction: 'sendonly',
      sendEncodings: [{ maxBitrate: MAX_BITRATE, priority: 'high' }],
    })
    session.sender = transceiver.sender
    // Sound that comes late is of no use; the receiver waits for nothing that was lost.
    this.#voice?.add(connection.createDataChannel('voice', { ordered: true, maxRetransmits: 0 }))
    preferCodecs(transceiver)
    stampCaptureTimes(connection)
    await keepResolution(transceiver.sender)
    await connection.setLocalDescription()
    this.#transport.send({ type: 'description', session: sessionId, description: { type: 'offer', sdp: connection.localDescription!.sdp } })
  }

  #replace(track: MediaStreamTrack): void {
    for (const [sessionId, { sender }] of this.#sessions) {
      if (sender === null) this.#end(sessionId, true)
      // One that takes no other track is asked for again by its meeting.
      else sender.replaceTrack(track).catch(() => this.#end(sessionId, true))
    }
  }

  /** Whether one more session fits; the oldest that never answered gives way. */
  #makeRoom(): boolean {
    if (this.#sessions.size < MOST_SESSIONS) return true
    for (const [sessionId, session] of this.#sessions) {
      if (session.hasAnswer) continue
      this.#end(sessionId, true)
      return true
    }
    return false
  }

  #endAll(): void {
    for (const session of [...this.#sessions.keys()]) this.#end(session, true)
  }

  #end(sessionId: string, tell: boolean): void {
    const session = this.#sessions.get(sessionId)
    if (session === undefined) return
    this.#sessions.delete(sessionId)
    session.connection.onconnectionstatechange = null
    session.connection.close()
    if (tell) this.#transport.send({ type: 'bye', session: sessionId })
    this.#tellCount()
  }

  #tellCount(): void {
    let count = 0
    for (const session of this.#sessions.values()) if (session.isConnected) count += 1
    if (count === this.#count) return
    this.#count = count
    this.#events.onCount(count)
  }
}

/** H.264 first, then VP8: the cheapest here to make and to read in real time. */
function preferCodecs(transceiver: RTCRtpTransceiver): void {
  const codecs = RTCRtpReceiver.getCapabilities('video')?.codecs ?? []
  const rank = (codec: RTCRtpCodec) => (codec.mimeType === 'video/H264' ? 0 : codec.mimeType === 'video/VP8' ? 1 : 2)
  transceiver.setCodecPreferences([...codecs].sort((first, second) => rank(first) - rank(second)))
}

/** Without this the encoder starts small and grows for half a minute. */
async function keepResolution(sender: RTCRtpSender): Promise<void> {
  const parameters = sender.getParameters() as RTCRtpSendParameters & { degradationPreference?: string }
  parameters.degradationPreference = 'maintain-resolution'
  await sender.setParameters(parameters)
}
