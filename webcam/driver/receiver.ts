// The meeting's side of the feed: one track that never ends by itself. It carries the studio's
// frames while they come and the holding card while they don't.
import type { FromMeeting, ToMeeting } from '../signal.ts'
import type { Transport } from '../transport/transport.ts'
import { makeCard } from './card.ts'

const CARD_AFTER_MS = 700
const CARD_EVERY_MS = 200
const WANT_AGAIN_MS = 2000
const MOST_PENDING_WRITES = 4

/** Size and rate of what arrives now. */
export interface ReceivedFormat {
  readonly widthPx: number
  readonly heightPx: number
  readonly frameRate: number
}

export class Receiver {
  readonly #transport: Transport<FromMeeting, ToMeeting>
  readonly #generator = new MediaStreamTrackGenerator({ kind: 'video' })
  readonly #writer: WritableStreamDefaultWriter<VideoFrame>
  readonly #timer: ReturnType<typeof setInterval>
  #card: HTMLCanvasElement
  #format: ReceivedFormat = { widthPx: 1280, heightPx: 720, frameRate: 30 }
  #connection: RTCPeerConnection | null = null
  #session = ''
  #early: RTCIceCandidateInit[] = []
  #lastLiveMs = -Infinity
  #lastWantMs = -Infinity
  #isFeedOn = false
  #isClosed = false
  #pendingWrites = 0

  constructor(transport: Transport<FromMeeting, ToMeeting>, isFeedOn: boolean) {
    this.#transport = transport
    this.#isFeedOn = isFeedOn
    this.#writer = this.#generator.writable.getWriter()
    this.#card = makeCard(this.#format.widthPx, this.#format.heightPx)
    this.#timer = setInterval(() => this.#watch(), CARD_EVERY_MS)
    this.#watch()
  }

  /** The lasting track; give out clones of it. */
  get track(): MediaStreamTrack {
    return this.#generator
  }

  get format(): ReceivedFormat {
    return this.#format
  }

  /** Acts on a message for this page. */
  async receive(message: ToMeeting): Promise<void> {
    switch (message.type) {
      case 'studio':
        // Only "bye" ends a running picture: a server that restarts knows nothing of it for a moment.
        this.#isFeedOn = message.isFeedOn
        if (message.isFeedOn && !this.#isLive) this.#want()
        return
      case 'description':
        if (message.session === this.#session) await this.#answer(message.description)
        return
      case 'candidate': {
        if (message.session !== this.#session) return
        const candidate = message.candidate as RTCIceCandidateInit
        if (this.#connection?.remoteDescription) await this.#connection.addIceCandidate(candidate)
        else this.#early.push(candidate)
        return
      }
      case 'bye':
        if (message.session === this.#session) this.#hangUp(false)
        return
      default:
        message satisfies never
    }
  }

  /** Gives the session under way up; another is asked for in a moment. */
  abandon(): void {
    this.#hangUp(true)
  }

  /** Ends the track and leaves the studio. Safe to call twice. */
  close(): void {
    if (this.#isClosed) return
    this.#isClosed = true
    clearInterval(this.#timer)
    this.#hangUp(true)
    this.#writer.close().catch(() => undefined)
    this.#generator.stop()
  }

  get #isLive(): boolean {
    return performance.now() - this.#lastLiveMs <= CARD_AFTER_MS
  }

  #watch(): void {
    if (this.#isLive) return
    const now = performance.now()
    this.#write(new VideoFrame(this.#card, { timestamp: Math.round(now * 1000) }))
    if (this.#isFeedOn && now - this.#lastWantMs > WANT_AGAIN_MS) this.#want()
  }

  #want(): void {
    this.#hangUp(true)
    this.#lastWantMs = performance.now()
    this.#session = crypto.randomUUID()
    this.#transport.send({ type: 'want', session: this.#session })
  }

  async #answer(offer: RTCSessionDescriptionInit): Promise<void> {
    const connection = new RTCPeerConnection()
    const session = this.#session
    this.#connection = connection
    connection.onicecandidate = ({ candidate }) => {
      if (candidate !== null) this.#transport.send({ type: 'candidate', session, candidate: candidate.toJSON() as { candidate: string } })
    }
    connection.ontrack = ({ track, receiver }) => {
      // Freshness before smoothness: the studio's frames are already paced.
      ;(receiver as RTCRtpReceiver & { jitterBufferTarget: number | null }).jitterBufferTarget = 0
      void this.#pump(track, connection)
    }
    await connection.setRemoteDescription(offer)
    await connection.setLocalDescription()
    this.#transport.send({ type: 'description', session, description: { type: 'answer', sdp: connection.localDescription!.sdp } })
    for (const candidate of this.#early.splice(0)) await connection.addIceCandidate(candidate)
  }

  async #pump(track: MediaStreamTrack, connection: RTCPeerConnection): Promise<void> {
    const reader = new MediaStreamTrackProcessor({ track: track as MediaStreamVideoTrack, maxBufferSize: MOST_PENDING_WRITES }).readable.getReader()
    for (;;) {
      const { done, value } = await reader.read()
      if (done || value === undefined) return
      if (this.#connection !== connection || this.#isClosed) {
        value.close()
        void reader.cancel()
        return
      }
      this.#lastLiveMs = performance.now()
      this.#noteSize(value)
      this.#write(value)
    }
  }

  #noteSize(frame: VideoFrame): void {
    const { displayWidth: widthPx, displayHeight: heightPx } = frame
    if (widthPx === this.#format.widthPx && heightPx === this.#format.heightPx) return
    this.#format = { ...this.#format, widthPx, heightPx }
    this.#card = makeCard(widthPx, heightPx)
  }

  /** Hands a frame to the track, which closes it. */
  #write(frame: VideoFrame): void {
    // A short burst is let through; a track nobody reads is not filled up.
    if (this.#pendingWrites >= MOST_PENDING_WRITES) return frame.close()
    this.#pendingWrites += 1
    this.#writer.write(frame).then(
      () => (this.#pendingWrites -= 1),
      () => {
        this.#pendingWrites -= 1
        frame.close()
      },
    )
  }

  #hangUp(tell: boolean): void {
    if (tell && this.#session !== '') this.#transport.send({ type: 'bye', session: this.#session })
    this.#connection?.close()
    this.#connection = null
    this.#session = ''
    this.#early = []
  }
}
