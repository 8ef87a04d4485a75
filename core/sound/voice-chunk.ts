// How sound travels beside the picture: twenty milliseconds of 16-bit stereo at 48 kHz, with the index of its first frame.

export const SOUND_RATE = 48_000
/** Frames in a chunk: twenty milliseconds. Half as long would cost the picture a good part of its latency where the processor is busy. */
export const CHUNK_FRAMES = 960
export const CHUNK_MS = (CHUNK_FRAMES * 1000) / SOUND_RATE
export const CHUNK_CHANNELS = 2
const HEADER_BYTES = 4
export const CHUNK_BYTES = HEADER_BYTES + CHUNK_FRAMES * CHUNK_CHANNELS * 2

/** A chunk as it is received. `samples` are left and right in turn. */
export interface VoiceChunk {
  /** Frames since the sender began, modulo 2^32. */
  readonly firstFrame: number
  readonly samples: Int16Array<ArrayBuffer>
}

/** Packs a chunk; `samples` holds CHUNK_FRAMES × CHUNK_CHANNELS codes. Little-endian. */
export function packChunk({ firstFrame, samples }: VoiceChunk): ArrayBuffer {
  const bytes = new ArrayBuffer(CHUNK_BYTES)
  new DataView(bytes).setUint32(0, firstFrame >>> 0, true)
  new Int16Array(bytes, HEADER_BYTES).set(samples)
  return bytes
}

/** Reads a chunk; null for anything that is not one. */
export function unpackChunk(bytes: unknown): VoiceChunk | null {
  if (!(bytes instanceof ArrayBuffer) || bytes.byteLength !== CHUNK_BYTES) return null
  return { firstFrame: new DataView(bytes).getUint32(0, true), samples: new Int16Array(bytes, HEADER_BYTES) }
}

/** A sample of −1..1 as a 16-bit code, clipped at full scale. */
export function codeOf(sample: number): number {
  return Math.max(-32_768, Math.min(32_767, Math.round(sample * 32_767)))
}
