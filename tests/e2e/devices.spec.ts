// From first opening the studio to being seen and heard, and what the devices page says on the way.
import type { BrowserContext, Page } from '@playwright/test'
import type { TestServer } from '../support/test-server.ts'
import { colourAt, expect, FULL_RATE, test } from './studio.ts'
import { rmSync } from 'node:fs'
import path from 'node:path'
import { Hand } from './hand.ts'
import { writeToneWav } from '../support/wav.ts'
import { extensionFor } from '../support/extension.ts'
import { withBrowser, withExtension } from './with-extension.ts'

test.use({ frameRate: FULL_RATE })

const FAKE_DEVICES = ['--use-fake-device-for-media-stream=fps=30,device-count=2', '--use-fake-ui-for-media-stream']
const MOST_ACTIONS = 5

/** First opens the studio, with nothing remembered. */
async function firstOpen(context: BrowserContext, server: TestServer): Promise<Page> {
  const page = await context.newPage()
  await page.goto(server.studioUrl)
  await expect(page.getByTestId('stage')).toBeVisible()
  return page
}

async function expectSeen(meeting: Page): Promise<void> {
  await meeting.bringToFront()
  // The demo's wall, where the holding card is dark.
  await expect.poll(async () => (await colourAt(meeting, 100, 100)).reduce((sum, code) => sum + code, 0), { timeout: 30_000 }).toBeGreaterThan(450)
}

test('with devices of one’s own: seen and heard in at most five actions', async ({ server }) => {
  await withExtension(
    server,
    async (context) => {
      const hand = new Hand()
      const page = await firstOpen(context, server)
      await hand.click(page.getByRole('button', { name: 'Use my camera and microphone' }))
      await expect(page.getByText('Your camera and microphone are on.', { exact: false })).toBeVisible()
      await hand.click(page.getByRole('button', { name: 'Start feed' }))
      const meeting = await context.newPage()
      await meeting.goto(`${server.meetingUrl}/plain`)
      await expect(meeting.locator('#camera option', { hasText: 'Green Room Camera' })).toHaveCount(1)
      await hand.select(meeting.locator('#camera'), 'Green Room Camera')
      await hand.click(meeting.getByRole('button', { name: 'Join' }))
      await page.bringToFront()
      await hand.click(page.getByTestId('site-ask').getByRole('button', { name: 'Always' }))
      await expectSeen(meeting)
      // eslint-disable-next-line no-console -- the figure is the point
      console.log(`own devices: ${hand.actions} actions to be seen`)
      expect(hand.actions).toBeLessThanOrEqual(MOST_ACTIONS)
      await page.getByRole('link', { name: 'Devices', exact: false }).click()
      await expect(page.getByText('are on air for the meetings you allow', { exact: false })).toBeVisible()
      const { show } = await server.shows.get('demo-brood-frame')
      expect(show.inputs.find((input) => input.kind === 'camera')).toMatchObject({ device: { type: 'device', label: 'fake_device_0' } })
      expect(show.microphone.device).toMatchObject({ type: 'device' })
    },
    FAKE_DEVICES,
  )
})

test('with the stand-ins: seen and heard in at most five actions', async ({ server }) => {
  await withExtension(server, async (context) => {
    const hand = new Hand()
    const page = await firstOpen(context, server)
    await hand.click(page.getByRole('button', { name: 'Start feed' }))
    const meeting = await context.newPage()
    await meeting.goto(`${server.meetingUrl}/plain`)
    await hand.click(meeting.getByRole('button', { name: 'Join' }))
    await page.bringToFront()
    await hand.click(page.getByTestId('site-ask').getByRole('button', { name: 'Always' }))
    await expectSeen(meeting)
    await expect.poll(() => meeting.evaluate(() => window.meetingFigures!.soundDb()), { timeout: 20_000 }).toBeGreaterThan(-30)
    // eslint-disable-next-line no-console -- the figure is the point
    console.log(`stand-ins: ${hand.actions} actions to be seen and heard`)
    expect(hand.actions).toBeLessThanOrEqual(MOST_ACTIONS)
  })
})

