// Rate, delay and loss of the feed as a meeting gets it, with the studio's tab hidden.
import { watchSteal } from './cpu-steal.ts'
import { startFeedRig, type FeedChain } from './feed-rig.ts'

const SECONDS = 60

export interface FeedFigures {
  /** How the meeting came to its camera. */
  readonly path: 'driver' | 'extension'
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
  /** Mean time the studio takes for a frame of everything it draws. */
  readonly frameMs: number
  /** Share of processor time that the host gave to others meanwhile: figures with much of it mean little. */
  readonly cpuStolen: number | null
}

/** Pictures a second where no frame numbers can be read. */
export interface RateFigures {
  readonly seconds: number
  /** Pictures the studio sent. */
  readonly sentFps: number
  /** Pictures the meeting showed. */
  readonly shownFps: number
  readonly lostShare: number
  readonly frameMs: number
  readonly cpuStolen: number | null
}

/** The feed with the room softened, as the studio sends it and the meeting shows it. */
export async function benchRoomFeed(say: (text: string) => void): Promise<RateFigures> {
  say(`feed: ${SECONDS} s in the browser, studio hidden, room softened`)
  const rig = await startFeedRig('softenedRoom')
  try {
    const stolen = watchSteal()
    const before = await rig.stats()
    const started = performance.now()
    const shown = await rig.meeting.evaluate<number>(`new Promise((resolve) => {
      const video = document.querySelector('#others')
      let count = 0
      const note = () => { count += 1; video.requestVideoFrameCallback(note) }
      video.requestVideoFrameCallback(note)
      setTimeout(() => resolve(count), ${SECONDS * 1000})
    })`)
    const seconds = (performance.now() - started) / 1000
    const after = await rig.stats()
    const sent = after.feed.sent - before.feed.sent
    const lost = after.feed.lost - before.feed.lost
    return {
      seconds,
      sentFps: sent / seconds,
      shownFps: shown / seconds,
      lostShare: lost / (sent + lost),
      frameMs: after.frameMs,
      cpuStolen: stolen(),
    }
  } finally {
    await rig.close()
  }
}

export async function benchFeed(say: (text: string) => void, chain: FeedChain = 'usual', way: FeedFigures['path'] = 'driver'): Promise<FeedFigures> {
  say(`feed: ${SECONDS} s in the browser, studio hidden, camera chain: ${chain}, by the ${way}`)
  const rig = await startFeedRig(chain, way)
  try {
    const stolen = watchSteal()
    await rig.resetFigures()
    await rig.meeting.evaluate(`new Promise((resolve) => setTimeout(resolve, ${SECONDS * 1000}))`)
    const figures = await rig.figures()
    const { liveFrames, frameMs } = await rig.stats()
    return {
      path: way,
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
      frameMs,
      cpuStolen: stolen(),
    }
  } finally {
    await rig.close()
  }
}
