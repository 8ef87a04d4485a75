import type { Picture } from '../../core/picture/picture.ts'

/** A picture of a clip. */
export interface ClipPicture {
  readonly lap: number
  /** When it begins, in µs of the file; not before the range that is played. */
  readonly mediaUs: number
  readonly picture: Picture
}

/** The part that is played. */
export interface PlayedPart {
  readonly fromUs: number
  readonly toUs: number
  readonly loops: boolean
}

/** Memory for a picture. */
export type TakeBuffer = (byteLength: number) => Uint8Array<ArrayBuffer>

/** A clip's pictures in order, lap after lap. One file for each way of decoding. */
export interface MovingPictures {
  /** When the last picture ends that the file holds. */
  readonly durationUs: number
  /** Why the file ends before it should; null when it is whole, as far as can be told without decoding it. */
  readonly cutOff: string | null
  /** Begins anew, at the first picture of a part. Calls of `next` that wait give null. */
  seek(part: PlayedPart): void
  /** The next picture; null after the last one of a part that does not loop. Throws when it cannot be decoded. */
  next(take: TakeBuffer): Promise<ClipPicture | null>
  /** Decodes the next picture and lets it go: when it begins, in µs of the file; null after the last one. Throws as `next` does. */
  skip(): Promise<number | null>
  /** Lets decoders go. Safe to call twice. */
  close(): void
}
