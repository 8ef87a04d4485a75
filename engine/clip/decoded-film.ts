// Films by their packets: one decoder that is never emptied, so that the first picture follows the last without a gap. After the last
// packet of a lap come the first ones again, their times moved on by what a lap has.
import { turnI420, type QuarterTurn } from '../../core/picture/turn.ts'
import { copyFrame } from '../copy-frame.ts'
import type { ClipPicture, MovingPictures, PlayedPart, TakeBuffer } from './moving-pictures.ts'

/** A coded picture; in the order in which they are decoded. */
export interface FilmPacket {
  readonly startUs: number
  readonly durationUs: number
  readonly isKey: boolean
  readonly data: Uint8Array
}

/** Pictures that are decoded before they are asked for; decoders hold some back besides. */
const AHEAD = 6

export class DecodedFilm implements MovingPictures {
  readonly durationUs: number
  readonly cutOff: string | null
  readonly #packets: readonly FilmPacket[]
  readonly #config: VideoDecoderConfig
  readonly #turn: QuarterTurn
  #decoder: VideoDecoder | null = null
  /** Packets of a lap, first and last, and where its pictures begin and end. */
  #lapFirst = 0
  #lapLast = 0
  #part: PlayedPart = { fromUs: 0, toUs: 0, loops: true }
  /** When the first picture of the part begins: at or before its beginning. */
  #firstUs = 0
  /** What times are moved on by in each lap: more than its packets span, so that no two pictures have the same. */
  #lapSpanUs = 0
  #lapBaseUs = 0
  #lap = 0
  #next = 0
  #isFed = false
  #frames: VideoFrame[] = []
  #error: Error | null = null
  #wake: (() => void) | null = null
  #turnBuffer: Uint8Array<ArrayBuffer> = new Uint8Array(0)

  /** `packets` in decoding order; at least one, the first a key. `cutOff`: why some are missing. */
  constructor(packets: readonly FilmPacket[], config: VideoDecoderConfig, turn: QuarterTurn, cutOff: string | null = null) {
    this.cutOff = cutOff
    this.#packets = packets
    this.#config = config
    this.#turn = turn
    this.durationUs = packets.reduce((latest, { startUs, durationUs }) => Math.max(latest, startUs + durationUs), 0)
  }