test('the devices page: states in words, a microphone by its own name, the extension told of at once', async ({ server }) => {
  await withExtension(
    server,
    async (context) => {
      const page = await context.newPage()
      await page.goto(`${server.studioUrl}/devices`)
      await expect(page.getByRole('heading', { name: 'Devices' })).toBeVisible()
      await expect(page.getByText('The extension is loaded')).toBeVisible()
      const panel = page.getByTestId('microphone-panel')
      // The stand-in speaks.
      await expect.poll(async () => Number(await panel.getByRole('meter').getAttribute('aria-valuenow')), { timeout: 20_000 }).toBeGreaterThan(-30)
      await page.getByTestId('microphone-menu').getByRole('button').click()
      const options = page.getByRole('option')
      await expect(options.filter({ hasText: /^Default/i })).toHaveCount(0)
      await options.first().click()
      await expect(panel.getByText('This microphone is in use.', { exact: false })).toBeVisible()
      // The browser's fake microphone beeps once a second.
      await expect.poll(async () => Number(await panel.getByRole('meter').getAttribute('aria-valuenow')), { timeout: 20_000 }).toBeGreaterThan(-40)
      await panel.getByRole('slider', { name: 'Gain' }).press('End')
      await expect(panel.getByRole('button', { name: 'Too loud: clipped' })).toBeVisible()
      await page.keyboard.press('Control+z')
      await panel.getByRole('button', { name: 'Too loud: clipped' }).click()
      // Sizes are those that the device offers.
      await page.getByTestId('camera-panel').getByTestId('device').getByRole('button').click()
      await page.getByRole('option').first().click()
      await expect(page.getByTestId('camera-panel').getByText(/^1280×720, \d+ fps$/)).toBeVisible({ timeout: 20_000 })
    },
    FAKE_DEVICES,
  )
})

test('a studio without the extension shows how to load it', async ({ page, context, server }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await page.goto(`${server.studioUrl}/devices`)
  for (const step of ['1. Open the extensions', '2. Load it', '3. Choose it in your meeting']) await expect(page.getByText(step)).toBeVisible()
  // The whole path, for a dialog of files.
  const folder = page.getByTestId('extension-folder')
  await expect(folder).toHaveText(path.resolve('dist/extension'))
  await page.getByRole('button', { name: 'Copy path' }).click()
  await expect(page.getByRole('button', { name: 'Copied' })).toBeVisible()
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe(path.resolve('dist/extension'))
  const zip = await page.request.get(`${server.studioUrl}/extension/green-room-extension.zip`)
  expect(zip.status()).toBe(200)
  expect((await zip.body()).subarray(0, 2).toString()).toBe('PK')
})

test('a studio that is open already says so the moment the extension is loaded', async ({ server }) => {
  const extension = extensionFor(server)
  await withBrowser(['--enable-unsafe-extension-debugging'], async (context) => {
    const page = await context.newPage()
    await page.goto(`${server.studioUrl}/devices`)
    await expect(page.getByText('2. Load it')).toBeVisible()
    const browser = await context.browser()!.newBrowserCDPSession()
    await browser.send('Extensions.loadUnpacked' as 'Browser.getVersion', { path: extension } as never)
    await expect(page.getByText('The extension is loaded')).toBeVisible()
    await expect(page.getByText('2. Load it')).toHaveCount(0)
  })
  rmSync(extension, { recursive: true, force: true })
})

test('five claps set the delay of the voice by what camera and microphone both took in', async ({ page, server }) => {
  await page.goto(`${server.studioUrl}/devices`)
  const panel = page.getByTestId('microphone-panel')
  await expect(panel.getByText('This microphone is in use.', { exact: false })).toBeVisible()
  await expect(
    page
      .getByTestId('camera-panel')
      .first()
      .getByText(/\d fps$/),
  ).toBeVisible()
  const clap = page.getByTestId('clap')
  // A presenter who thinks better of it.
  await clap.getByRole('button', { name: 'Clap five times' }).click()
  await clap.getByRole('button', { name: 'Cancel' }).click()
  await expect(clap.getByText('Measures the delay.', { exact: false })).toBeVisible()
  const result = clap.getByText(/^Your voice (was|comes|may come) /)
  // While others take the machine away single claps differ; the studio says so, and one claps again.
  for (let round = 1; round <= 4; round += 1) {
    await clap.getByRole('button', { name: 'Clap five times' }).click()
    await expect(clap.getByText(/^Clap now: [1-5] of 5 heard/)).toBeVisible({ timeout: 20_000 })
    await expect(result).toBeVisible({ timeout: 25_000 })
    if (!(await result.innerText()).includes('to be sure')) break
  }
  await expect(result).toHaveText(/^Your voice was \d+ ms ahead of the picture/)
  // Two sentences: claps that agree, and claps that leave a doubt.
  const [, offset, spread] = /was (\d+) ms .*± (\d+)/.exec(await result.innerText())!.map(Number) as [number, number, number]
  // The stand-ins act at the same moment; what is found is what the picture takes to arrive and to be made: some frames, more of them on
  // a machine that others use too.
  expect(offset).toBeLessThan(300)
  expect(spread).toBeLessThanOrEqual(45)
  await expect(panel.getByRole('spinbutton', { name: 'Delay' })).toHaveValue(`${offset} ms`)
})

