// Levels, gain, delay and sides against values from outside: dB by definition, AES17, ffmpeg astats, volume and adelay, Web Audio's down-mix.
import { describe, expect, it } from 'vitest'
import { aes17Db, dbOf, gainOf, peakOf, rmsOf } from '../../core/sound/loudness.ts'
import { VoiceChain } from '../../core/sound/voice-chain.ts'
import { CHUNK_FRAMES, SOUND_RATE } from '../../core/sound/voice-chunk.ts'
import { casesOf } from './cases.ts'

const CODE = 1 / 32_767
const still = { gainDb: 0, sides: 'both', delayMs: 0, isMuted: false } as const

/** Runs whole chunks of both sides through a chain whose settings have settled. */
function through(settings: Partial<Parameters<VoiceChain['set']>[0]>, left: Float32Array, right = left): { left: Float32Array; right: Float32Array } {
  const chain = new VoiceChain()
  chain.set({ ...still, ...settings })
  const out = new Int16Array(2 * CHUNK_FRAMES)
  chain.process(new Float32Array(CHUNK_FRAMES), new Float32Array(CHUNK_FRAMES), out)
  const given = { left: new Float32Array(left.length), right: new Float32Array(left.length) }
  for (let at = 0; at < left.length; at += CHUNK_FRAMES) {
    chain.process(left.subarray(at, at + CHUNK_FRAMES), right.subarray(at, at + CHUNK_FRAMES), out)
    for (let i = 0; i < CHUNK_FRAMES; i += 1) {
      given.left[at + i] = out[2 * i]! * CODE
      given.right[at + i] = out[2 * i + 1]! * CODE
    }
  }
  return given
}

const padded = (values: readonly number[]) => {
  const block = new Float32Array(CHUNK_FRAMES)
  block.set(values)
  return block
}

describe('gain (dB = 20 log10(ratio))', () => {
  it.each(casesOf('audio.db_gain'))('$input.db dB', ({ input, expected }) => {
    expect(gainOf(input.db)).toBeCloseTo(expected.gain, 7)
    expect(dbOf(expected.gain)).toBeCloseTo(input.db, 5)
  })
})

describe('levels (peak dBFS; RMS by AES17, as ffmpeg astats reads it plus 3.01 dB)', () => {
  it.each(casesOf('audio.meter_levels'))('$input.signal', ({ input, expected }) => {
    const sine = /sine 997 Hz (\S+) dBFS/.exec(input.signal)
    const signal = Float32Array.from({ length: SOUND_RATE }, (_, i) => (sine === null ? 0.5 : gainOf(Number(sine[1])) * Math.sin((2 * Math.PI * 997 * i) / SOUND_RATE)))
    expect(dbOf(peakOf(signal))).toBeCloseTo(expected.peak_dbfs, 2)
    expect(dbOf(rmsOf(signal))).toBeCloseTo(expected.rms_db_math, 2)
    expect(aes17Db(rmsOf(signal))).toBeCloseTo(expected.rms_dbfs_aes17, 2)
  })
})

describe('gain in the chain (ffmpeg volume)', () => {
  it.each(casesOf('audio.volume'))('$params.db dB', ({ input, params, expected }) => {
    const { left } = through({ gainDb: params.db }, padded(input.x))
    // 16 bits: half a code of rounding, and full scale is the end.
    expected.y.forEach((value: number, i: number) => expect(Math.abs(left[i]! - Math.min(1, value))).toBeLessThanOrEqual(0.0001))
  })
})

describe('mono from both sides (Web Audio API 1.0, speakers, stereo to mono)', () => {
  it.each(casesOf('audio.mono_downmix'))('$params.how', ({ input, expected }) => {
    const pairs = input.LR as [number, number][]
    const { left, right } = through({ sides: 'mean' }, padded(pairs.map(([l]) => l)), padded(pairs.map(([, r]) => r)))
    expected.mono.forEach((value: number, i: number) => {
      expect(left[i]).toBeCloseTo(value, 4)
      expect(right[i]).toBe(left[i])
    })
  })
})

describe('delay (ffmpeg adelay)', () => {
  it.each(casesOf('audio.delay'))('$params.ms ms', ({ params, expected }) => {
    const impulse = new Float32Array(SOUND_RATE / 2)
    impulse[0] = 0.5
    const { left } = through({ delayMs: params.ms }, impulse)
    expect(left.findIndex((sample) => sample > 0.4)).toBe(expected.sample)
    expect(left.reduce((sum, sample) => sum + sample, 0)).toBeCloseTo(0.5, 3)
  })
})
