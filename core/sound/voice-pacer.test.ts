import { describe, expect, it } from 'vitest'
import { seededRandom } from '../random/seeded.ts'
import { CHUNK_BYTES, CHUNK_CHANNELS, CHUNK_FRAMES, CHUNK_MS, codeOf, packChunk, unpackChunk } from './voice-chunk.ts'
import { VoicePacer } from './voice-pacer.ts'

const chunk = (index: number) => ({ firstFrame: index * CHUNK_FRAMES, samples: new Int16Array(CHUNK_FRAMES * CHUNK_CHANNELS).fill(index) })

/** Sends `count` chunks that arrive as `delayOf` says; when each was let out, by arrivals, and every `tickMs` besides. */
function run(pacer: VoicePacer, count: number, delayOf: (index: number) => number, tickMs = Infinity) {
  const arrivals = Array.from({ length: count }, (_, index) => ({ index, atMs: index * CHUNK_MS + delayOf(index) })).sort((a, b) => a.atMs - b.atMs)
  const out: { index: number; atMs: number }[] = []
  const release = (nowMs: number) => {
    for (let next = pacer.take(nowMs); next !== null; next = pacer.take(nowMs)) out.push({ index: next.samples[0]!, atMs: nowMs })
  }
  let tick = tickMs
  for (const { index, atMs } of arrivals) {
    for (; tick < atMs; tick += tickMs) release(tick)
    pacer.offer(chunk(index), atMs)
    release(atMs)
  }
  return out
}

