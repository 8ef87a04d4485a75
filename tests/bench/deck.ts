// How soon slides are there, what their import costs the feed, and how soon a turned page is at the meeting: a generated deck of 44 pages, as PDF and PPTX.
import { pdfOf, pptxOf, toldClass } from '../support/decks.ts'
import { watchSteal } from './cpu-steal.ts'
import { startFeedRig, type FeedRig } from './feed-rig.ts'
import { quantile } from './statistics.ts'

const PAGES = 44
const TURNS = 30
const QUIET_SECONDS = 15
const FRAME_RATE = 30
/** Papers that alternate, so that a turn is seen. */
const PAPERS = ['#d8e6f4', '#5f6f4f'] as const

interface ImportFigures {
  readonly firstMs: number
  readonly allMs: number
  readonly perPageMs: number
  /** Pictures a second at the meeting meanwhile. */
  readonly fps: number
}

export interface DeckFigures {
  readonly quietFps: number
  readonly pdf: ImportFigures
  readonly pptx: ImportFigures
  /** From "Add" until all pages are stored and the scene is there. */
  readonly addMs: number
  readonly heapMb: number
  readonly pageMb: number
  /** From the press in the studio to the first picture at the meeting that has it, medians; a cut to another scene goes the same way. */
  readonly turnMs: number
  readonly cutMs: number
  /** How much later a turned page is than a cut, in frames. */
  readonly turnBehindCutFrames: number
  /** Pages that a held key turned in a second, and pictures at the meeting meanwhile that were no page. */
  readonly heldPerSecond: number
  readonly blanks: number
  readonly cpuStolen: number | null
}

export async function benchDeck(say: (text: string) => void): Promise<DeckFigures> {
  const told = toldClass(PAGES).map((page, index) => ({ ...page, paper: PAPERS[index % 2]! }))
  const [pdf, pptx] = [await pdfOf(told), await pptxOf(told)]
  const rig = await startFeedRig('fileCamera')
  const stolen = watchSteal()
  try {
    say(`deck: ${QUIET_SECONDS} s of the feed alone`)
    await rig.resetFigures()
    await rig.meeting.evaluate(pause(QUIET_SECONDS * 1000))
    const quiet = await rig.figures()
    const heapBefore = await rig.heapBytes()
    say(`deck: ${PAGES} pages as PPTX, then as PDF, while the feed runs`)
    const ofPptx = await imported(rig, pptx, 'class.pptx')
    await rig.studio.evaluate(press('Cancel'))
    const ofPdf = await imported(rig, pdf, 'class.pdf')
    const addMs = await rig.studio.evaluate<number>(added)
    await rig.studio.evaluate(pause(2000))
    const heapMb = ((await rig.heapBytes()) - heapBefore) / 1024 ** 2
    say(`deck: ${TURNS} turns and ${TURNS} cuts`)
    await rig.studio.evaluate(pressKey('2'))
    await rig.meeting.evaluate(pause(1500))
    const turns = await changes(rig, (index) => pressKey(index % 2 === 0 ? 'PageDown' : 'PageUp'))
    const cuts = await changes(rig, (index) => pressKey(index % 2 === 0 ? '1' : '2'))
    const held = await holdKey(rig)
    const [turnMs, cutMs] = [quantile(turns, 0.5), quantile(cuts, 0.5)]
    return {
      quietFps: quiet.frames / quiet.seconds,
      pdf: ofPdf,
      pptx: ofPptx,
      addMs,
      heapMb,
      pageMb: (1920 * 1080 * 4) / 1024 ** 2,
      turnMs,
      cutMs,
      turnBehindCutFrames: ((turnMs - cutMs) * FRAME_RATE) / 1000,
      ...held,
      cpuStolen: stolen(),
    }
  } finally {
    await rig.close()
  }
}

const pause = (ms: number) => `new Promise((resolve) => setTimeout(resolve, ${ms}))`
const press = (words: string) =>
  `[...document.querySelectorAll('[data-testid="deck-import"] button')].find((one) => one.textContent.trim() === '${words}').click()`
const CODES: Readonly<Record<string, string>> = { '1': 'Digit1', '2': 'Digit2' }
const pressKey = (key: string, repeat = false) =>
  `document.body.dispatchEvent(new KeyboardEvent('keydown', { key: '${key}', code: '${CODES[key] ?? key}', bubbles: true, cancelable: true, repeat: ${repeat} }))`

