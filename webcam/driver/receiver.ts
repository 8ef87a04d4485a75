// The meeting's side of the feed: tracks that never end by themselves. They carry the studio's
// frames while they come and the holding card while they don't.
import type { FeedFormat, FromMeeting, ToMeeting } from '../signal.ts'
import type { Transport } from '../transport/transport.ts'
import { Card } from './card.ts'
import type { PictureFormat, PictureWish } from './constraints.ts'
import { PictureOutlet } from './picture-outlet.ts'
import { PictureScaler } from './picture-scaler.ts'
import type { SoundWish } from './sound-constraints.ts'
import { stampCaptureTimes } from '../sdp.ts'
import { VoiceReceiver, type MakeVoiceWorker } from './voice-receiver.ts'

const CARD_AFTER_MS = 700
const CARD_EVERY_MS = 200
const WANT_AGAIN_MS = 2000
/** A session that stands while no picture comes waits for the studio's engine to start again, but not for ever. */
const STALLED_MS = 10_000
const FRAMES_BUFFERED = 4

export class Receiver {
  readonly #transport: Transport<FromMeeting, ToMeeting>
  readonly #outlets = new Set<PictureOutlet>()
  readonly #scaler = new PictureScaler()
  readonly #voice: VoiceReceiver
  readonly #onIdle: () => void
  readonly #timer: ReturnType<typeof setInterval>
  #card: Card
  #format: PictureFormat
  #connection: RTCPeerConnection | null = null
  #session = ''
  #early: RTCIceCandidateInit[] = []
  #lastLiveMs = -Infinity
  #lastWantMs = -Infinity
  #hasVoice = false
  #isFeedOn = false
  #isClosed = false

  /** `format`: of the show, as far as it is known. `onIdle` hears when the last track has been stopped. */
  constructor(
    transport: Transport<FromMeeting, ToMeeting>,
    isFeedOn: boolean,
    format: PictureFormat,
    onIdle: () => void,
    makeVoiceWorker: MakeVoiceWorker | null = null,
  ) {
    this.#transport = transport
    this.#isFeedOn = isFeedOn
    this.#format = format
    this.#onIdle = onIdle
    this.#voice = new VoiceReceiver(() => this.#tellIdle(), makeVoiceWorker)
    this.#card = new Card(this.#format.widthPx, this.#format.heightPx)
    this.#timer = setInterval(() => this.#watch(), CARD_EVERY_MS)
    this.#watch()
  }

  /** Size and rate of the show: what its pictures are meant to have, however few of them a busy machine lets through. */
  get format(): PictureFormat {
    return this.#format
  }