describe('VoicePacer', () => {
  it('lets sound wait as long as the picture takes, on average', () => {
    const pacer = new VoicePacer()
    pacer.follow(60)
    const out = run(pacer, 500, () => 5)
    const waits = out.slice(100).map(({ index, atMs }) => atMs - index * CHUNK_MS - 5)
    expect(waits.reduce((sum, wait) => sum + wait, 0) / waits.length).toBeCloseTo(60, -1)
    expect(Math.max(...waits) - Math.min(...waits)).toBeLessThanOrEqual(CHUNK_MS)
    expect(pacer.dropped).toBe(0)
  })

  it.each([1, 2, 3])('keeps order and loses nothing while arrivals jitter by 40 ms (seed %i)', (seed) => {
    const random = seededRandom(seed)
    const pacer = new VoicePacer()
    pacer.follow(60)
    // In order, as the channel keeps it.
    let last = 0
    const out = run(pacer, 1000, (index) => {
      last = Math.max(last, index * CHUNK_MS + random() * 40)
      return last - index * CHUNK_MS
    })
    expect(out.map(({ index }) => index)).toEqual(out.map((_, i) => i))
    expect(out.length).toBeGreaterThan(990)
    expect(pacer.dropped).toBe(0)
  })

  it('follows a picture that becomes slower without a jump', () => {
    const pacer = new VoicePacer()
    pacer.follow(20)
    run(pacer, 100, () => 5)
    pacer.follow(120)
    const before = pacer.holdMs
    pacer.offer(chunk(100), 100 * CHUNK_MS + 5)
    expect(pacer.holdMs - before).toBeCloseTo(0.6)
  })

  it('gives up what is more than 700 ms late, and goes on', () => {
    const pacer = new VoicePacer()
    pacer.follow(0)
    pacer.offer(chunk(0), 0)
    pacer.offer(chunk(1), CHUNK_MS)
    pacer.offer(chunk(40), 40 * CHUNK_MS)
    expect(pacer.take(40 * CHUNK_MS + 1)!.samples[0]).toBe(40)
    expect(pacer.dropped).toBe(2)
  })

  it.each([40, 200, 1000])('is heard again within a second when a microphone lost %i ms of sound, as long after the picture as before', (lostMs) => {
    const pacer = new VoicePacer()
    pacer.follow(60)
    // The source counts what it gives, not what it lost.
    const out = run(pacer, 300, (index) => (index < 100 ? 5 : 5 + lostMs))
    const after = out.filter(({ index }) => index >= 150)
    expect(after.length).toBeGreaterThan(140)
    const waits = after.map(({ index, atMs }) => atMs - (index * CHUNK_MS + 5 + lostMs))
    expect(waits.reduce((sum, wait) => sum + wait, 0) / waits.length).toBeCloseTo(60, -1)
  })

  it('plays what a busy thread could not take in time, all of it, and is back at once: nothing of a voice is lost', () => {
    const pacer = new VoicePacer()
    pacer.follow(60)
    // Busy for 400 ms of each second: what comes meanwhile is heard of afterwards, all together.
    const delayOf = (index: number) => {
      const inSecond = (index * CHUNK_MS) % 1000
      return index > 50 && inSecond < 400 ? 400 - inSecond + 5 : 5
    }
    const out = run(pacer, 500, delayOf)
    expect(pacer.dropped).toBe(0)
    expect(out.length).toBeGreaterThan(490)
    const waits = out.map(({ index, atMs }) => atMs - index * CHUNK_MS)
    // What waited for its picture when the thread became busy waits longest.
    expect(Math.max(...waits)).toBeLessThanOrEqual(5 + 60 + 400)
    // Between two busy parts they wait as long as ever.
    const calm = out.filter(({ index }) => (index * CHUNK_MS) % 1000 >= 500 && (index * CHUNK_MS) % 1000 < 900)
    expect(Math.max(...calm.map(({ index, atMs }) => atMs - index * CHUNK_MS))).toBeLessThan(90)
  })

  it('takes a busy second for no loss while some chunks are in time: none waits longer than it took to come', () => {
    const pacer = new VoicePacer()
    pacer.follow(60)
    let last = 0
    const delayOf = (index: number) => {
      last = Math.max(last, index * CHUNK_MS + (index >= 100 && index < 150 && index % 20 < 15 ? 90 : 5))
      return last - index * CHUNK_MS
    }
    const out = run(pacer, 300, delayOf, 1)
    expect(pacer.dropped).toBe(0)
    expect(Math.max(...out.map(({ index, atMs }) => atMs - index * CHUNK_MS))).toBeLessThanOrEqual(90)
  })

  it('begins anew with a sender that began anew', () => {
    const pacer = new VoicePacer()
    pacer.follow(0)
    pacer.offer(chunk(10_000), 5)
    pacer.take(10)
    pacer.offer(chunk(0), 1000)
    expect(pacer.take(1001)!.samples[0]).toBe(0)
  })

  it('never holds more than a second', () => {
    const pacer = new VoicePacer()
    pacer.follow(500)
    for (let index = 0; index < 5000; index += 1) pacer.offer(chunk(index), 0)
    let waiting = 0
    while (pacer.take(1e9) !== null) waiting += 1
    expect(waiting + pacer.dropped).toBe(5000)
    expect(pacer.dropped).toBeGreaterThanOrEqual(4900)
  })
})

describe('a chunk', () => {
  it('comes back as it was packed', () => {
    const samples = Int16Array.from({ length: CHUNK_FRAMES * CHUNK_CHANNELS }, (_, i) => ((i * 67) % 65_536) - 32_768)
    expect(unpackChunk(packChunk({ firstFrame: 4_294_967_295, samples }))).toEqual({ firstFrame: 4_294_967_295, samples })
  })

  it('is told from anything else', () => {
    for (const bytes of [null, 'text', new ArrayBuffer(0), new ArrayBuffer(CHUNK_BYTES - 1), new Uint8Array(CHUNK_BYTES)]) expect(unpackChunk(bytes)).toBeNull()
  })

  it('clips at full scale', () => {
    expect([codeOf(2), codeOf(1), codeOf(0), codeOf(-1), codeOf(-2)]).toEqual([32_767, 32_767, 0, -32_767, -32_768])
  })
})
