import { describe, expect, it } from 'vitest'
import { seededRandom } from '../random/seeded.ts'
import { ClipClock, pictureAt } from './clip-clock.ts'

const whole = { fromUs: 0, toUs: 2_000_000, rate: 1, loops: true }

describe('the clock of a clip', () => {
  it('plays, holds its place while paused, and goes on from there', () => {
    const clock = new ClipClock(whole)
    expect(clock.at(500)).toEqual({ lap: 0, mediaUs: 0, isOver: false })
    clock.play(1000)
    expect(clock.at(1500).mediaUs).toBe(500_000)
    clock.pause(1700)
    expect(clock.at(9000).mediaUs).toBe(700_000)
    clock.play(10_000)
    expect(clock.at(10_100).mediaUs).toBe(800_000)
    clock.restart(10_200)
    expect(clock.at(10_300).mediaUs).toBe(100_000)
  })

  it('begins again without losing a microsecond, lap after lap', () => {
    const clock = new ClipClock({ fromUs: 400_000, toUs: 1_100_000, rate: 1, loops: true })
    clock.play(0)
    expect(clock.at(699.999)).toMatchObject({ lap: 0, isOver: false })
    expect(clock.at(700)).toEqual({ lap: 1, mediaUs: 400_000, isOver: false })
    expect(clock.at(700 * 1000 + 33).lap).toBe(1000)
    expect(clock.at(700 * 1000 + 33).mediaUs).toBeCloseTo(433_000, 3)
  })

  it('holds its end when it plays once; played again it begins anew', () => {
    const clock = new ClipClock({ ...whole, loops: false })
    clock.play(0)
    expect(clock.at(5000)).toEqual({ lap: 0, mediaUs: 2_000_000, isOver: true })
    clock.pause(5000)
    clock.play(6000)
    expect(clock.at(6100)).toEqual({ lap: 0, mediaUs: 100_000, isOver: false })
  })

  it('a place is due when the clock is there (seeds 1 to 20)', () => {
    for (let seed = 1; seed <= 20; seed += 1) {
      const random = seededRandom(seed)
      const fromUs = Math.round(random() * 1e6)
      const clock = new ClipClock({ fromUs, toUs: fromUs + 100_000 + Math.round(random() * 3e6), rate: 0.25 + random() * 3, loops: true })
      clock.play(random() * 1000)
      clock.pause(2000)
      expect(clock.dueMs(0, fromUs)).toBeNull()
      clock.play(3000)
      for (let i = 0; i < 10; i += 1) {
        const lap = 5 + Math.floor(random() * 5)
        const mediaUs = fromUs + random() * (clock.range.toUs - fromUs - 2)
        const place = clock.at(clock.dueMs(lap, mediaUs)! + 1e-6)
        expect(place.lap).toBe(lap)
        expect(place.mediaUs).toBeCloseTo(mediaUs, 1)
      }
    }
  })

  it('another rate or range keeps the place', () => {
    const clock = new ClipClock(whole)
    clock.play(0)
    clock.setRange({ ...whole, rate: 2 }, 500)
    expect(clock.at(500).mediaUs).toBe(500_000)
    expect(clock.at(600).mediaUs).toBe(700_000)
    clock.setRange({ ...whole, fromUs: 900_000 }, 600)
    expect(clock.at(600).mediaUs).toBe(900_000)
  })
})

describe('pictureAt', () => {
  it('is what a plain search finds (seeds 1 to 20)', () => {
    for (let seed = 1; seed <= 20; seed += 1) {
      const random = seededRandom(seed)
      const starts = Array.from({ length: 1 + Math.floor(random() * 40) }, () => Math.round(random() * 1e6)).toSorted((one, other) => one - other)
      for (let i = 0; i < 50; i += 1) {
        const at = Math.round(random() * 1.2e6) - 1e5
        const plain = Math.max(0, starts.filter((start) => start <= at).length - 1)
        expect(starts[pictureAt(starts, at)]).toBe(starts[plain])
      }
    }
  })
})
