// Opening the library: fifty shows, from the press on "All shows" until every name is there, and until the shows in view have their pictures.
import { seedDemo } from '../../demo/seed.ts'
import { BareBrowser } from '../support/cdp.ts'
import { startTestServer } from '../support/test-server.ts'
import { watchSteal } from './cpu-steal.ts'
import { quantile } from './statistics.ts'

const SHOWS = 50
const TIMES = 5

export interface LibraryFigures {
  /** Every show is listed. */
  readonly namesMs: number
  /** The shows in view have their first pictures. */
  readonly picturesMs: number
  readonly cpuStolen: number | null
}

export async function benchLibrary(say: (text: string) => void): Promise<LibraryFigures> {
  const stolen = watchSteal()
  const server = await startTestServer()
  const browser = await BareBrowser.launch([])
  try {
    await seedDemo(server.shows, server.assets)
    const { show } = await server.shows.get('demo-brood-frame')
    const more = SHOWS - (await server.shows.list()).length
    for (let n = 1; n <= more; n += 1) await server.shows.create({ ...show, name: `Evening class ${n}` })
    const names: number[] = []
    const pictures: number[] = []
    const studio = await browser.newPage(server.studioUrl)
    for (let time = 1; time <= TIMES; time += 1) {
      say(`library: ${SHOWS} shows, ${time} of ${TIMES}`)
      await studio.until(`window.greenRoom?.hasPicture() === true && document.querySelector('[data-testid="stage"]') !== null`)
      const [namesMs, picturesMs] = await studio.evaluate<[number, number]>(opened)
      names.push(namesMs)
      pictures.push(picturesMs)
      await studio.evaluate<void>(`void location.assign('/')`)
    }
    return { namesMs: quantile(names, 0.5), picturesMs: quantile(pictures, 0.5), cpuStolen: stolen() }
  } finally {
    await browser.close()
    await server.close()
  }
}

/** By the page's own clock, from the press on. */
const opened = `new Promise((resolve) => {
  const from = performance.now()
  document.querySelector('header a[href="/shows"]').click()
  let names = null
  const look = () => {
    if (names === null && document.querySelectorAll('main h2').length >= ${SHOWS}) names = performance.now() - from
    const inView = [...document.querySelectorAll('main li > div:first-child > canvas')].filter((canvas) => canvas.getBoundingClientRect().top < innerHeight)
    if (names !== null && inView.length > 0 && inView.every((canvas) => !canvas.classList.contains('bg-well'))) resolve([names, performance.now() - from])
    else requestAnimationFrame(look)
  }
  look()
})`
