// How far sound and picture are apart at a meeting that has them by the extension, before and after the five claps, and for how
// long it stays so.
import type { MeetingRecord } from '../../standins/meeting/figures-window.ts'
import { RECORD_MS, silenceMs, skewsOf } from '../support/meeting-skew.ts'
import { watchSteal } from './cpu-steal.ts'
import { startFeedRig, type FeedRig } from './feed-rig.ts'
import { quantile } from './statistics.ts'

const MINUTES = 5
const GAP_MS = 4000

/** Picture minus sound, in ms: positive when the sound comes first. */
interface Skew {
  readonly medianMs: number
  readonly leastMs: number
  readonly mostMs: number
  readonly claps: number
}

export interface SyncFigures {
  /** As it is with no delay set. */
  readonly before: Skew
  /** The delay that five claps set. */
  readonly delayMs: number
  readonly after: Skew
  /** How much of the sound was cut off, in ms a minute. */
  readonly cutOffMsAMinute: number
  /** Medians of each minute after that. */
  readonly minutes: Readonly<Record<string, number>>
  /** How long the picture took meanwhile, from the camera on. */
  readonly latencyMs: { readonly median: number | null; readonly p95: number | null }
  /** Share of processor time that the host gave to others meanwhile: figures with much of it mean little. */
  readonly cpuStolen: number | null
}

let cutOffMs = 0

async function skewsOnce(rig: FeedRig): Promise<number[]> {
  const record = rig.meeting.evaluate<MeetingRecord>(`window.meetingFigures.record(${RECORD_MS})`)
  const cueMs = await rig.studio.evaluate<number>('window.greenRoom.cueClaps()')
  const heard = await record
  cutOffMs += silenceMs(heard)
  return skewsOf(heard, cueMs)
}

function skewOf(skews: readonly number[]): Skew {
  return { medianMs: quantile(skews, 0.5), leastMs: Math.min(...skews), mostMs: Math.max(...skews), claps: skews.length }
}

export async function benchSync(say: (text: string) => void): Promise<SyncFigures> {
  say(`sync: ${MINUTES} min in the browser, studio hidden, by the extension`)
  const rig = await startFeedRig('usual', 'extension')
  try {
    const stolen = watchSteal()
    const before = skewOf([...(await skewsOnce(rig)), ...(await skewsOnce(rig))])
    const delayMs = await setDelay(rig)
    const minutes: Record<string, number> = {}
    const after: number[] = []
    await rig.resetFigures()
    cutOffMs = 0
    let rounds = 0
    const startMs = performance.now()
    for (let minute = 1; minute <= MINUTES; minute += 1) {
      const ofMinute: number[] = []
      while (performance.now() - startMs < minute * 60_000) {
        ofMinute.push(...(await skewsOnce(rig)))
        rounds += 1
        await rig.meeting.evaluate(`new Promise((resolve) => setTimeout(resolve, ${GAP_MS}))`)
      }
      minutes[String(minute)] = quantile(ofMinute, 0.5)
      after.push(...ofMinute)
      say(`sync: minute ${minute}, median ${minutes[String(minute)]!.toFixed(1)} ms of ${ofMinute.length} claps`)
    }
    const { latencyMedianMs, latencyP95Ms } = await rig.figures()
    return {
      before,
      delayMs,
      after: skewOf(after),
      cutOffMsAMinute: (cutOffMs * 60_000) / (rounds * RECORD_MS),
      minutes,
      latencyMs: { median: latencyMedianMs, p95: latencyP95Ms },
      cpuStolen: stolen(),
    }
  } finally {
    await rig.close()
  }
}

/** Two measurements that differ by less agree; one is repeated until then, but not for ever. */
const AGREE_MS = 15
const MOST_MEASUREMENTS = 6

/** Claps five times on the devices page until two times agree, as a presenter does, and reads the delay that this set. */
async function setDelay(rig: FeedRig): Promise<number> {
  const { studio } = rig
  await studio.evaluate(`document.querySelector('header a[href$="/devices"]').click()`)
  let before = -Infinity
  for (let i = 1; ; i += 1) {
    const delayMs = await measureDelay(rig)
    if (Math.abs(delayMs - before) <= AGREE_MS || i === MOST_MEASUREMENTS) return delayMs
    before = delayMs
  }
}

async function measureDelay({ studio }: FeedRig): Promise<number> {
  const text = `document.querySelector('[data-testid=clap]').textContent`
  await studio.until(`document.querySelector('[data-testid=clap] button:not([disabled])')`)
  await studio.evaluate(`document.querySelector('[data-testid=clap] button').click()`)
  await studio.until(`!/ahead of the picture/.test(${text})`)
  await studio.until(`/ahead of the picture/.test(${text})`, 60_000)
  return studio.evaluate<number>(`Number(/was (\\d+) ms/.exec(${text})[1])`)
}
