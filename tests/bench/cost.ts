// What the studio costs a laptop: processor time of all the browser's processes, in seconds of a core a second.
import { rmSync } from 'node:fs'
import path from 'node:path'
import { newInputLayer } from '../../core/layers/input.ts'
import { newShow } from '../../core/show/create.ts'
import type { CameraDevice, Show } from '../../core/show/show.ts'
import { BareBrowser, type BarePage } from '../support/cdp.ts'
import { startTestServer, type TestServer } from '../support/test-server.ts'
import { watchSteal } from './cpu-steal.ts'
import type { EngineStats } from '../../engine/protocol.ts'
import { writeStandinY4m } from '../support/y4m.ts'
import { cpuSecondsByRole, processesOf, type ThreadRole } from './process-tree.ts'

const SECONDS = 20
const FRAME_RATE = 30
const MIN_DRAWN_CORES = 0.01
const SETTLE_MS = 5000
const CAMERA_SECONDS = 2

export interface CostFigures {
  /** Cores that the browser took without other pages, such as the meeting. */
  readonly cores: number
  /** The same by whose threads took them. */
  readonly byRole: Readonly<Record<ThreadRole, number>>
  /** A frame of the engine in this run. */
  readonly frameMs: number
  /** What the studio's own threads took, page and workers, as a multiple of frame time × frame rate; null where nothing was drawn. */
  readonly timesFrame: number | null
  readonly cpuStolen: number | null
}

/** Measures while `shown` is the page in front. `own` are the processes that ran before any other page was opened. */
async function measure(browser: BareBrowser, studio: BarePage, own: readonly number[], shown: BarePage): Promise<CostFigures> {
  const wait = (ms: number) => shown.evaluate(`new Promise((resolve) => setTimeout(resolve, ${ms}))`)
  await wait(SETTLE_MS)
  const stolen = watchSteal()
  const before = cpuSecondsByRole(browser.pid, own)
  const startMs = performance.now()
  await wait(SECONDS * 1000)
  const seconds = (performance.now() - startMs) / 1000
  const after = cpuSecondsByRole(browser.pid, own)
  const byRole = Object.fromEntries(Object.entries(after).map(([role, value]) => [role, (value - before[role as ThreadRole]) / seconds]))
  const cores = Object.entries(byRole).reduce((sum, [role, value]) => (role === 'otherPages' ? sum : sum + value), 0)
  const { frameMs } = await studio.evaluate<EngineStats>('window.greenRoom.stats()')
  const drawnCores = (frameMs * FRAME_RATE) / 1000
  const timesFrame = drawnCores < MIN_DRAWN_CORES ? null : (byRole.page! + byRole.workers!) / drawnCores
  return { cores, byRole: byRole as Record<ThreadRole, number>, frameMs, timesFrame, cpuStolen: stolen() }
}

/** A camera over a wall, at the size of the canvas; the camera is a device that plays a file, which costs as little as a real one. */
function showAt(heightPx: number, cameraFile: string): Show {
  let count = 0
  const makeId = () => `c${(count += 1)}`
  const show = newShow('Cost', { scene: 'Scene', camera: 'Camera', wall: 'Wall' }, makeId)
  const canvas = { widthPx: (heightPx * 16) / 9, heightPx, frameRate: FRAME_RATE }
  // The browser calls a device that plays a file by the file's name.
  const device: CameraDevice = { type: 'device', deviceId: '', label: cameraFile }
  const inputs = show.inputs.map((input) => (input.kind === 'camera' ? { ...input, ...canvas, device } : input))
  return { ...show, canvas, inputs, scenes: [{ ...show.scenes[0]!, layers: [...inputs].reverse().map((input) => newInputLayer(input, canvas, makeId)) }] }
}

/** The studio at work in Build, hidden without a feed, and hidden on air in a meeting. */
export async function benchCost(say: (text: string) => void): Promise<Record<string, CostFigures>> {
  const result: Record<string, CostFigures> = {}
  const server = await startTestServer()
  try {
    for (const heightPx of [720, 1080]) {
      const cameraFile = await writeStandinY4m(CAMERA_SECONDS, 'cloth', heightPx)
      const { id } = await server.shows.create(showAt(heightPx, cameraFile))
      for (const state of ['build', 'hidden', 'onAir'] as const) {
        say(`cost: ${heightPx}p30, ${state}, ${SECONDS} s`)
        result[`${heightPx}p30 ${state}`] = await costOf(server, id, cameraFile, state)
      }
      rmSync(path.dirname(cameraFile), { recursive: true })
    }
  } finally {
    await server.close()
  }
  return result
}

async function costOf(server: TestServer, showId: string, cameraFile: string, state: 'build' | 'hidden' | 'onAir'): Promise<CostFigures> {
  const browser = await BareBrowser.launch([
    '--use-fake-ui-for-media-stream',
    '--use-fake-device-for-media-stream=fps=30',
    `--use-file-for-fake-video-capture=${cameraFile}`,
  ])
  try {
    const studio = await browser.newPage(`${server.studioUrl}/show/${showId}/build`)
    await studio.until('window.greenRoom?.hasPicture()')
    const own = processesOf(browser.pid)
    if (state === 'build') return await measure(browser, studio, own, studio)
    if (state === 'hidden') return await measure(browser, studio, own, await browser.newPage('about:blank'))
    await studio.evaluate(`[...document.querySelectorAll('button')].find((button) => button.textContent.includes('Start feed')).click()`)
    const meeting = await browser.newPage(server.meetingUrl)
    await meeting.until(`[...document.querySelectorAll('#camera option')].some(({ textContent }) => textContent === 'Green Room Camera')`)
    await meeting.evaluate(`{
      const select = document.querySelector('#camera')
      select.value = [...select.options].find(({ textContent }) => textContent === 'Green Room Camera').value
      document.querySelector('#microphone').value = 'none'
      document.querySelector('#join').click()
    }`)
    await meeting.until(`document.querySelector('#others').videoWidth > 0`)
    return await measure(browser, studio, own, meeting)
  } finally {
    await browser.close()
  }
}
