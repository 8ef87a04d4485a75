import { ALL_FORMATS, EncodedPacketSink, FilePathSource, Input } from 'mediabunny'
import { HttpError } from '../http-error.ts'
import type { PictureFacts } from './inspect-picture.ts'

const MAX_SIDE_PX = 4096
/** What browsers decode without a device of their own (measured: H.264, VP8, VP9 and AV1). */
const CODECS = ['avc', 'vp8', 'vp9', 'av1'] as const
const NAMES: Readonly<Record<string, string>> = { hevc: 'HEVC (H.265)', prores: 'ProRes', mpeg4: 'MPEG-4 part 2' }

/** Brands of ISO base media that hold pictures (ISO/IEC 23008-12 §10; AVIF 1.1.0 §8). */
const PICTURE_BRANDS = ['avif', 'avis', 'heic', 'heix', 'hevc', 'mif1', 'msf1']

/** Whether a file is a film by its first bytes: ISO base media (ISO/IEC 14496-12 §4.3) that is no picture, or EBML (RFC 8794 §8). */
export function isClipFile(bytes: Buffer): boolean {
  const isIsoMedia = bytes.subarray(4, 8).toString('latin1') === 'ftyp'
  return (isIsoMedia && !PICTURE_BRANDS.includes(bytes.subarray(8, 12).toString('latin1'))) || bytes.subarray(0, 4).equals(Buffer.from('1a45dfa3', 'hex'))
}

/** Reads the head and the first picture of a film that lies in a file; of the rest no more than that needs. Throws an HttpError that names the fault and the fix. */
export async function inspectClip(file: string, fileName: string): Promise<PictureFacts> {
  const name = `"${fileName}"`
  const input = new Input({ source: new FilePathSource(file), formats: ALL_FORMATS })
  const damaged = () => new HttpError(400, 'clip-damaged', `${name} is damaged or cut off. Copy or export it again.`)
  try {
    const track = await input.getPrimaryVideoTrack().catch(() => {
      throw damaged()
    })
    // A film whose table of contents is missing has no tracks at all.
    if ((await input.getTracks()).length === 0) throw damaged()
    if (track === null) throw new HttpError(415, 'clip-no-picture', `${name} has no picture in it. Choose a film, or a picture.`)
    const codec = track.codec
    if (codec === null || !CODECS.includes(codec as (typeof CODECS)[number])) {
      const what = codec === null ? 'an unknown coding' : (NAMES[codec] ?? codec.toUpperCase())
      throw new HttpError(415, 'clip-codec', `${name} is coded in ${what}, which browsers do not play. Export it as H.264 (MP4) or VP9 (WebM).`)
    }
    // Tables at the front tell nothing of what is behind. The studio decodes the whole and offers the part that is good; what has no first picture has none.
    const first = await new EncodedPacketSink(track).getFirstPacket().catch(() => null)
    if (first === null || first.data.length === 0) throw damaged()
    const [widthPx, heightPx] = [track.displayWidth, track.displayHeight]
    if (Math.max(widthPx, heightPx) > MAX_SIDE_PX || Math.min(widthPx, heightPx) < 2) {
      throw new HttpError(413, 'clip-side', `${name} is ${widthPx} × ${heightPx} pixels; each side may be 2 to ${MAX_SIDE_PX}. Export it smaller.`)
    }
    return { mimeType: (await input.getMimeType()).split(';')[0]!.slice(0, 40), widthPx, heightPx, isMoving: true }
  } finally {
    input.dispose()
  }
}