/** Drops a file on the stage, and times its pages. A hidden page's own timers are throttled: it is asked from outside. */
async function imported(rig: FeedRig, bytes: Buffer, name: string): Promise<ImportFigures> {
  await rig.studio.evaluate(`window.benchDeck = Uint8Array.from(atob('${bytes.toString('base64')}'), (letter) => letter.charCodeAt(0))`)
  await rig.resetFigures()
  const started = performance.now()
  await rig.studio.evaluate(`{
    const transfer = new DataTransfer()
    transfer.items.add(new File([window.benchDeck], '${name}'))
    document.querySelector('.build-stage').dispatchEvent(new DragEvent('drop', { dataTransfer: transfer, bubbles: true, cancelable: true }))
  }`)
  const until = async (expression: string) => {
    while (!(await rig.studio.evaluate<boolean>(expression))) await rig.meeting.evaluate(pause(25))
    return performance.now() - started
  }
  const firstMs = await until(`document.querySelector('[data-testid="deck-import"] img') !== null`)
  const allMs = await until(`document.querySelector('[data-testid="deck-import"] [role=status]')?.textContent.includes('${PAGES} pages are ready') === true`)
  const { frames, seconds } = await rig.figures()
  return { firstMs, allMs, perPageMs: (allMs - firstMs) / (PAGES - 1), fps: frames / seconds }
}

/** Adds the slides as a scene of their own, which becomes the second. */
const added = `(async () => {
  const dialog = document.querySelector('[data-testid="deck-import"]')
  ;[...dialog.querySelectorAll('button')].find((one) => one.textContent.trim() === 'Full page').click()
  await Promise.resolve()
  const started = performance.now()
  await new Promise((resolve) => setTimeout(resolve))
  ;[...dialog.querySelectorAll('button')].find((one) => one.textContent.trim() === 'Add 1 scene').click()
  await new Promise((resolve) => new MutationObserver((_list, observer) => {
    if (document.querySelector('[data-testid="deck-import"]') !== null) return
    observer.disconnect()
    resolve()
  }).observe(document.body, { childList: true, subtree: true }))
  return performance.now() - started
})()`

/** The meeting notes each picture whose upper left corner is another colour, by the clock of the day. */
const watching = `{
  window.benchSeen = []
  window.benchPictures = []
  const video = document.querySelector('#others')
  const pen = new OffscreenCanvas(1, 1).getContext('2d', { willReadFrequently: true })
  let last = null
  const look = () => {
    pen.drawImage(video, video.videoWidth * 0.02, video.videoHeight * 0.06, 8, 8, 0, 0, 1, 1)
    const now = [...pen.getImageData(0, 0, 1, 1).data].slice(0, 3)
    window.benchPictures.push(now)
    if (last !== null && now.some((code, i) => Math.abs(code - last[i]) > 24)) window.benchSeen.push(performance.timeOrigin + performance.now())
    last = now
    video.requestVideoFrameCallback(look)
  }
  if (!window.benchLooks) video.requestVideoFrameCallback(look)
  window.benchLooks = true
}`

/** Milliseconds from each press to the first picture at the meeting that is another. */
async function changes(rig: FeedRig, act: (index: number) => string): Promise<number[]> {
  await rig.meeting.evaluate(watching)
  const times: number[] = []
  for (let index = 0; index < TURNS; index += 1) {
    await rig.meeting.evaluate(`${pause(400 + (index % 7) * 11)}.then(() => { window.benchSeen.length = 0 })`)
    const pressedMs = await rig.studio.evaluate<number>(`(() => { const now = performance.timeOrigin + performance.now(); ${act(index)}; return now })()`)
    await rig.meeting.until('window.benchSeen.length > 0')
    times.push((await rig.meeting.evaluate<number>('window.benchSeen[0]')) - pressedMs)
  }
  return times
}

/** Holds the key as a keyboard does, thirty times a second, from the first page on. */
async function holdKey(rig: FeedRig): Promise<{ readonly heldPerSecond: number; readonly blanks: number }> {
  const place = `Number(document.querySelector('[data-testid="deck-bar"] span').textContent.split('/')[0])`
  for (let index = 0; index < PAGES; index += 1) await rig.studio.evaluate(pressKey('PageUp'))
  await rig.meeting.evaluate(`${pause(800)}.then(() => { window.benchPictures.length = 0 })`)
  const [from, started] = [await rig.studio.evaluate<number>(place), performance.now()]
  for (let repeat = 0; repeat < 60; repeat += 1) {
    await rig.studio.evaluate(pressKey('PageDown', repeat > 0))
    await rig.meeting.evaluate(pause(28))
  }
  const seconds = (performance.now() - started) / 1000
  const turned = (await rig.studio.evaluate<number>(place)) - from
  const pictures = await rig.meeting.evaluate<number[][]>('window.benchPictures')
  const isPage = (colour: readonly number[]) =>
    PAPERS.some((paper) => colour.every((code, channel) => Math.abs(code - parseInt(paper.slice(1 + channel * 2, 3 + channel * 2), 16)) < 20))
  return { heldPerSecond: turned / seconds, blanks: pictures.filter((colour) => !isPage(colour)).length }
}
