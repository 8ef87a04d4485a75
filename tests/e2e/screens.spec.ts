// Screens that are shared: held while nothing moves, recognised when they show the studio itself, ended and shared again.
import { chromium, type BrowserContext, type Page } from '@playwright/test'
import { CHROMIUM, CHROMIUM_FLAGS } from '../support/chromium.ts'
import type { TestServer } from '../support/test-server.ts'
import { expect, FULL_RATE, openStudio, test } from './studio.ts'

test.use({ frameRate: FULL_RATE })

/** A browser that shares the tab of a title when a page asks, as if the presenter had chosen it. */
async function withTab(title: string, run: (context: BrowserContext) => Promise<void>): Promise<void> {
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: [...CHROMIUM_FLAGS, `--auto-select-tab-capture-source-by-title=${title}`] })
  try {
    await run(await browser.newContext({ viewport: { width: 1280, height: 800 } }))
  } finally {
    await browser.close()
  }
}

async function share(page: Page): Promise<void> {
  await page.bringToFront()
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await page.getByRole('option', { name: 'Window, tab or screen' }).click()
  await expect(page.getByText('The picture stays while nothing moves.')).toBeVisible()
}

/** The colour of the middle of a layer's thumbnail. */
async function middleOf(page: Page, layer: string): Promise<readonly number[]> {
  return page.evaluate((name) => {
    const canvas = document.querySelector<HTMLCanvasElement>(`[data-layer="${name}"] canvas`)!
    const copy = new OffscreenCanvas(canvas.width, canvas.height)
    const pen = copy.getContext('2d')!
    pen.drawImage(canvas, 0, 0)
    return [...pen.getImageData(canvas.width / 2, canvas.height / 2, 1, 1).data]
  }, layer)
}

const isBlue = ([red, , blue]: readonly number[]) => blue! - red! > 100

/** A blue tab, and a studio that shares it and has its picture. */
async function shareNotes(context: BrowserContext, server: TestServer): Promise<{ readonly notes: Page; readonly page: Page }> {
  const notes = await context.newPage()
  await notes.setContent('<title>Notes</title><body style="margin:0;background:rgb(20,100,200)"></body>')
  const page = await context.newPage()
  await openStudio(page, server)
  await share(page)
  await expect.poll(async () => isBlue(await middleOf(page, 'Screen'))).toBe(true)
  return { notes, page }
}

test('a still tab is held, a changed one is seen; stopped by a press it can be shared anew', async ({ server }) => {
  await withTab('Notes', async (context) => {
    const { notes, page } = await shareNotes(context, server)
    // Nothing moves on it for a while: its picture stays.
    const sentBefore = await page.evaluate(() => window.greenRoom!.stats()!.frameMs)
    expect(sentBefore).toBeGreaterThan(0)
    await expect.poll(async () => isBlue(await middleOf(page, 'Screen'))).toBe(true)
    await notes.evaluate(() => (document.body.style.background = 'rgb(200,60,20)'))
    await expect.poll(async () => isBlue(await middleOf(page, 'Screen'))).toBe(false)
    await page.getByRole('button', { name: 'Stop sharing' }).click()
    await expect(page.getByTestId('unseen')).toContainText('No picture is coming in')
    await page.getByTestId('stage-trouble').getByRole('button', { name: 'Choose what to share' }).click()
    await expect(page.getByText('The picture stays while nothing moves.')).toBeVisible()
    // The show remembers that it was shared, not the sharing: that is asked for anew in each sitting.
    await page.reload()
    await expect(page.getByTestId('stage-trouble')).toContainText('Screen: nothing is shared')
  })
})

test('what is shared stays shared when the engine dies and is started again', async ({ server }) => {
  await withTab('Notes', async (context) => {
    const { notes, page } = await shareNotes(context, server)
    await page
      .workers()
      .find((worker) => /engine\.worker/.test(worker.url()))!
      .evaluate(() => self.close())
    await expect(page.getByText('The picture paused for a moment. It is running again.')).toBeVisible({ timeout: 20_000 })
    await notes.evaluate(() => (document.body.style.background = 'rgb(200,60,20)'))
    await expect.poll(async () => isBlue(await middleOf(page, 'Screen')), { timeout: 20_000 }).toBe(false)
    await expect.poll(async () => ((await middleOf(page, 'Screen'))[0] ?? 0) > 150, { timeout: 20_000 }).toBe(true)
    await expect(page.getByText('The picture stays while nothing moves.')).toBeVisible()
  })
})

test('a screen gives no more pictures a second than were asked for, and the show remembers', async ({ page, server }) => {
  await openStudio(page, server)
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await page.getByRole('option', { name: 'Stand-in screen: hive scale' }).click()
  await expect(page.getByRole('button', { name: /^Hive scale, Screen/ })).toBeVisible()
  const screen = async () => (await server.shows.get('demo-brood-frame')).show.inputs.find(({ kind }) => kind === 'screen')!
  await expect.poll(async () => (await screen())?.kind).toBe('screen')
  const { id } = await screen()
  const rate = () => page.evaluate((inputId) => window.greenRoom!.stats()?.inputs[inputId]?.fps ?? 0, id)
  // Its pointer moves and rests in rounds of three seconds, and so do its pictures: two rounds are watched.
  const fastest = () =>
    page.evaluate(
      (inputId) =>
        new Promise<number>((resolve) => {
          const end = performance.now() + 6500
          let most = 0
          const look = () => {
            most = Math.max(most, window.greenRoom!.stats()?.inputs[inputId]?.fps ?? 0)
            if (performance.now() > end) resolve(most)
            else requestAnimationFrame(look)
          }
          look()
        }),
      id,
    )
  await expect.poll(rate, { timeout: 30_000 }).toBeGreaterThan(8)
  await page.getByRole('radio', { name: '5', exact: true }).click()
  await expect.poll(async () => ((await screen()) as { frameRate?: number }).frameRate).toBe(5)
  await expect.poll(rate, { timeout: 30_000 }).toBeLessThan(6)
  const most = await fastest()
  expect(most).toBeGreaterThan(3)
  expect(most).toBeLessThan(6.5)
  // On air it is no slow camera for all that.
  await page.getByRole('button', { name: 'Start feed' }).click()
  await expect(page.getByTestId('on-air-sign')).toBeVisible()
  const slow = await page.evaluate(
    () =>
      new Promise<string | null>((resolve) => {
        const end = performance.now() + 6500
        const look = () => {
          const told = /camera sends [1-6]\b/.exec(document.querySelector('header')!.innerText)
          if (told !== null || performance.now() > end) resolve(told?.[0] ?? null)
          else requestAnimationFrame(look)
        }
        look()
      }),
  )
  expect(slow).toBeNull()
  await page.keyboard.press('Control+z')
  await expect.poll(rate, { timeout: 30_000 }).toBeGreaterThan(8)
})

test('a screen that shows the studio is told to be a hall of mirrors; any other is not', async ({ server }) => {
  await withTab('A picture of it', async (context) => {
    const page = await context.newPage()
    await openStudio(page, server)
    const picture = (await page.screenshot()).toString('base64')
    const other = await context.newPage()
    await other.setContent(`<title>A picture of it</title><body style="margin:0"><img src="data:image/png;base64,${picture}" style="display:block"></body>`)
    await share(page)
    await expect(page.getByText('This screen shows Green Room itself')).toBeVisible({ timeout: 20_000 })
    await other.evaluate(() => document.querySelector('img')!.remove())
    await expect(page.getByText('This screen shows Green Room itself')).toHaveCount(0, { timeout: 20_000 })
  })
})