  /** A new track that gives the feed as `wish` says. Its first picture is there at once. */
  openTrack(wish: PictureWish): MediaStreamTrack {
    const outlet = new PictureOutlet(wish, (over) => this.#forget(over))
    this.#outlets.add(outlet)
    if (!this.#isLive) this.#sendCard()
    return outlet.track
  }

  /** A new track that gives the studio's sound. */
  openSound(wish: SoundWish): MediaStreamTrack {
    const track = this.#voice.open(wish.channels)
    // A session that was made for the picture alone has no sound.
    if (this.#connection !== null && !this.#hasVoice) this.#want()
    return track
  }

  /** Changes what a track gives. A track that is not of this feed is left alone. */
  changePicture(trackId: string, wish: PictureWish): void {
    for (const outlet of this.#outlets) if (outlet.track.id === trackId) outlet.wish = wish
  }

  changeSound(trackId: string, wish: SoundWish): void {
    this.#voice.change(trackId, wish.channels)
  }

  /** Ends every track of a kind. */
  end(kind: 'camera' | 'microphone'): void {
    if (kind === 'microphone') {
      this.#voice.close()
      // Its channel went with it: sound that is opened again needs a session of its own.
      this.#hasVoice = false
    } else {
      for (const outlet of this.#outlets) outlet.close()
      this.#outlets.clear()
    }
    this.#tellIdle()
  }

  /** Acts on a message for this page. */
  async receive(message: ToMeeting): Promise<void> {
    switch (message.type) {
      case 'studio':
        // Only "bye" ends a running picture: a server that restarts knows nothing of it for a moment.
        this.#isFeedOn = message.isFeedOn
        if (message.format !== undefined) this.#setFormat(message.format)
        if (message.isFeedOn && !this.#isLive) this.#want()
        return
      case 'description':
        if (message.session === this.#session) await this.#answer(message.description)
        return
      case 'candidate': {
        if (message.session !== this.#session) return
        const candidate = message.candidate as RTCIceCandidateInit
        const connection = this.#connection
        if (connection?.remoteDescription) await this.#during(connection, () => connection.addIceCandidate(candidate))
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

  /** Ends every track and leaves the studio. Safe to call twice. */
  close(): void {
    if (this.#isClosed) return
    this.#isClosed = true
    clearInterval(this.#timer)
    this.#hangUp(true)
    for (const outlet of this.#outlets) outlet.close()
    this.#outlets.clear()
    this.#voice.close()
  }

  #forget(outlet: PictureOutlet): void {
    this.#outlets.delete(outlet)
    this.#tellIdle()
  }

  #tellIdle(): void {
    if (this.#outlets.size === 0 && this.#voice.size === 0) this.#onIdle()
  }

  get #isLive(): boolean {
    return performance.now() - this.#lastLiveMs <= CARD_AFTER_MS
  }

  #watch(): void {
    this.#voice.watch()
    if (this.#isLive) return
    this.#sendCard()
    const now = performance.now()
    const hasSession = this.#connection?.connectionState === 'connected' && now - this.#lastLiveMs < STALLED_MS
    if (this.#isFeedOn && !hasSession && now - this.#lastWantMs > WANT_AGAIN_MS) this.#want()
  }

  #sendCard(): void {
    this.#spread(this.#card.frame())
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
      this.#voice.follow(receiver)
      void this.#pump(track, connection)
    }
    connection.ondatachannel = ({ channel }) => {
      this.#hasVoice = this.#voice.size > 0
      // Nobody here listens: the studio need not send.
      if (this.#hasVoice) this.#voice.connect(channel)
      else channel.close()
    }
    const isDescribed = await this.#during(connection, async () => {
      await connection.setRemoteDescription(offer)
      stampCaptureTimes(connection)
      await connection.setLocalDescription()
    })
    if (!isDescribed) return
    this.#transport.send({ type: 'description', session, description: { type: 'answer', sdp: connection.localDescription!.sdp } })
    for (const candidate of this.#early.splice(0)) await this.#during(connection, () => connection.addIceCandidate(candidate))
  }

  /** Takes a step towards a picture. False when the session was given up for another meanwhile, which a failure of this one must not end. */
  async #during(connection: RTCPeerConnection, step: () => Promise<void>): Promise<boolean> {
    try {
      await step()
    } catch (error) {
      if (this.#connection === connection) throw error
    }
    return this.#connection === connection
  }

  async #pump(track: MediaStreamTrack, connection: RTCPeerConnection): Promise<void> {
    const reader = new MediaStreamTrackProcessor({ track: track as MediaStreamVideoTrack, maxBufferSize: FRAMES_BUFFERED }).readable.getReader()
    for (;;) {
      const { done, value } = await reader.read()
      if (done || value === undefined) return
      if (this.#connection !== connection || this.#isClosed) {
        // What still waits is read and closed one by one: a reader that is cancelled leaves it to the garbage collector.
        value.close()
        track.stop()
        continue
      }
      this.#lastLiveMs = performance.now()
      this.#spread(value)
    }
  }

  #setFormat(format: FeedFormat): void {
    const { widthPx, heightPx } = this.#format
    this.#format = format
    if (widthPx !== format.widthPx || heightPx !== format.heightPx) this.#card = new Card(format.widthPx, format.heightPx)
  }

  /** Gives a frame to every track as that wants it, and closes it. */
  #spread(frame: VideoFrame): void {
    const nowMs = performance.now()
    const made = new Map<string, VideoFrame>()
    const scale = (from: VideoFrame, widthPx: number, heightPx: number): VideoFrame => {
      const key = `${widthPx}×${heightPx}`
      const known = made.get(key) ?? this.#scaler.scale(from, widthPx, heightPx)
      made.set(key, known)
      return known.clone()
    }
    try {
      for (const outlet of this.#outlets) outlet.offer(frame, this.#format, nowMs, scale)
    } finally {
      for (const scaled of made.values()) scaled.close()
      frame.close()
    }
  }

  #hangUp(tell: boolean): void {
    if (tell && this.#session !== '') this.#transport.send({ type: 'bye', session: this.#session })
    this.#voice.disconnect()
    this.#hasVoice = false
    this.#connection?.close()
    this.#connection = null
    this.#session = ''
    this.#early = []
  }
}
