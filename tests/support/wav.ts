import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'

export interface Tone {
  readonly rate: number
  readonly hz: number
  /** Peak in dB under full scale. */
  readonly db: number
  readonly seconds: number
  readonly sides: 'both' | 'left'
}

/** Writes a sine as a stereo WAV file of 16 bits, which a browser can take for a microphone. */
export function writeToneWav({ rate, hz, db, seconds, sides }: Tone): string {
  const frames = rate * seconds
  const samples = new Int16Array(frames * 2)
  const peak = 32_767 * 10 ** (db / 20)
  for (let i = 0; i < frames; i += 1) {
    samples[2 * i] = Math.round(peak * Math.sin((2 * Math.PI * hz * i) / rate))
    samples[2 * i + 1] = sides === 'both' ? samples[2 * i]! : 0
  }
  const head = Buffer.alloc(44)
  head.write('RIFF', 0)
  head.writeUInt32LE(36 + samples.byteLength, 4)
  head.write('WAVEfmt ', 8)
  head.writeUInt32LE(16, 16)
  head.writeUInt16LE(1, 20)
  head.writeUInt16LE(2, 22)
  head.writeUInt32LE(rate, 24)
  head.writeUInt32LE(rate * 4, 28)
  head.writeUInt16LE(4, 32)
  head.writeUInt16LE(16, 34)
  head.write('data', 36)
  head.writeUInt32LE(samples.byteLength, 40)
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'green-room-wav-')), 'tone.wav')
  writeFileSync(file, Buffer.concat([head, new Uint8Array(samples.buffer)]))
  return file
}
