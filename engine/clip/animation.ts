// Animated GIF, PNG and WebP: whole pictures, decoded one after the other and kept as far as there is room.
import { pictureAt } from '../../core/clip/clip-clock.ts'
import type { ClipPicture, MovingPictures, PlayedPart, TakeBuffer } from './moving-pictures.ts'

/** Pictures kept, in bytes; larger animations are decoded anew in each lap. */
const ROOM_BYTES = 128 * 1024 * 1024
/** A picture that says it is shorter is shown for a tenth of a second, as browsers do (measured). */
const SHORTEST_US = 11_000
const USUAL_US = 100_000

interface Kept {
  readonly widthPx: number
  readonly heightPx: number
  readonly data: Uint8Array
}

const reasonOf = (error: unknown) => (error instanceof Error ? error.message : String(error))

export class Animation implements MovingPictures {
  readonly durationUs: number
  readonly cutOff: string | null
  readonly #decoder: ImageDecoder
  readonly #startsUs: readonly number[]
  readonly #kept = new Map<number, Kept>()
  #keptBytes = 0
  #part: PlayedPart = { fromUs: 0, toUs: 0, loops: true }
  #lap = 0
  #index = 0
  #turn = 0

  private constructor(decoder: ImageDecoder, startsUs: readonly number[], durationUs: number, cutOff: string | null) {
    this.#decoder = decoder
    this.cutOff = cutOff
    this.#startsUs = startsUs
    this.durationUs = durationUs
  }

  /** Throws when the browser cannot decode the file. */
  static async open(bytes: ArrayBuffer, type: string): Promise<Animation> {
    const decoder = new ImageDecoder({ data: bytes, type, premultiplyAlpha: 'none', preferAnimation: true })
    await decoder.tracks.ready
    // A file that is cut off is never complete; what it holds can be decoded.
    let cutOff = await decoder.completed.then(
      () => null,
      (error: unknown) => reasonOf(error),
    )
    const count = decoder.tracks.selectedTrack?.frameCount ?? 0
    if (count === 0) throw new Error('there is no picture in it')
    const startsUs: number[] = []
    let durationUs = 0
    for (let frameIndex = 0; frameIndex < count; frameIndex += 1) {
      try {
        const { image } = await decoder.decode({ frameIndex })
        startsUs.push(durationUs)
        const stated = image.duration ?? 0
        durationUs += stated < SHORTEST_US ? USUAL_US : stated
        image.close()
      } catch (error) {
        if (frameIndex === 0) throw error
        cutOff = reasonOf(error)
        break
      }
    }
    return new Animation(decoder, startsUs, durationUs, cutOff)
  }

  seek(part: PlayedPart): void {
    this.#turn += 1
    this.#part = part
    this.#lap = 0
    this.#index = pictureAt(this.#startsUs, part.fromUs)
  }

  /** Each was decoded when the file was opened. */
  async skip(): Promise<number | null> {
    if (this.#index >= this.#startsUs.length || this.#startsUs[this.#index]! >= this.#part.toUs) return null
    this.#index += 1
    return this.#startsUs[this.#index - 1]!
  }

  async next(take: TakeBuffer): Promise<ClipPicture | null> {
    const turn = this.#turn
    if (this.#index >= this.#startsUs.length || this.#startsUs[this.#index]! >= this.#part.toUs) {
      if (!this.#part.loops) return null
      this.#lap += 1
      this.#index = pictureAt(this.#startsUs, this.#part.fromUs)
    }
    const index = this.#index
    this.#index += 1
    const lap = this.#lap
    const { widthPx, heightPx, data } = await this.#decoded(index)
    if (turn !== this.#turn) return null
    const out = take(data.length)
    out.set(data)
    return { lap, mediaUs: Math.max(this.#part.fromUs, this.#startsUs[index]!), picture: { format: 'rgba', widthPx, heightPx, data: out } }
  }

  close(): void {
    this.#turn += 1
    this.#decoder.close()
    this.#kept.clear()
  }

  async #decoded(index: number): Promise<Kept> {
    const known = this.#kept.get(index)
    if (known !== undefined) return known
    const { image } = await this.#decoder.decode({ frameIndex: index })
    const { width: widthPx, height: heightPx } = image.visibleRect ?? { width: image.codedWidth, height: image.codedHeight }
    const data = new Uint8Array(widthPx * heightPx * 4)
    await image.copyTo(data, { format: 'RGBA' } as VideoFrameCopyToOptions)
    image.close()
    const made = { widthPx, heightPx, data }
    if (this.#keptBytes + data.length <= ROOM_BYTES) {
      this.#kept.set(index, made)
      this.#keptBytes += data.length
    }
    return made
  }
}