/** The longest run of rises that are no farther from each other than the middle one by a tenth: how many periods, how many samples. */
function longestStretch(rises: readonly number[]): { readonly periods: number; readonly length: number } {
  const steps = rises.slice(1).map((rise, i) => rise - rises[i]!)
  const usual = steps.toSorted((a, b) => a - b)[Math.floor(steps.length / 2)]!
  let best = { periods: 0, length: 1 }
  let now = { periods: 0, length: 0 }
  for (const step of steps) {
    now = Math.abs(step - usual) > usual / 10 ? { periods: 0, length: 0 } : { periods: now.periods + 1, length: now.length + step }
    if (now.periods > best.periods) best = now
  }
  return best
}

test('a microphone of 44.1 kHz keeps its pitch and its level all the way; a silent side is noticed and mended by one press', async ({ server }) => {
  // 1 kHz at −12 dBFS on the left side alone.
  const file = writeToneWav({ rate: 44_100, hz: 1000, db: -12, seconds: 3, sides: 'left' })
  try {
    await withExtension(
      server,
      async (context) => {
        const studio = await context.newPage()
        await studio.goto(`${server.studioUrl}/devices`)
        const panel = studio.getByTestId('microphone-panel')
        await studio.getByTestId('microphone-menu').getByRole('button').click()
        await studio.getByRole('option').first().click()
        await panel.getByRole('button', { name: 'Play on both' }).click({ timeout: 20_000 })
        await expect(panel.getByRole('radio', { name: 'left' })).toBeChecked()
        await studio.getByRole('button', { name: 'Start feed' }).click()
        const meeting = await context.newPage()
        await meeting.goto(`${server.meetingUrl}/plain`)
        for (const [select, label] of [
          ['#camera', 'Green Room Camera'],
          ['#microphone', 'Green Room Microphone'],
        ] as const) {
          await expect(meeting.locator(`${select} option`, { hasText: label })).toHaveCount(1)
          await meeting.locator(select).selectOption({ label })
        }
        await meeting.getByRole('button', { name: 'Join' }).click()
        await studio.bringToFront()
        await studio.getByTestId('site-ask').getByRole('button', { name: 'Always' }).click()
        await expect.poll(() => meeting.evaluate(() => window.meetingFigures!.soundDb()), { timeout: 20_000 }).toBeGreaterThan(-20)
        // Whole periods between two rises through nothing, in the longest stretch without a gap: a busy machine may lose a chunk, or stand
        // still for a moment, which is no matter of pitch. The mean of both sides is the tone itself.
        const listen = async () => {
          const { samples } = await meeting.evaluate(() => window.meetingFigures!.record(1500))
          const rises = samples.flatMap((code, i) => (i > 0 && samples[i - 1]! < 0 && code >= 0 ? [i] : []))
          return { samples, ...longestStretch(rises) }
        }
        let heard = await listen()
        await expect.poll(async () => (heard.periods > 300 ? heard : (heard = await listen())).periods, { timeout: 40_000 }).toBeGreaterThan(300)
        const { samples, periods, length } = heard
        expect(Math.abs((periods * 48_000) / length - 1000)).toBeLessThan(5)
        const peakDb = 20 * Math.log10(Math.max(...samples) / 32_767)
        expect(Math.abs(peakDb + 12)).toBeLessThan(1)
      },
      [...FAKE_DEVICES, `--use-file-for-fake-audio-capture=${file}`],
    )
  } finally {
    rmSync(file)
  }
})
