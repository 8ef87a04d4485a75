// Claps of the stand-in presenter, whose true times are known, as a microphone hears and a camera sees them.
import { beforeAll, describe, expect, it } from 'vitest'
import { nodeCamera } from '../../standins/camera/node-camera.ts'
import { DrawnVoice } from '../../standins/microphone/drawn-voice.ts'
import { CLAPS_AFTER, CUE_SECONDS } from '../../standins/presenter-timing.ts'
import { seededRandom } from '../random/seeded.ts'
import { CHUNK_FRAMES, SOUND_RATE } from '../sound/voice-chunk.ts'
import { offsetOf } from './clap-offset.ts'
import { blockMeans, evenTimes, motionBetween, stopsNear, type MotionSample } from './clap-picture.ts'
import { findClaps } from './clap-sound.ts'

const CUE_MS = 40_000
const SECONDS = CUE_SECONDS + 1
const truth = CLAPS_AFTER.map((seconds) => seconds * 1000)

/** What a microphone hears from the cue on. */
function heard(): Float32Array {
  const voice = new DrawnVoice(7)
  const first = (CUE_MS * SOUND_RATE) / 1000
  voice.clap(first)
  const samples = new Float32Array(Math.floor((SECONDS * SOUND_RATE) / CHUNK_FRAMES) * CHUNK_FRAMES)
  for (let at = 0; at < samples.length; at += CHUNK_FRAMES) voice.draw(first + at, samples.subarray(at, at + CHUNK_FRAMES))
  return samples
}

/** What a camera sees from the cue on; times count from it. `phaseMs`: how far the cue lies behind a picture. */
async function seen(phaseMs = 0): Promise<MotionSample[]> {
  const camera = await nodeCamera({ standin: 'cloth' })
  camera.clapCueMs = CUE_MS + phaseMs
  return Array.from({ length: SECONDS * 30 }, (_, i) => {
    const timeMs = (i * 1000) / 30 + 0.01
    return { timeMs: timeMs - phaseMs, blocks: blockMeans(camera.picture(CUE_MS + timeMs)) }
  })
}

describe('claps in sound', () => {
  it('are found to the millisecond', () => {
    const found = findClaps(heard())
    expect(found).toHaveLength(truth.length)
    found.forEach((ms, i) => expect(Math.abs(ms - truth[i]!)).toBeLessThanOrEqual(2))
  })

  it.each([1, 2, 3])('are found among noise 20 dB under them (seed %i)', (seed) => {
    const random = seededRandom(seed)
    const noisy = heard().map((sample) => sample + (random() - 0.5) * 0.05)
    const found = findClaps(noisy)
    expect(found).toHaveLength(truth.length)
    found.forEach((ms, i) => expect(Math.abs(ms - truth[i]!)).toBeLessThanOrEqual(3))
  })

  it('are not found in speech, in silence, or in a tone that begins and stays', () => {
    const voice = new DrawnVoice(7)
    const speech = new Float32Array(SOUND_RATE * 10)
    for (let at = 0; at < speech.length; at += CHUNK_FRAMES) voice.draw(at, speech.subarray(at, at + CHUNK_FRAMES))
    expect(findClaps(speech)).toEqual([])
    expect(findClaps(new Float32Array(SOUND_RATE))).toEqual([])
    expect(findClaps(Float32Array.from({ length: SOUND_RATE }, (_, i) => (i < 24_000 ? 0 : Math.sin(i))))).toEqual([])
  })
})

describe('claps in pictures', () => {
  let samples: MotionSample[]
  beforeAll(async () => void (samples = await seen()), 60_000)

  it('are among the moments at which something stops, within a frame', () => {
    for (const ms of truth) expect(Math.min(...stopsNear(samples, ms).map(({ timeMs }) => Math.abs(timeMs - ms)))).toBeLessThanOrEqual(34)
  })

  it('are not seen where nothing is', () => {
    expect(stopsNear(samples, 1e6)).toEqual([])
    expect(stopsNear([], 0)).toEqual([])
  })

  it('are told from a light that is switched on', () => {
    const bright = { timeMs: 40, blocks: samples[0]!.blocks.map((value) => value + 30) }
    expect(motionBetween(samples[0]!, bright)).toBeCloseTo(0, 2)
  })

  it.each([-80, -40, 0, 40, 120, 250])('give a known distance of %d ms back, within 8 ms', (distanceMs) => {
    const shifted = samples.map(({ timeMs, blocks }) => ({ timeMs: timeMs + distanceMs, blocks }))
    const found = offsetOf(findClaps(heard()), shifted)
    expect(found).toMatchObject({ claps: truth.length })
    if (!('offsetMs' in found)) throw new Error('not found')
    expect(Math.abs(found.offsetMs - distanceMs)).toBeLessThanOrEqual(8)
    expect(found.spreadMs).toBeLessThanOrEqual(34)
  })

  it.each([7, 16, 26])('give it back wherever between two pictures they fall (%d ms)', async (phaseMs) => {
    const found = offsetOf(truth, await seen(phaseMs))
    expect(found).toMatchObject({ claps: truth.length })
    if ('offsetMs' in found) expect(Math.abs(found.offsetMs)).toBeLessThanOrEqual(10)
  })

  it.each([1, 2, 3])('give it back when pictures come late and in bursts, as on a busy machine (seed %i)', (seed) => {
    const random = seededRandom(seed)
    // A third of them up to 60 ms late; none overtakes another.
    let lastMs = -Infinity
    const shaken = samples.map(({ timeMs, blocks }) => {
      lastMs = Math.max(lastMs, timeMs + 40 + (random() < 0.33 ? random() * 60 : 0))
      return { arrivalMs: lastMs, captureMs: timeMs + 123_456, blocks }
    })
    const found = offsetOf(truth, evenTimes(shaken))
    if (!('offsetMs' in found)) throw new Error('not found')
    expect(Math.abs(found.offsetMs - 40)).toBeLessThanOrEqual(12)
    expect(found.claps).toBe(truth.length)
  })

  it('are told from a sound that was no clap, though it came first and the hands moved then', () => {
    const found = offsetOf([truth[0]! - 300, ...truth], samples)
    expect(found.claps).toBeGreaterThanOrEqual(truth.length)
    if (!('offsetMs' in found)) throw new Error('not found')
    expect(Math.abs(found.offsetMs)).toBeLessThanOrEqual(10)
  })

  it('refuse to say anything by fewer than three claps that agree', () => {
    expect(offsetOf([truth[0]!, truth[1]!], samples)).toEqual({ claps: 2 })
    expect(offsetOf([100, 5800, 6900], samples).claps).toBeLessThan(3)
  })
})
