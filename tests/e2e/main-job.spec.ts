// The main job through the real interface: a keyed camera over a picture with a title, in a meeting.
import { chromium } from '@playwright/test'
import sharp from 'sharp'
import { CHROMIUM, CHROMIUM_FLAGS } from '../support/chromium.ts'
import { writeStandinY4m } from '../support/y4m.ts'
import { colourAt, expect, FULL_RATE, isCloth, joinMeeting, openStudio, setNumber, test } from './studio.ts'
import type { BrowserContext, Page } from '@playwright/test'
import { standinCameras } from '../../core/show/show.ts'
import type { TestServer } from '../support/test-server.ts'

test.use({ frameRate: FULL_RATE })

const MAGENTA = '#c040a0'

/** Drags a pane of the depth strip onto another, and lets go once `isThere` holds. */
async function dragPane(page: Page, name: string, target: string, isThere: () => Promise<void>): Promise<void> {
  const from = (await page.locator(`[data-layer="${name}"]`).boundingBox())!
  const to = (await page.locator(`[data-layer="${target}"]`).boundingBox())!
  await page.mouse.move(from.x + from.width / 2, from.y + 30)
  await page.mouse.down()
  await page.mouse.move(from.x - 20, from.y + 30, { steps: 5 })
  await page.mouse.move(to.x + 20, to.y + 30, { steps: 15 })
  await isThere()
  await page.mouse.up()
}

/** From the bench to the meeting, the same for a stand-in and a device. */
async function walk(page: Page, context: BrowserContext, server: TestServer): Promise<void> {
  // The bench: the frame mark comes back into the picture, and the backdrop is picked anew.
  await page.getByRole('link', { name: 'Bench' }).click()
  await page.getByRole('button', { name: /^Crop/ }).click()
  await setNumber(page, 'Left', '0')
  await page.getByRole('button', { name: 'Coloured cloth', exact: false }).first().click()
  const code = page.getByRole('textbox', { name: 'Backdrop, code' })
  await code.fill('#ff00ff')
  await code.press('Enter')
  await page.getByRole('button', { name: 'Pick backdrop' }).first().click()
  const picture = page.getByTestId('bench-picture')
  const box = (await picture.boundingBox())!
  await picture.click({ position: { x: box.width * 0.3, y: box.height * 0.3 } })
  await expect(page.getByText('Backdrop set to')).toBeVisible()
  const picked = await code.inputValue()
  const [red, green, blue] = [1, 3, 5].map((at) => Number.parseInt(picked.slice(at, at + 2), 16)) as [number, number, number]
  expect(isCloth([red, green, blue])).toBe(true)

  // Build: a picture comes in behind the presenter, who is cut out, and a text in front of all. Dragged in front, the picture is in the way, and is told so.
  await page.getByRole('link', { name: 'Build' }).click()
  const poster = await sharp({ create: { width: 640, height: 360, channels: 3, background: MAGENTA } })
    .png()
    .toBuffer()
  await page.getByTestId('picture-file').setInputFiles({ name: 'Poster.png', mimeType: 'image/png', buffer: poster })
  await expect(page.locator('[data-layer="Poster"]')).toBeVisible()
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await page.getByRole('option', { name: 'Text' }).click()
  await page.getByRole('textbox', { name: 'Line 1' }).fill('Hello meeting')
  await expect(page.locator('[data-layer="Text"]')).toBeVisible()

  const order = () => page.locator('[data-layer]:not(.sortable-fallback)').evaluateAll((panes) => panes.map((pane) => pane.getAttribute('data-layer')))
  expect(await order()).toEqual(['Apiary wall', 'Poster', 'Desk camera', 'Class title', 'Society mark', 'Text'])
  await dragPane(page, 'Poster', 'Desk camera', () =>
    expect.poll(order).toEqual(['Apiary wall', 'Desk camera', 'Poster', 'Class title', 'Society mark', 'Text']),
  )
  await expect(page.getByRole('status').filter({ hasText: 'Poster covers all of' })).toBeVisible()
  await page.getByRole('button', { name: 'Send it back' }).click()
  await expect.poll(order).toEqual(['Apiary wall', 'Poster', 'Desk camera', 'Class title', 'Society mark', 'Text'])
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()

  // The feed, and a second page that knows nothing of Green Room.
  await page.getByRole('button', { name: 'Start feed' }).click()
  const meeting = await joinMeeting(context, server)
  // Where cloth was, the poster is now.
  await expect.poll(async () => isMagenta(await colourAt(meeting, 300, 120)), { timeout: 30_000 }).toBe(true)
  expect(isMagenta(await colourAt(meeting, 1000, 300))).toBe(true)
  // The presenter's jumper is yellow still.
  const jumper = await colourAt(meeting, 560, 680)
  expect(jumper[0] - jumper[2]).toBeGreaterThan(60)
  // The new title's plate is green where it lies, and the mark counts up.
  const [plateRed, plateGreen] = await colourAt(meeting, 600, 650)
  expect(plateGreen - plateRed).toBeGreaterThan(25)
  await meeting.bringToFront()
}

function isMagenta([red, green, blue]: readonly [number, number, number]): boolean {
  return red - green > 80 && blue - green > 50
}

test('with the stand-in camera: picked, layered, reordered, sent and seen', async ({ page, context, server }) => {
  const problems: string[] = []
  page.on('console', (message) => {
    if (message.type() === 'error') problems.push(message.text())
  })
  page.on('pageerror', (error) => problems.push(error.message))
  await openStudio(page, server)
  await walk(page, context, server)
  const meeting = context.pages().at(-1)!
  await expect.poll(() => meeting.evaluate(() => window.meetingFigures!.numbers().length), { timeout: 20_000 }).toBeGreaterThan(45)
  const numbers = await meeting.evaluate(() => [...window.meetingFigures!.numbers()])
  expect(numbers.every((number, i) => i === 0 || number >= numbers[i - 1]!)).toBe(true)
  expect(numbers.at(-1)! - numbers[0]!).toBeGreaterThan(30)
  expect(problems).toEqual([])
})

test('with a real device (getUserMedia): the same', async ({ server }) => {
  const file = await writeStandinY4m(4)
  const browser = await chromium.launch({
    executablePath: CHROMIUM,
    args: [...CHROMIUM_FLAGS, '--use-fake-ui-for-media-stream', '--use-fake-device-for-media-stream=fps=30', `--use-file-for-fake-video-capture=${file}`],
  })
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  await openStudio(page, server)
  await page.getByRole('link', { name: 'Bench' }).click()
  await page.getByTestId('device-card').getByRole('button').first().click()
  const device = page.getByTestId('device')
  // What the browser lists comes first, then the stand-ins.
  await device.getByRole('button').click()
  await expect(page.getByRole('option')).toHaveCount(standinCameras.length + 1)
  await page.getByRole('option').first().click()
  await expect(page.getByText(/^Live · 1280×720$/)).toBeVisible()
  await walk(page, context, server)
  const meeting = context.pages().at(-1)!
  // The file runs round every four seconds, so numbers rise within a round.
  await expect.poll(() => meeting.evaluate(() => window.meetingFigures!.numbers().length), { timeout: 20_000 }).toBeGreaterThan(45)
  const numbers = await meeting.evaluate(() => [...window.meetingFigures!.numbers()])
  const falls = numbers.filter((number, i) => i > 0 && number < numbers[i - 1]!).length
  expect(falls).toBeLessThanOrEqual(2)
  expect(new Set(numbers).size).toBeGreaterThan(30)
  await browser.close()
})
