// What the browser tests share: a server with the demo, and a meeting that reads pixels.
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { test as base, expect, type BrowserContext, type Locator, type Page } from '@playwright/test'
import { standinWords } from '../../app/locales/en/steps.ts'
import '../../standins/meeting/figures-window.ts'
import type { StandinCamera } from '../../core/show/show.ts'
import { seedDemo } from '../../demo/seed.ts'
import { startTestServer, type TestServer } from '../support/test-server.ts'

export { expect }

/** Frames a second of the demo's shows and cameras, unless a file asks for the full rate with `test.use({ frameRate: FULL_RATE })`. */
export const CALM_RATE = 5
/** What the demo has. For tests that tell the feed from the card by its rate, or count frames. */
export const FULL_RATE = 30

export const test = base.extend<{ server: TestServer; frameRate: number }, { demoLibrary: string }>({
  // Drawing is most of what a test costs. Where the rate doesn't matter, a sixth of the frames leaves the time to the interface.
  frameRate: [CALM_RATE, { option: true }],
  // Its pictures take long to draw: once, and a copy for each test.
  demoLibrary: [
    async ({}, use) => {
      const folder = mkdtempSync(path.join(tmpdir(), 'green-room-demo-'))
      const server = await startTestServer()
      await seedDemo(server.shows, server.assets)
      await server.close(folder)
      await use(folder)
      rmSync(folder, { recursive: true, force: true })
    },
    { scope: 'worker' },
  ],
  server: async ({ demoLibrary, frameRate }, use) => {
    const server = await startTestServer(demoLibrary)
    if (frameRate !== FULL_RATE) await setRate(server, frameRate)
    await use(server)
    await server.close()
  },
})

/** Gives every show, and every camera in it, another frame rate. */
async function setRate(server: TestServer, frameRate: number): Promise<void> {
  for (const { id } of await server.shows.list()) {
    const { revision, show } = await server.shows.get(id)
    const inputs = show.inputs.map((input) => (input.kind === 'camera' ? { ...input, frameRate } : input))
    await server.shows.save(id, revision, { ...show, canvas: { ...show.canvas, frameRate }, inputs })
  }
}

/** Opens the studio and waits for its first picture. */
export async function openStudio(page: Page, server: TestServer): Promise<void> {
  await page.goto(server.studioUrl)
  await expect(page.getByTestId('stage')).toBeVisible()
  await expect(page.getByText('Starting the picture')).toHaveCount(0)
  // Before the engine has begun, nothing says so.
  await expect.poll(() => page.evaluate(() => window.greenRoom?.hasPicture())).toBe(true)
}

/** Chooses the other theme in the settings. */
export async function turnTheme(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Settings' }).click()
  await page.getByRole('radiogroup', { name: 'Theme' }).getByRole('radio', { checked: false }).click()
  await page.keyboard.press('Escape')
  await expect(page.getByTestId('settings')).toHaveCount(0)
}

/** Opens the bench and gives the demo's camera another stand-in. */
export async function openBench(page: Page, server: TestServer, standin: StandinCamera): Promise<void> {
  await openStudio(page, server)
  await page.getByRole('link', { name: 'Bench' }).click()
  if (standin === 'cloth') return
  await page.getByTestId('device-card').getByRole('button').first().click()
  await choose(page, page.getByTestId('device'), `Stand-in: ${standinWords[standin]}`)
  await page.getByTestId('device-card').getByRole('button').first().click()
}

/** Opens a list box and chooses by words. */
export async function choose(page: Page, box: Locator, words: string): Promise<void> {
  await box.getByRole('button').click()
  await page.getByRole('option', { name: words, exact: true }).click()
}

/** Adds a step to the chain by its name in the menu. */
export async function addStep(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Add step' }).click()
  await page.getByRole('menuitem', { name: new RegExp(`^${name}\\b`) }).click()
}

/** Switches a step on or off. */
export async function switchStep(page: Page, kind: string): Promise<void> {
  await page.getByTestId(`step-${kind}`).getByRole('switch').first().click()
}

/** Sets a number by keyboard. */
export async function setNumber(page: Page, label: string, value: string): Promise<void> {
  const field = page.getByRole('spinbutton', { name: label, exact: true })
  await field.click()
  await field.fill(value)
  await field.press('Enter')
}

/** Grey codes of the large picture of the bench at half its size: its matte when that is shown. */
export function benchPixels(page: Page): Promise<number[]> {
  return page.evaluate(() => {
    const source = document.querySelector<HTMLCanvasElement>('[data-testid="bench-picture"] canvas')!
    const pen = new OffscreenCanvas(640, 360).getContext('2d')!
    pen.drawImage(source, 0, 0, 640, 360)
    const { data } = pen.getImageData(0, 0, 640, 360)
    return Array.from({ length: 640 * 360 }, (_, i) => data[i * 4]!)
  })
}

/** The holding card comes five times a second, the feed thirty times; a busy machine may lose half of those. */
export const LEAST_LIVE_FPS = 12

/** Waits until a meeting's pictures come as fast as a feed's, or as slowly as the holding card's. */
export async function expectPace(meeting: Page, of: 'feed' | 'card'): Promise<void> {
  const pace = async () => {
    const fps = await meeting.evaluate(() => window.meetingFigures!.read()?.fps ?? 0)
    return fps > LEAST_LIVE_FPS ? 'feed' : fps > 0 ? 'card' : 'nothing'
  }
  await expect.poll(pace, { timeout: 40_000 }).toBe(of)
}

/** Joins the meeting in a page of its own with the virtual camera. */
export async function joinMeeting(context: BrowserContext, server: TestServer): Promise<Page> {
  const meeting = await context.newPage()
  await meeting.goto(server.meetingUrl)
  await expect(meeting.locator('#camera option', { hasText: 'Green Room Camera' })).toHaveCount(1)
  await meeting.locator('#camera').selectOption({ label: 'Green Room Camera' })
  await meeting.getByRole('button', { name: 'Join' }).click()
  await expect(meeting.locator('#status')).toHaveText(/^In the meeting with Green Room Camera/)
  return meeting
}

/** The colour at (x, y) of what others see, in pixels of a 1280 × 720 picture: mean of a small square. */
export function colourAt(meeting: Page, x: number, y: number): Promise<[red: number, green: number, blue: number]> {
  return meeting.evaluate(
    ([atX, atY]) => {
      const video = document.querySelector<HTMLVideoElement>('#others')!
      const canvas = new OffscreenCanvas(1280, 720)
      const pen = canvas.getContext('2d')!
      pen.drawImage(video, 0, 0, 1280, 720)
      const { data } = pen.getImageData(atX - 4, atY - 4, 8, 8)
      const sum: [number, number, number] = [0, 0, 0]
      for (let at = 0; at < data.length; at += 4) for (let channel = 0; channel < 3; channel += 1) sum[channel]! += data[at + channel]! / 64
      return sum
    },
    [x, y] as const,
  )
}

/** Whether a colour is the cloth's: clearly more green than anything else. */
export function isCloth([red, green, blue]: readonly [number, number, number]): boolean {
  return green - Math.max(red, blue) > 45
}
