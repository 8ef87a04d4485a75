// What graphics cost the feed, and how soon another background is seen.
import { drawBackground } from '../../core/backgrounds/drawn.ts'
import { seedDemo } from '../../demo/seed.ts'
import { BareBrowser } from '../support/cdp.ts'
import { startTestServer } from '../support/test-server.ts'
import { watchSteal } from './cpu-steal.ts'
import { startFeedRig, type FeedRig } from './feed-rig.ts'
import { quantile } from './statistics.ts'

const SECONDS = 15
const ROUNDS = 3
/** One of six comes or goes this often: each stays for twelve times as long, and two or three always move. */
const TURN_EVERY_MS = 200

interface Flow {
  readonly fps: number
  readonly lost: number
  readonly frameMs: number
}

export interface GraphicsFigures {
  readonly without: Flow
  /** On air and at rest; two clocks and two countdowns go on. */
  readonly sixStill: Flow
  readonly sixMoving: Flow
  /** Six moving by none: medians of rounds in turn. */
  readonly ratio: { readonly fps: number; readonly frameMs: number }
  readonly cpuStolen: number | null
}

export async function benchGraphics(say: (text: string) => void): Promise<GraphicsFigures> {
  const stolen = watchSteal()
  const rig = await startFeedRig('graphics')
  try {
    const without: Flow[] = []
    const still: Flow[] = []
    const moving: Flow[] = []
    for (let round = 1; round <= ROUNDS; round += 1) {
      say(`graphics: round ${round} of ${ROUNDS}, ${SECONDS} s without any, with six, and with six that come and go`)
      without.push(await measure(rig, () => Promise.resolve()))
      await rig.studio.evaluate<void>(`for (const one of document.querySelectorAll('[data-graphic] [role="switch"]')) one.click()`)
      still.push(await measure(rig, () => Promise.resolve()))
      let turn = 0
      moving.push(await measure(rig, () => rig.studio.evaluate<void>(toggled((turn += 1) % 6))))
      await rig.studio.evaluate<void>(`for (const one of document.querySelectorAll('[data-graphic] [role="switch"][aria-checked="true"]')) one.click()`)
    }
    const ratio = {
      fps: quantile(
        moving.map(({ fps }, i) => fps / without[i]!.fps),
        0.5,
      ),
      frameMs: quantile(
        moving.map(({ frameMs }, i) => frameMs / without[i]!.frameMs),
        0.5,
      ),
    }
    return { without: middle(without), sixStill: middle(still), sixMoving: middle(moving), ratio, cpuStolen: stolen() }
  } finally {
    await rig.close()
  }
}

const toggled = (index: number) => `document.querySelectorAll('[data-graphic] [role="switch"]')[${index}].click()`

/** A hidden page's own timers are throttled, so each turn comes from outside. */
async function measure(rig: FeedRig, each: () => Promise<void>): Promise<Flow> {
  const before = await rig.stats()
  await rig.resetFigures()
  for (const untilMs = performance.now() + SECONDS * 1000; performance.now() < untilMs;) {
    await rig.meeting.evaluate(`new Promise((resolve) => setTimeout(resolve, ${TURN_EVERY_MS}))`)
    await each()
  }
  const { frames, seconds } = await rig.figures()
  const after = await rig.stats()
  return { fps: frames / seconds, lost: after.feed.lost - before.feed.lost, frameMs: after.frameMs }
}

function middle(flows: readonly Flow[]): Flow {
  const of = (pick: (flow: Flow) => number) => quantile(flows.map(pick), 0.5)
  return { fps: of(({ fps }) => fps), lost: of(({ lost }) => lost), frameMs: of(({ frameMs }) => frameMs) }
}

export interface SwapFigures {
  /** From a press on a favourite to the first picture of the stage that has it, by the page's clock. */
  readonly medianMs: number
  readonly p95Ms: number
  /** The same in frames of the show. */
  readonly medianFrames: number
  readonly p95Frames: number
  /** The first swap to each, when nothing of it was drawn yet. */
  readonly firstMs: number
  readonly cpuStolen: number | null
}

const SWAPS = 40
const FRAME_RATE = 30

/** Two favourites in turn, behind a presenter whose wall is keyed away. */
export async function benchSwap(say: (text: string) => void): Promise<SwapFigures> {
  const stolen = watchSteal()
  const server = await startTestServer()
  const browser = await BareBrowser.launch([])
  try {
    await seedDemo(server.shows, server.assets)
    const { show, revision, id } = await server.shows.get('demo-brood-frame')
    let count = 0
    const { layer, contents } = drawBackground('hills', 'Hills', show.canvas, () => `bench-${(count += 1)}`)
    const scene = show.scenes[0]!
    const favourites = [
      { type: 'drawn', name: 'hills' },
      { type: 'input', inputId: show.inputs.find(({ kind }) => kind === 'picture')!.id },
    ] as const
    const scenes = [{ ...scene, layers: [layer, ...scene.layers.slice(1)] }, ...show.scenes.slice(1)]
    await server.shows.save(id, revision, { ...show, contents: [...show.contents, ...contents], favourites, scenes })
    say(`swap: ${SWAPS} swaps of the background`)
    const studio = await browser.newPage(server.studioUrl)
    await studio.until('window.greenRoom?.hasPicture()')
    const times = await studio.evaluate<number[]>(swaps)
    const again = times.slice(2)
    const [medianMs, p95Ms] = [quantile(again, 0.5), quantile(again, 0.95)]
    const frames = (ms: number) => (ms * FRAME_RATE) / 1000
    return { medianMs, p95Ms, medianFrames: frames(medianMs), p95Frames: frames(p95Ms), firstMs: Math.max(...times.slice(0, 2)), cpuStolen: stolen() }
  } finally {
    await browser.close()
    await server.close()
  }
}

/** Presses the favourites in turn; each time until a corner of the stage where nobody stands is another colour. */
const swaps = `(async () => {
  const canvas = document.querySelector('[data-testid="stage"] canvas')
  const pen = new OffscreenCanvas(8, 8).getContext('2d', { willReadFrequently: true })
  const frame = () => new Promise(requestAnimationFrame)
  const look = () => {
    pen.drawImage(canvas, 0, 0, canvas.width * 0.06, canvas.height * 0.06, 0, 0, 8, 8)
    return [...pen.getImageData(4, 4, 1, 1).data]
  }
  const differs = (one, other) => one.some((value, i) => Math.abs(value - other[i]) > 6)
  const times = []
  for (let i = 0; i < ${SWAPS}; i += 1) {
    for (let j = 0; j < 30; j += 1) await frame()
    const before = look()
    const started = performance.now()
    ;[...document.querySelectorAll('[data-favourite]')].find((button) => button.getAttribute('aria-pressed') === 'false').click()
    while (!differs(look(), before)) {
      if (performance.now() - started > 5000) throw new Error('a swap was not seen within five seconds')
      await frame()
    }
    times.push(performance.now() - started)
  }
  return times
})()`
