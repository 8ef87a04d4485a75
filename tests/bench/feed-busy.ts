// The feed on a busy machine: two processes that never rest beside it, against a bare camera in the same meeting under the same load.
import { spawn } from 'node:child_process'
import { watchSteal } from './cpu-steal.ts'
import { startBareMeeting, startFeedRig, type FeedRig } from './feed-rig.ts'
import { quantile } from './statistics.ts'

const SECONDS = 20
const ROUNDS = 3
const BUSY_PROCESSES = 2

/** Pictures as the others see them. */
interface Flow {
  readonly fps: number
  /** 95 % of the pictures come after at most this, in ms. */
  readonly gapP95Ms: number
  /** Share of the pictures that come within half a period of the median gap. */
  readonly evenness: number
}

export interface BusyFigures {
  readonly feed: Flow
  readonly bareCamera: Flow
  /** The feed's by the bare camera's, 1 is as good: medians of rounds in turn. Of the gap the other way round. */
  readonly ratio: Flow
  readonly cpuStolen: number | null
}

export async function benchFeedBusy(say: (text: string) => void): Promise<BusyFigures> {
  const stolen = watchSteal()
  const feeds: Flow[] = []
  const bares: Flow[] = []
  for (let round = 1; round <= ROUNDS; round += 1) {
    say(`feed on a busy machine: round ${round} of ${ROUNDS}, ${SECONDS} s by the studio, ${SECONDS} s with a bare camera`)
    feeds.push(await measure(() => startFeedRig('fileCamera')))
    bares.push(await measure(startBareMeeting))
  }
  const feed = middle(feeds)
  const bareCamera = middle(bares)
  const ratio = {
    fps: median(feeds.map(({ fps }, i) => fps / bares[i]!.fps)),
    gapP95Ms: median(feeds.map(({ gapP95Ms }, i) => bares[i]!.gapP95Ms / gapP95Ms)),
    evenness: median(feeds.map(({ evenness }, i) => evenness / bares[i]!.evenness)),
  }
  return { feed, bareCamera, ratio, cpuStolen: stolen() }
}

async function measure(start: () => Promise<Pick<FeedRig, 'meeting' | 'close'>>): Promise<Flow> {
  const rig = await start()
  const busy = Array.from({ length: BUSY_PROCESSES }, () => spawn(process.execPath, ['-e', 'for (;;);'], { stdio: 'ignore' }))
  try {
    const times = await rig.meeting.evaluate<number[]>(`new Promise((resolve) => {
      const video = document.querySelector('#others')
      const times = []
      const note = (now) => { times.push(now); video.requestVideoFrameCallback(note) }
      video.requestVideoFrameCallback(note)
      setTimeout(() => resolve(times), ${SECONDS * 1000})
    })`)
    return flowOf(times)
  } finally {
    for (const process of busy) process.kill('SIGKILL')
    await rig.close()
  }
}

function flowOf(times: readonly number[]): Flow {
  const gaps = times.slice(1).map((time, i) => time - times[i]!)
  const usual = median(gaps)
  return {
    fps: (gaps.length * 1000) / (times.at(-1)! - times[0]!),
    gapP95Ms: quantile(gaps, 0.95),
    evenness: gaps.filter((gap) => Math.abs(gap - usual) <= usual / 2).length / gaps.length,
  }
}

const median = (values: readonly number[]) => quantile(values, 0.5)

function middle(flows: readonly Flow[]): Flow {
  return {
    fps: median(flows.map(({ fps }) => fps)),
    gapP95Ms: median(flows.map(({ gapP95Ms }) => gapP95Ms)),
    evenness: median(flows.map(({ evenness }) => evenness)),
  }
}
