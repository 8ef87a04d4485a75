// How long an edit takes to be seen on the stage: twelve scenes with thumbnails, in a browser, by the page's own clock.
import { newTextLayer } from '../../core/layers/text.ts'
import { copyScene } from '../../core/show/create.ts'
import type { Content } from '../../core/show/show.ts'
import { seedDemo } from '../../demo/seed.ts'
import { BareBrowser, type BarePage } from '../support/cdp.ts'
import { startTestServer, type TestServer } from '../support/test-server.ts'
import { quantile } from './statistics.ts'

const USUAL: ShowSize = { scenes: 12, texts: 0 }
/** As large as shows of a whole course become. */
export const LARGE: ShowSize = { scenes: 30, texts: 30 }
const EDITS = 60

/** How many scenes, and how many texts of their own each has besides what the demo's scenes have. */
export interface ShowSize {
  readonly scenes: number
  readonly texts: number
}

export interface EditFigures {
  /** From a press on the show to its first live picture, by the page's clock. */
  readonly openMs: number
  readonly medianMs: number
  readonly p95Ms: number
  readonly edits: number
}

// eslint-disable-next-line
export async function benchEdit(say: (text: string) => void, size: ShowSize = USUAL): Promise<EditFigures> {
  const server = await startTestServer()
  const browser = await BareBrowser.launch([])
  try {
    await seedDemo(server.shows, server.assets)
    await withManyScenes(server, size)
    say(`edit: ${EDITS} moves of a layer, ${size.scenes} scenes`)
    const studio = await browser.newPage(server.studioUrl)
    await studio.until('window.greenRoom?.hasPicture()')
    const openMs = await openAgain(studio)
    // A scene without a camera: what changes on the stage is the edit.
    await studio.evaluate(`[...document.querySelectorAll('button')].find((button) => button.textContent.includes('Closing card')).click()`)
    await studio.until(`document.querySelector('[data-layer="Evening meadow"]') !== null`)
    await studio.evaluate(`document.querySelector('[data-layer="Society mark"] button').click()`)
    await studio.send('Profiler.enable'); await studio.send('Profiler.setSamplingInterval',{interval:200}); await studio.send('Profiler.start')
    const times = await studio.evaluate<number[]>(movesOnPage)
    const { profile } = (await studio.send('Profiler.stop')) as any
    const self = new Map<string, number>(); const total = new Map<string, number>()
    const byId = new Map(profile.nodes.map((n: any) => [n.id, n])); const parent = new Map<number, number>()
    for (const n of profile.nodes) for (const c of n.children ?? []) parent.set(c, n.id)
    const name = (n: any) => `${n.callFrame.functionName}|${n.callFrame.url.split('/').pop()}:${n.callFrame.lineNumber}:${n.callFrame.columnNumber}`
    profile.samples.forEach((id: number, i: number) => { const dt = profile.timeDeltas[i] / 1000; const n: any = byId.get(id); self.set(name(n), (self.get(name(n)) ?? 0) + dt); const seen = new Set<string>(); for (let at: number | undefined = id; at !== undefined; at = parent.get(at)) { const k = name(byId.get(at)); if (seen.has(k)) continue; seen.add(k); total.set(k, (total.get(k) ?? 0) + dt) } })
    const top = (m: Map<string, number>, n: number) => [...m].sort((a, b) => b[1] - a[1]).slice(0, n).map(([k, v]) => `${v.toFixed(0).padStart(7)} ${k}`).join('\n')
    console.error('SELF\n' + top(self, 25) + '\nTOTAL\n' + top(total, 60))
    return { openMs, medianMs: quantile(times, 0.5), p95Ms: quantile(times, 0.95), edits: times.length }
  } finally {
    await browser.close()
    await server.close()
  }
}

/** The show once more, by loading its page anew: until the engine has drawn something live. */
async function openAgain(studio: BarePage): Promise<number> {
  await studio.evaluate<void>('void location.reload()')
  await studio.until('performance.now() < 60_000 && window.greenRoom?.hasPicture() === true')
  // The page's clock began with the load; asking takes a few milliseconds.
  return studio.evaluate<number>('performance.now()')
}

async function withManyScenes(server: TestServer, { scenes: wanted, texts }: ShowSize): Promise<void> {
  const { show, revision, id } = await server.shows.get('demo-brood-frame')
  let count = 0
  const makeId = () => `bench-${(count += 1)}`
  const copies = Array.from({ length: wanted - show.scenes.length }, (_, i) => copyScene(show.scenes[i % 3]!, `Copy ${i + 1}`, makeId))
  const scenes = [...show.scenes, ...copies]
  const contents: Content[] = []
  const filled = scenes.map((scene) => {
    const words = Array.from({ length: texts }, (_, i) => {
      const { layer, contents: own } = newTextLayer(`Note ${i + 1}`, `${scene.name}, note ${i + 1}`, show.canvas, makeId)
      contents.push(...own)
      return { ...layer, placement: { ...layer.placement, x: 40 + (i % 10) * 120, y: 560 + Math.floor(i / 10) * 44, width: 110, height: 40 } }
    })
    return { ...scene, layers: [...scene.layers, ...words] }
  })
  await server.shows.save(id, revision, { ...show, contents: [...show.contents, ...contents], scenes: filled })
}

/** Moves the layer to and fro by its keys; each time until the stage shows something else. */
const movesOnPage = `(async () => {
  const canvas = document.querySelector('[data-testid="stage"] canvas')
  const pen = new OffscreenCanvas(160, 90).getContext('2d', { willReadFrequently: true })
  const frame = () => new Promise(requestAnimationFrame)
  const look = () => {
    pen.drawImage(canvas, 0, 0, 160, 90)
    let sum = 0
    for (const value of pen.getImageData(0, 0, 160, 90).data) sum = (Math.imul(sum, 31) + value) | 0
    return sum
  }
  const rest = async () => {
    for (let same = 0, before = look(); same < 6; ) {
      await frame()
      const now = look()
      same = now === before ? same + 1 : 0
      before = now
    }
  }
  const target = document.querySelector('.stage-handles')
  const times = []
  for (let i = 0; i < ${EDITS}; i += 1) {
    await rest()
    const before = look()
    const started = performance.now()
    target.dispatchEvent(new KeyboardEvent('keydown', { key: i % 2 === 0 ? 'ArrowRight' : 'ArrowLeft', shiftKey: true, bubbles: true, cancelable: true }))
    while (look() === before) {
      if (performance.now() - started > 5000) throw new Error('an edit was not seen within five seconds')
      await frame()
    }
    times.push(performance.now() - started)
  }
  return times
})()`

console.log(await benchEdit(console.error, LARGE))
