// Whatever dies, in whatever order: a meeting has the live picture or the holding card, and never keeps an old picture.
import { chromium, type Browser, type BrowserContext, type Page, type Worker } from '@playwright/test'
import { seededRandom } from '../../core/random/seeded.ts'
import { CHROMIUM, CHROMIUM_FLAGS } from '../support/chromium.ts'
import { restartTestServer, type TestServer } from '../support/test-server.ts'
import { expect, FULL_RATE, joinMeeting, openStudio, test } from './studio.ts'

test.use({ frameRate: FULL_RATE })

/** Deaths in a row with `npm test`; GREEN_ROOM_DEATHS asks for more. */
const COUNT = Number(process.env['GREEN_ROOM_DEATHS'] ?? 14)
const SEED = Number(process.env['GREEN_ROOM_DEATHS_SEED'] ?? 5)
/** Else the browser itself ends when its graphics process has been killed a few times. */
const NO_CRASH_LIMIT = '--disable-gpu-process-crash-limit'
/** The card comes 0.7 s after the last picture; the rest is for a machine with two cores that starts processes meanwhile. In time that the page itself had. */
const LONGEST_STILL_MS = 1500

interface Seen {
  frames: number
  /** The longest time without any frame, and without a frame that differs while it was not the card, in ms. */
  longestGapMs: number
  longestStillMs: number
  black: number
  ended: boolean
  kind: 'card' | 'live' | 'nothing'
}

/** Watches the meeting's own track from now on, with nothing that a graphics process could take away. */
async function watchMeeting(meeting: Page): Promise<() => Promise<Seen>> {
  await meeting.evaluate(() => {
    const video = document.querySelector<HTMLVideoElement>('#others')!
    const track = (video.srcObject as MediaStream).getVideoTracks()[0]!.clone() as MediaStreamVideoTrack
    const seen = { frames: 0, longestGapMs: 0, longestStillMs: 0, black: 0, ended: false, kind: 'nothing' }
    Object.assign(window, { seen })
    // A page that gets no time itself counts none.
    let ownMs = 0
    setInterval(() => (ownMs += 50), 50)
    let lastFrameMs = ownMs
    let lastChangeMs = lastFrameMs
    let lastSum = ''
    const reader = new MediaStreamTrackProcessor({ track }).readable.getReader()
    const next = async (): Promise<void> => {
      const { done, value } = await reader.read()
      if (done || value === undefined) return void (seen.ended = true)
      const now = ownMs
      const room = new Uint8Array(value.allocationSize({ format: 'RGBA' } as VideoFrameCopyToOptions))
      const width = value.codedWidth
      await value.copyTo(room, { format: 'RGBA' } as VideoFrameCopyToOptions)
      value.close()
      let brightest = 0
      let sum = ''
      for (let at = 0; at < room.length; at += 4 * 97 * 31) {
        brightest = Math.max(brightest, room[at]!, room[at + 1]!, room[at + 2]!)
        sum += String.fromCharCode(room[at + 1]!)
      }
      const wall = 4 * (100 * width + 100)
      const isCard = room[wall]! + room[wall + 1]! + room[wall + 2]! < 450
      seen.frames += 1
      seen.kind = isCard ? 'card' : 'live'
      if (brightest < 20) seen.black += 1
      seen.longestGapMs = Math.max(seen.longestGapMs, now - lastFrameMs)
      if (sum !== lastSum || isCard) lastChangeMs = now
      seen.longestStillMs = Math.max(seen.longestStillMs, now - lastChangeMs)
      lastFrameMs = now
      lastSum = sum
      return next()
    }
    void next()
  })
  return () => meeting.evaluate(() => (window as unknown as { seen: Seen }).seen)
}

const engineOf = (page: Page): Worker | undefined => page.workers().find((worker) => worker.url().includes('engine'))

