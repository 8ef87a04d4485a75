// The real chain in a bare browser: studio in a hidden tab, meeting in front of it.
import { seedDemo } from '../../demo/seed.ts'
import { switchStep, removeLayer } from '../../core/show/edits.ts'
import type { EngineStats } from '../../engine/protocol.ts'
import { BareBrowser, type BarePage } from '../support/cdp.ts'
import { startTestServer, type TestServer } from '../support/test-server.ts'
import type { Figures } from '../../standins/meeting/frame-figures.ts'

const WARM_UP_MS = 4000

export interface FeedRig {
  readonly studio: BarePage
  readonly meeting: BarePage
  readonly figures: () => Promise<Figures>
  readonly resetFigures: () => Promise<void>
  readonly stats: () => Promise<EngineStats>
  /** Used bytes of the studio's JavaScript heap, garbage collected first. */
  readonly heapBytes: () => Promise<number>
  close(): Promise<void>
}

/** Starts server, studio, feed and meeting; the studio ends up hidden. */
export async function startFeedRig(): Promise<FeedRig> {
  const server = await startTestServer()
  const browser = await BareBrowser.launch()
  try {
    return await wire(server, browser)
  } catch (error) {
    await browser.close()
    await server.close()
    throw error
  }
}

async function wire(server: TestServer, browser: BareBrowser): Promise<FeedRig> {
  await seedDemo(server.shows, server.assets)
  await showFrameMark(server)
  const studio = await browser.newPage(server.studioUrl)
  await studio.until('window.greenRoom?.hasPicture()')
  // A loop that starts hidden runs slower for a while, so it starts in view.
  await studio.evaluate(`new Promise((resolve) => setTimeout(resolve, ${WARM_UP_MS}))`)
  await studio.evaluate(`[...document.querySelectorAll('button')].find((button) => button.textContent.includes('Start feed')).click()`)
  const meeting = await browser.newPage(server.meetingUrl)
  await meeting.until(`[...document.querySelectorAll('#camera option')].some((option) => option.textContent === 'Green Room Camera')`)
  await meeting.evaluate(`{
    const select = document.querySelector('#camera')
    select.value = [...select.options].find((option) => option.textContent === 'Green Room Camera').value
    document.querySelector('#join').click()
  }`)
  await meeting.until('window.meetingFigures.read()?.hasMarks')
  if ((await studio.evaluate<string>('document.visibilityState')) !== 'hidden') throw new Error('the studio tab is not hidden')
  await meeting.evaluate(`new Promise((resolve) => setTimeout(resolve, ${WARM_UP_MS}))`)
  return {
    studio,
    meeting,
    figures: () => meeting.evaluate<Figures>('window.meetingFigures.read()'),
    resetFigures: () => meeting.evaluate<void>('window.meetingFigures.reset()'),
    stats: () => studio.evaluate<EngineStats>('window.greenRoom.stats()'),
    heapBytes: async () => {
      await studio.send('HeapProfiler.collectGarbage')
      return ((await studio.send('Runtime.getHeapUsage')) as { usedSize: number }).usedSize
    },
    close: async () => {
      await browser.close()
      await server.close()
    },
  }
}

/** Takes the crop and what lies over the mark away, so that the meeting can read frame numbers. */
async function showFrameMark(server: TestServer): Promise<void> {
  const { show, revision, id } = await server.shows.get('demo-brood-frame')
  const camera = show.inputs[0]!
  const welcome = show.scenes[0]!
  const uncropped = switchStep(show, { type: 'input', inputId: camera.id }, camera.treatment[0]!.id, false)
  const title = welcome.layers.find((layer) => layer.name === 'Class title')!
  await server.shows.save(id, revision, removeLayer(uncropped, welcome.id, title.id))
}
