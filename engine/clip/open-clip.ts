// Finds out what a file is, and how its pictures are to be had.
import { ALL_FORMATS, BlobSource, EncodedPacketSink, Input, type InputVideoTrack } from 'mediabunny'
import { Animation } from './animation.ts'
import { DecodedFilm, type FilmPacket } from './decoded-film.ts'
import { DrawnFilm } from './drawn-film.ts'
import type { MovingPictures } from './moving-pictures.ts'

/** A last picture may be told to last longer than it does; more than this is missing. */
const MISSING_US = 200_000

/** Opens a clip. Throws an Error that says why it cannot be played. */
export async function openClip(file: Blob): Promise<MovingPictures> {
  if (file.type.startsWith('image/')) return Animation.open(await file.arrayBuffer(), file.type === 'image/apng' ? 'image/png' : file.type)
  const input = new Input({ source: new BlobSource(file), formats: ALL_FORMATS })
  const track = await input.getPrimaryVideoTrack()
  if (track === null) throw new Error('there is no picture in it')
  if (track.codec === 'hevc') throw new Error('it is coded in HEVC (H.265), which this browser does not play: export it as H.264')
  if (!(await track.canDecode())) throw new Error(`it is coded in ${track.codec ?? 'an unknown coding'}, which this browser does not play: export it as H.264`)
  const isSquare = Math.abs((track.displayWidth * track.codedHeight) / (track.displayHeight * track.codedWidth) - 1) < 0.01
  const isTurned = track.rotation === 90 || track.rotation === 270
  if ((await track.canBeTransparent()) || (!isSquare && !isTurned)) return new DrawnFilm(track, Math.round((await track.computeDuration()) * 1e6))
  const config = await track.getDecoderConfig()
  if (config === null) throw new Error('the browser is not told how to decode it')
  const { packets, cutOff } = await packetsOf(track)
  return new DecodedFilm(packets, config, track.rotation, cutOff)
}

/** All packets that the file holds, and why some are missing. */
async function packetsOf(track: InputVideoTrack): Promise<{ readonly packets: readonly FilmPacket[]; readonly cutOff: string | null }> {
  const packets: FilmPacket[] = []
  let cutOff: string | null = null
  try {
    for await (const { timestamp, duration, type, data } of new EncodedPacketSink(track).packets()) {
      // Times before zero are decoded and never shown.
      packets.push({ startUs: Math.round(timestamp * 1e6), durationUs: Math.round(duration * 1e6), isKey: type === 'key', data })
    }
  } catch (error) {
    cutOff = error instanceof Error ? error.message : String(error)
  }
  const first = packets.findIndex(({ isKey }) => isKey)
  if (first < 0) throw new Error(cutOff ?? 'there is no whole picture in it')
  const lastUs = packets.reduce((latest, packet) => Math.max(latest, packet.startUs + packet.durationUs), 0)
  const statedUs = ((await track.getDurationFromMetadata()) ?? 0) * 1e6
  if (cutOff === null && statedUs - lastUs > MISSING_US) cutOff = 'the file ends early'
  return { packets: packets.slice(first), cutOff }
}