/** The system's number of the browser's graphics process; null where it has none. */
async function graphicsProcess(browser: Browser): Promise<number | null> {
  const session = await browser.newBrowserCDPSession()
  const { processInfo } = await session.send('SystemInfo.getProcessInfo')
  await session.detach()
  return processInfo.find(({ type }) => type === 'GPU')?.id ?? null
}

const deaths = ['graphics', 'reload', 'crash', 'close', 'engine', 'server'] as const
type Death = (typeof deaths)[number]

interface Stage {
  readonly browser: Browser
  readonly context: BrowserContext
  readonly server: TestServer
  studio: Page
}

async function onAir(stage: Stage): Promise<void> {
  stage.studio = await stage.context.newPage()
  await openStudio(stage.studio, stage.server)
  const start = stage.studio.getByRole('button', { name: 'Start feed' })
  const stop = stage.studio.getByRole('button', { name: 'Stop feed' })
  await expect(start.or(stop)).toBeVisible()
  if (await start.isVisible()) await start.click()
  await expect(stop).toBeVisible()
}

async function strike(stage: Stage, death: Death): Promise<void> {
  const { studio, browser, context } = stage
  switch (death) {
    case 'graphics': {
      const pid = await graphicsProcess(browser)
      if (pid !== null) process.kill(pid, 'SIGKILL')
      return
    }
    case 'reload':
      await studio.reload()
      return
    case 'crash': {
      const session = await context.newCDPSession(studio)
      const isGone = studio.waitForEvent('crash')
      session.send('Page.crash').catch(() => undefined)
      await isGone
      return
    }
    case 'close':
      await studio.close()
      return
    case 'engine':
      await engineOf(studio)?.evaluate(() => self.close())
      return
    case 'server':
      await restartTestServer(stage.server, async () => undefined)
      return
    default:
      death satisfies never
  }
}

/** A page that is gone is opened anew, as a presenter would. */
async function mend(stage: Stage, death: Death): Promise<void> {
  if (death !== 'crash' && death !== 'close') return
  if (death === 'crash') await stage.studio.close()
  await onAir(stage)
}

async function through(server: TestServer, sequence: readonly Death[]): Promise<void> {
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: [...CHROMIUM_FLAGS, NO_CRASH_LIMIT] })
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
    const stage: Stage = { browser, context, server, studio: null as unknown as Page }
    await onAir(stage)
    const meeting = await joinMeeting(context, server)
    const seen = await watchMeeting(meeting)
    await expect.poll(async () => (await seen()).kind, { timeout: 40_000 }).toBe('live')
    const faults: string[] = []
    for (const [index, death] of sequence.entries()) {
      const what = `${index + 1}: ${sequence.slice(Math.max(0, index - 3), index + 1).join(', ')}`
      await meeting.evaluate(() => Object.assign((window as unknown as { seen: Seen }).seen, { longestGapMs: 0, longestStillMs: 0 }))
      await strike(stage, death)
      await mend(stage, death)
      const before = (await seen()).frames
      await expect.poll(async () => (await seen()).kind === 'live' && (await seen()).frames > before + 30, { timeout: 60_000, message: what }).toBe(true)
      const { longestGapMs, longestStillMs, black, ended } = await seen()
      if (longestGapMs > LONGEST_STILL_MS || longestStillMs > LONGEST_STILL_MS || black > 0 || ended)
        faults.push(`${what}: no frame for ${Math.round(longestGapMs)} ms, one picture for ${Math.round(longestStillMs)} ms, ${black} black, ended ${ended}`)
    }
    expect(faults).toEqual([])
  } finally {
    await browser.close()
  }
}

test('the graphics process is killed, the studio loaded anew, then it crashes: the card, then the picture', async ({ server }) => {
  await through(server, ['graphics', 'reload', 'crash'])
})

test('a random sequence of deaths', async ({ server }) => {
  test.setTimeout(120_000 + COUNT * 30_000)
  const random = seededRandom(SEED)
  await through(
    server,
    Array.from({ length: COUNT }, () => deaths[Math.floor(random() * deaths.length)]!),
  )
})
