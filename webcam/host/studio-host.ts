// The studio's side: sends the feed to every meeting page that asks.
import type { FromStudio, ToStudio, FromMeeting } from '../signal.ts'
import type { Transport } from '../transport/transport.ts'
import { withStartBitrate } from './sdp.ts'

const MAX_BITRATE = 8_000_000
const START_BITRATE_KBPS = 4000

interface Session {
  readonly connection: RTCPeerConnection
  readonly early: RTCIceCandidateInit[]
  hasAnswer: boolean
}

export class StudioHost {
  readonly #transport: Transport<FromStudio, ToStudio>
  readonly #sessions = new Map<string, Session>()
  readonly #onCount: (count: number) => void
  #track: MediaStreamTrack | null = null

  /** `onCount` hears how many meetings take the feed. */
  constructor(transport: Transport<FromStudio, ToStudio>, onCount: (count: number) => void) {
    this.#transport = transport
    this.#onCount = onCount
    transport.onMessage = ({ message }) => void this.#receive(message)
  }

  /** Offers a track to meetings, or none. */
  setFeed(track: MediaStreamTrack | null): void {
    if (track === this.#track) return
    for (const session of [...this.#sessions.keys()]) this.#end(session, true)
    this.#track = track
    this.announce()
  }

  /** Says again whether the feed runs, after the transport came back. */
  announce(): void {
    this.#transport.send({ type: 'feed', isOn: this.#track !== null })
  }

  dispose(): void {
    this.setFeed(null)
    this.#transport.close()
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
        else session.early.push(candidate)
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
    const connection = new RTCPeerConnection()
    this.#sessions.set(sessionId, { connection, early: [], hasAnswer: false })
    this.#onCount(this.#sessions.size)
    connection.onicecandidate = ({ candidate }) => {
      if (candidate !== null) this.#transport.send({ type: 'candidate', session: sessionId, candidate: candidate.toJSON() as { candidate: string } })
    }
    connection.onconnectionstatechange = () => {
      if (connection.connectionState === 'failed' || connection.connectionState === 'closed') this.#end(sessionId, true)
    }
    const transceiver = connection.addTransceiver(track, {
      direction: 'sendonly',
      sendEncodings: [{ maxBitrate: MAX_BITRATE, priority: 'high' }],
    })
    preferCodecs(transceiver)
    await keepResolution(transceiver.sender)
    await connection.setLocalDescription()
    this.#transport.send({ type: 'description', session: sessionId, description: { type: 'offer', sdp: connection.localDescription!.sdp } })
  }

  #end(sessionId: string, tell: boolean): void {
    const session = this.#sessions.get(sessionId)
    if (session === undefined) return
    this.#sessions.delete(sessionId)
    session.connection.onconnectionstatechange = null
    session.connection.close()
    if (tell) this.#transport.send({ type: 'bye', session: sessionId })
    this.#onCount(this.#sessions.size)
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
