// Rate, delay and loss of the feed as a meeting gets it, with the studio's tab hidden.
import { watchSteal } from './cpu-steal.ts'
import { startFeedRig } from './feed-rig.ts'

const SECONDS = 60

export interface FeedFigures {
  readonly seconds: number
  readonly fps: number
  readonly latencyMs: { readonly median: number | null; readonly p95: number | null }
  readonly frames: number
  readonly lost: number
  readonly repeated: number
  readonly lostShare: number
  readonly widthPx: number
  readonly heightPx: number
  readonly liveFrames: number
  /** Share of processor time that the host gave to others meanwhile: figures with much of it mean little. */
  readonly cpuStolen: number | null
}

export async function benchFeed(say: (text: string) => void): Promise<FeedFigures> {
  say(`feed: ${SECONDS} s in the browser, studio hidden`)
  const rig = await startFeedRig()
  try {
    const stolen = watchSteal()
    await rig.resetFigures()
    await rig.meeting.evaluate(`new Promise((resolve) => setTimeout(resolve, ${SECONDS * 1000}))`)
    const figures = await rig.figures()
    const { liveFrames } = await rig.stats()
    return {
      seconds: figures.seconds,
      fps: figures.frames / figures.seconds,
      latencyMs: { median: figures.latencyMedianMs, p95: figures.latencyP95Ms },
      frames: figures.frames,
      lost: figures.lost,
      repeated: figures.repeated,
      lostShare: figures.lost / (figures.frames + figures.lost),
      widthPx: figures.widthPx,
      heightPx: figures.heightPx,
      liveFrames,
      cpuStolen: stolen(),
    }
  } finally {
    await rig.close()
  }
}