  seek(part: PlayedPart): void {
    this.#drop()
    this.#part = part
    const packets = this.#packets
    // The picture that is seen at the beginning, and the key that leads to it.
    const starts = packets.map(({ startUs }) => startUs)
    const seen = starts.filter((start) => start <= part.fromUs)
    this.#firstUs = seen.length === 0 ? Math.min(...starts) : Math.max(...seen)
    const firstAt = starts.indexOf(this.#firstUs)
    this.#lapFirst = Math.max(
      0,
      packets.findLastIndex(({ isKey }, index) => isKey && index <= firstAt),
    )
    this.#lapLast = Math.max(
      this.#lapFirst,
      packets.findLastIndex(({ startUs }) => startUs < part.toUs),
    )
    const lap = packets.slice(this.#lapFirst, this.#lapLast + 1)
    this.#lapBaseUs = Math.min(...lap.map(({ startUs }) => startUs))
    this.#lapSpanUs = Math.max(...lap.map(({ startUs, durationUs }) => startUs + Math.max(1, durationUs))) - this.#lapBaseUs
    this.#lap = 0
    this.#next = this.#lapFirst
    this.#isFed = false
    this.#error = null
    const decoder = new VideoDecoder({
      output: (frame) => {
        if (decoder === this.#decoder) this.#take(frame)
        else frame.close()
      },
      error: (error) => {
        if (decoder !== this.#decoder) return
        this.#error = error
        this.#wakeUp()
      },
    })
    decoder.configure(this.#config)
    decoder.ondequeue = () => this.#feed()
    this.#decoder = decoder
    this.#feed()
  }

  async next(take: TakeBuffer): Promise<ClipPicture | null> {
    const frame = await this.#nextFrame()
    if (frame === null) return null
    try {
      return await this.#pictureOf(frame, take)
    } finally {
      frame.close()
    }
  }

  async skip(): Promise<number | null> {
    const frame = await this.#nextFrame()
    if (frame === null) return null
    const { startUs } = this.#placeOf(frame)
    frame.close()
    return startUs
  }

  /** The caller closes it. */
  async #nextFrame(): Promise<VideoFrame | null> {
    const decoder = this.#decoder
    for (;;) {
      if (decoder === null || decoder !== this.#decoder) return null
      // What was decoded before the fault is shown.
      const frame = this.#frames.shift()
      if (frame !== undefined) {
        this.#feed()
        return frame
      }
      if (this.#error !== null) throw this.#error
      if (this.#isFed && decoder.decodeQueueSize === 0 && this.#isFlushed) return null
      await new Promise<void>((resolve) => (this.#wake = resolve))
    }
  }

  close(): void {
    this.#drop()
  }

  #isFlushed = false

  #feed(): void {
    const decoder = this.#decoder
    if (decoder === null || decoder.state !== 'configured' || this.#isFed) return
    while (decoder.decodeQueueSize + this.#frames.length < AHEAD) {
      const packet = this.#packets[this.#next]!
      const timestamp = Math.round(packet.startUs + this.#lap * this.#lapSpanUs)
      decoder.decode(new EncodedVideoChunk({ type: packet.isKey ? 'key' : 'delta', timestamp, duration: packet.durationUs, data: packet.data }))
      this.#next += 1
      if (this.#next <= this.#lapLast) continue
      if (!this.#part.loops) return this.#finish(decoder)
      this.#lap += 1
      this.#next = this.#lapFirst
    }
  }

  /** The last ones that the decoder holds back come only when asked for. */
  #finish(decoder: VideoDecoder): void {
    this.#isFed = true
    const done = () => {
      if (decoder !== this.#decoder) return
      this.#isFlushed = true
      this.#wakeUp()
    }
    decoder.flush().then(done, done)
  }

  #take(frame: VideoFrame): void {
    const { startUs } = this.#placeOf(frame)
    // On the way from the key to the beginning, or past the end.
    if (startUs < this.#firstUs || startUs >= this.#part.toUs) frame.close()
    else this.#frames.push(frame)
    this.#wakeUp()
    this.#feed()
  }

  #placeOf({ timestamp }: VideoFrame): { readonly lap: number; readonly startUs: number } {
    const lap = Math.floor((timestamp - this.#lapBaseUs) / this.#lapSpanUs)
    return { lap, startUs: timestamp - lap * this.#lapSpanUs }
  }

  async #pictureOf(frame: VideoFrame, take: TakeBuffer): Promise<ClipPicture> {
    const { lap, startUs } = this.#placeOf(frame)
    const mediaUs = Math.max(this.#part.fromUs, startUs)
    if (this.#turn === 0) return { lap, mediaUs, picture: await copyFrame(frame, take) }
    const upright = await copyFrame(frame, (byteLength) => {
      if (this.#turnBuffer.length !== byteLength) this.#turnBuffer = new Uint8Array(byteLength)
      return this.#turnBuffer
    })
    if (upright.format !== 'i420') throw new Error('a turned film of this kind of colours cannot be shown')
    return { lap, mediaUs, picture: turnI420(upright, this.#turn, take(upright.data.length)) }
  }

  #wakeUp(): void {
    this.#wake?.()
    this.#wake = null
  }

  #drop(): void {
    const decoder = this.#decoder
    this.#decoder = null
    this.#isFlushed = false
    for (const frame of this.#frames.splice(0)) frame.close()
    if (decoder !== null && decoder.state !== 'closed') decoder.close()
    this.#wakeUp()
  }
}
