import { describe, expect, it } from 'vitest'
import { METER_FLOOR_DB, PeakMeter } from './loudness.ts'
import { SideWatch } from './side-watch.ts'
import { VoiceChain } from './voice-chain.ts'
import { CHUNK_FRAMES, CHUNK_MS } from './voice-chunk.ts'

const constant = (value: number) => new Float32Array(CHUNK_FRAMES).fill(value)
const settings = { gainDb: 0, sides: 'both', delayMs: 0, isMuted: false } as const

describe('VoiceChain', () => {
  it('changes nothing when nothing is asked', () => {
    const chain = new VoiceChain()
    const out = new Int16Array(2 * CHUNK_FRAMES)
    const left = Float32Array.from({ length: CHUNK_FRAMES }, (_, i) => Math.sin(i))
    const right = Float32Array.from({ length: CHUNK_FRAMES }, (_, i) => Math.cos(i) / 3)
    chain.process(left, right, out)
    for (let i = 0; i < CHUNK_FRAMES; i += 1) expect([out[2 * i], out[2 * i + 1]]).toEqual([Math.round(left[i]! * 32_767), Math.round(right[i]! * 32_767)])
  })

  it.each([
    ['left', [0.5, 0.5]],
    ['right', [0.25, 0.25]],
    ['mean', [0.375, 0.375]],
    ['both', [0.5, 0.25]],
  ] as const)('puts %s where it is asked', (sides, [left, right]) => {
    const chain = new VoiceChain()
    const out = new Int16Array(2 * CHUNK_FRAMES)
    chain.set({ ...settings, sides })
    chain.process(constant(0.5), constant(0.25), out)
    expect(out[900]! / 32_767).toBeCloseTo(left, 3)
    expect(out[901]! / 32_767).toBeCloseTo(right, 3)
  })

  it('mutes and unmutes by a fade of one chunk, and still measures', () => {
    const chain = new VoiceChain()
    const out = new Int16Array(2 * CHUNK_FRAMES)
    chain.set({ ...settings, isMuted: true })
    chain.process(constant(0.5), constant(0.5), out)
    const steps = Array.from({ length: CHUNK_FRAMES - 1 }, (_, i) => Math.abs(out[2 * i + 2]! - out[2 * i]!))
    expect(Math.max(...steps)).toBeLessThan(40)
    chain.process(constant(0.5), constant(0.5), out)
    expect(out.every((code) => code === 0)).toBe(true)
    expect(chain.takePeaks()).toEqual([0.5, 0.5])
    expect(chain.takePeaks()).toEqual([0, 0])
    chain.set(settings)
    chain.process(constant(0.5), constant(0.5), out)
    expect(out.at(-1)! / 32_767).toBeCloseTo(0.5, 3)
  })

  it.each([0, 1, 33.3, 250, 500])('comes back to silence after any delay (%d ms) and never clicks on the way to it', (delayMs) => {
    const chain = new VoiceChain()
    const out = new Int16Array(2 * CHUNK_FRAMES)
    for (let i = 0; i < 100; i += 1) chain.process(constant(0.5), constant(0.5), out)
    chain.set({ ...settings, delayMs })
    chain.process(constant(0.5), constant(0.5), out)
    // The sound was steady for a second: through the change it stays so.
    expect(Math.max(...out) - Math.min(...out)).toBeLessThanOrEqual(1)
    for (let i = 0; i < 52; i += 1) chain.process(constant(0), constant(0), out)
    expect(out.every((code) => code === 0)).toBe(true)
  })
})

describe('PeakMeter', () => {
  it('rises at once, falls 20 dB a second, and holds its highest mark for a second and a half', () => {
    const meter = new PeakMeter()
    expect(meter.note(1 / 2, 0).db).toBeCloseTo(-6.02, 1)
    const later = meter.note(0, 500)
    expect(later.db).toBeCloseTo(-16.02, 1)
    expect(later.heldDb).toBeCloseTo(-6.02, 1)
    expect(meter.note(0, 1600).heldDb).toBeLessThan(-30)
    expect(meter.note(0, 60_000).db).toBe(METER_FLOOR_DB)
  })

  it('remembers clipping until it is told to forget', () => {
    const meter = new PeakMeter()
    expect(meter.note(0.99, 0).hasClipped).toBe(false)
    expect(meter.note(1, 10).hasClipped).toBe(true)
    expect(meter.note(0, 9000).hasClipped).toBe(true)
    meter.clear()
    expect(meter.note(0.5, 9010).hasClipped).toBe(false)
  })
})

describe('SideWatch', () => {
  const after = (chunks: number, left: number, right: number) => {
    const watch = new SideWatch()
    let said: string | null = null
    for (let i = 0; i < chunks; i += 1) said = watch.note(left, right)
    return said
  }

  it('names the only side that carries sound after two seconds of it', () => {
    const sure = 2000 / CHUNK_MS
    expect(after(sure - 1, 0.1, 0)).toBeNull()
    expect(after(sure, 0.1, 0)).toBe('left')
    expect(after(sure, 0, 0.1)).toBe('right')
  })

  it('says nothing of silence, of two sides, or of one that is only softer', () => {
    for (const [left, right] of [
      [0, 0],
      [0.1, 0.1],
      [0.1, 0.001],
    ] as const)
      expect(after(1000, left, right)).toBeNull()
  })

  it('takes it back when the other side is heard', () => {
    const watch = new SideWatch()
    for (let i = 0; i < 300; i += 1) watch.note(0.1, 0)
    expect(watch.note(0.1, 0.1)).toBeNull()
  })
})
