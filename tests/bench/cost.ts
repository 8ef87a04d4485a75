// What the studio costs a laptop: processor time of all the browser's processes, in seconds of a core a second.
import { newInputLayer } from '../../core/layers/input.ts'
import { newShow } from '../../core/show/create.ts'
import type { Show } from '../../core/show/show.ts'
import { BareBrowser, type BarePage } from '../support/cdp.ts'
import { startTestServer, type TestServer } from '../support/test-server.ts'
import { watchSteal } from './cpu-steal.ts'
import { cpuSecondsOf } from './process-tree.ts'

const SECONDS = 20
const SETTLE_MS = 5000

export interface CostFigures {
  /** Cores that the browser's processes took together. */
  readonly cores: number
  readonly cpuStolen: number | null
}

async function measure(browser: BareBrowser, page: BarePage): Promise<CostFigures> {
  const wait = (ms: number) => page.evaluate(`new Promise((resolve) => setTimeout(resolve, ${ms}))`)
  await wait(SETTLE_MS)
  const stolen = watchSteal()
  const before = cpuSecondsOf(browser.pid)
  const startMs = performance.now()
  await wait(SECONDS * 1000)
  return { cores: (cpuSecondsOf(browser.pid) - before) / ((performance.now() - startMs) / 1000), cpuStolen: stolen() }
}

/** A camera over a wall, at the size of the canvas. */
function showAt(heightPx: number): Show {
  let count = 0
  const makeId = () => `c${(count += 1)}`
  const show = newShow('Cost', { scene: 'Scene', camera: 'Camera', wall: 'Wall' }, makeId)
  const canvas = { widthPx: (heightPx * 16) / 9, heightPx, frameRate: 30 }
  const inputs = show.inputs.map((input) => (input.kind === 'camera' ? { ...input, ...canvas } : input))
  return { ...show, canvas, inputs, scenes: [{ ...show.scenes[0]!, layers: [...inputs].reverse().map((input) => newInputLayer(input, canvas, makeId)) }] }
}

/** The studio as it is at work and at rest. Stand-in cameras draw themselves, which a device would not cost. */
export async function benchCost(say: (text: string) => void): Promise<Record<string, CostFigures>> {
  const result: Record<string, CostFigures> = {}
  const server = await startTestServer()
  try {
    for (const heightPx of [720, 1080]) {
      const { id } = await server.shows.create(showAt(heightPx))
      for (const state of ['build', 'hidden', 'onAir'] as const) {
        say(`cost: ${heightPx}p30, ${state}, ${SECONDS} s`)
        result[`${heightPx}p30 ${state}`] = await costOf(server, id, state)
      }
    }
  } finally {
    await server.close()
  }
  return result
}

async function costOf(server: TestServer, showId: string, state: 'build' | 'hidden' | 'onAir'): Promise<CostFigures> {
  const browser = await BareBrowser.launch()
  try {
    const studio = await browser.newPage(`${server.studioUrl}/show/${showId}/build`)
    await studio.until('window.greenRoom?.hasPicture()')
    if (state === 'build') return await measure(browser, studio)
    if (state === 'hidden') return await measure(browser, await browser.newPage('about:blank'))
    await studio.evaluate(`[...document.querySelectorAll('button')].find((button) => button.textContent.includes('Start feed')).click()`)
    const meeting = await browser.newPage(server.meetingUrl)
    await meeting.until(`document.querySelector('#camera option')?.textContent === 'Green Room Camera'`)
    await meeting.evaluate(`document.querySelector('#join').click()`)
    await meeting.until(`document.querySelector('#others').videoWidth > 0`)
    return await measure(browser, meeting)
  } finally {
    await browser.close()
  }
}
