// What goes wrong in the middle of things, in the real interface: nothing is lost, and the audience never sees what it should not.
import type { Page, Worker } from '@playwright/test'
import sharp from 'sharp'
import { expect, expectPace, FULL_RATE, joinMeeting, openStudio, test } from './studio.ts'

test.use({ frameRate: FULL_RATE })

const cardsSent = (page: Page) => page.evaluate(() => window.greenRoom!.stats()?.feed.cards ?? -1)
const framesSent = (page: Page) => page.evaluate(() => window.greenRoom!.stats()?.feed.sent ?? 0)

async function goOnAir(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Start feed' }).click()
  await expect.poll(() => page.evaluate(() => window.greenRoom!.stats()?.feed.showsCard)).toBe(false)
  await expect.poll(() => framesSent(page)).toBeGreaterThan(20)
}

/** Waits until so many more frames were sent. */
async function moreFrames(page: Page, count: number): Promise<void> {
  const before = await framesSent(page)
  await expect.poll(() => framesSent(page), { timeout: 30_000 }).toBeGreaterThan(before + count)
}

function engineWorker(page: Page): Worker {
  const worker = page.workers().find((each) => /engine\.worker/.test(each.url()))
  if (worker === undefined) throw new Error('the engine has no worker')
  return worker
}

test('adding a large photo, a second camera or a broken picture on air disturbs nobody', async ({ page, server }) => {
  await openStudio(page, server)
  await goOnAir(page)
  const before = await cardsSent(page)
  const noise = Buffer.from(Array.from({ length: 500 * 375 * 3 }, (_, i) => (i * 7919) % 251))
  const photo = await sharp(noise, { raw: { width: 500, height: 375, channels: 3 } })
    .resize(4000, 3000)
    .jpeg()
    .toBuffer()
  await page.getByTestId('picture-file').setInputFiles({ name: 'hive.jpg', mimeType: 'image/jpeg', buffer: photo })
  await expect(page.locator('[data-layer="hive"]')).toBeVisible()
  await moreFrames(page, 60)
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await page.getByRole('option', { name: 'Stand-in camera' }).click()
  await moreFrames(page, 60)
  // A picture whose file cannot be had any more.
  await page.route('**/api/assets/*', (route) => (route.request().method() === 'GET' ? route.fulfill({ status: 500, body: '' }) : route.continue()))
  const other = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#123456' } })
    .png()
    .toBuffer()
  await page.getByTestId('picture-file').setInputFiles({ name: 'lost.png', mimeType: 'image/png', buffer: other })
  await expect(page.getByText('On air without lost')).toBeVisible()
  await moreFrames(page, 60)
  expect(await cardsSent(page)).toBe(before)
})

test('one tab sends the feed: another that starts takes it over, and each says what is true', async ({ page, context, server }) => {
  await openStudio(page, server)
  await goOnAir(page)
  const meeting = await joinMeeting(context, server)
  await expect(page.getByText('1 meeting', { exact: false })).toBeVisible()
  const second = await context.newPage()
  await openStudio(second, server)
  await second.getByRole('button', { name: 'Edit here' }).click()
  await expect(second.getByRole('button', { name: 'Start feed' })).toBeEnabled()
  await second.getByRole('button', { name: 'Start feed' }).click()
  await expect(page.getByText('Another Green Room tab now sends the feed')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Start feed' })).toBeVisible()
  await expect(page.getByText('1 meeting', { exact: false })).toHaveCount(0)
  await expect(second.getByText('1 meeting', { exact: false })).toBeVisible({ timeout: 20_000 })
  await second.getByRole('button', { name: 'Stop feed' }).click()
  // Nobody sends any more, nobody says so, and the meeting has the card.
  await expectPace(meeting, 'card')
  await page.bringToFront()
  await page.getByRole('alert').getByRole('button', { name: 'Close' }).click()
  await page.getByRole('button', { name: 'Edit here' }).click()
  await expect(page.getByRole('button', { name: 'Start feed' })).toBeEnabled()
  await goOnAir(page)
  await expectPace(meeting, 'feed')
})

test('a page that is reloaded on air goes on with the same scene', async ({ page, context, server }) => {
  await openStudio(page, server)
  await page.getByRole('button', { name: 'Just me', exact: false }).first().click()
  await page.getByRole('button', { name: 'Start with this scene' }).click()
  await goOnAir(page)
  const meeting = await joinMeeting(context, server)
  await expectPace(meeting, 'feed')
  await page.bringToFront()
  await page.reload()
  await expect(page.getByRole('button', { name: 'Stop feed' })).toBeVisible()
  await expect.poll(() => page.evaluate(() => window.greenRoom!.stats()?.feed.showsCard), { timeout: 20_000 }).toBe(false)
  await expectPace(meeting, 'feed')
  // A feed that was stopped stays so.
  await page.getByRole('button', { name: 'Stop feed' }).click()
  await page.reload()
  await expect(page.getByTestId('stage')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Start feed' })).toBeVisible()
})

for (const [what, harm] of [
  ['dies without a word', (worker: Worker) => worker.evaluate(() => self.close())],
  [
    'hangs',
    (worker: Worker) =>
      worker.evaluate(() => {
        setTimeout(() => {
          for (;;);
        })
      }),
  ],
] as const) {
  test(`an engine that ${what} is noticed, started again and told of`, async ({ page, context, server }) => {
    await openStudio(page, server)
    await goOnAir(page)
    const meeting = await joinMeeting(context, server)
    await expectPace(meeting, 'feed')
    await page.bringToFront()
    await harm(engineWorker(page))
    await expect(page.getByText('The picture paused for a moment. It is running again.')).toBeVisible({ timeout: 40_000 })
    await expect.poll(() => page.evaluate(() => window.greenRoom!.stats()?.feed.showsCard), { timeout: 30_000 }).toBe(false)
    await moreFrames(page, 30)
    await expectPace(meeting, 'feed')
  })
}

test('a throw in the middle of frames costs those frames only, and is told once', async ({ page, server }) => {
  await openStudio(page, server)
  await goOnAir(page)
  const before = await cardsSent(page)
  await engineWorker(page).evaluate(() => {
    const Native = VideoFrame
    let made = 0
    Object.assign(self, {
      VideoFrame: class extends Native {
        constructor(...parts: ConstructorParameters<typeof VideoFrame>) {
          made += 1
          if (made % 5 === 0) throw new Error('no room for a frame')
          super(...parts)
        }
      },
    })
  })
  await expect(page.getByText('One frame could not be drawn: no room for a frame')).toHaveCount(1)
  await moreFrames(page, 90)
  expect(await cardsSent(page)).toBe(before)
})

test('an edit that neither server nor browser can keep is said to be so, and saved when the server is back', async ({ page, server }) => {
  await openStudio(page, server)
  await page.evaluate(() => {
    Storage.prototype.setItem = () => {
      throw new DOMException('full', 'QuotaExceededError')
    }
  })
  await page.route('**/api/shows/**', (route) => route.abort('connectionrefused'))
  await page.locator('[data-layer="Class title"]').click()
  await page.getByRole('textbox', { name: 'Line 1' }).fill('Only in this tab')
  await expect(page.getByText('Keep this tab open until the server is back.')).toBeVisible()
  await expect(page.getByText('Saved', { exact: true })).toHaveCount(0)
  await page.unroute('**/api/shows/**')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await expect.poll(async () => JSON.stringify(await server.shows.get('demo-brood-frame'))).toContain('Only in this tab')
})

test('saves whose answers are lost are neither doubled nor taken for another tab’s', async ({ page, server }) => {
  await openStudio(page, server)
  await page.route('**/api/shows/demo-brood-frame', async (route) => {
    if (route.request().method() !== 'PATCH') return route.continue()
    await route.fetch()
    await route.abort('connectionreset')
  })
  await page.locator('[data-layer="Class title"]').click()
  const line = page.getByRole('textbox', { name: 'Line 1' })
  await line.fill('First words')
  await expect(page.getByText('Offline: saved in this browser', { exact: true })).toBeVisible()
  await line.fill('Second words')
  await page.unroute('**/api/shows/demo-brood-frame')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  expect(JSON.stringify(await server.shows.get('demo-brood-frame'))).toContain('Second words')
  expect(await server.shows.list()).toHaveLength(1)
})

test('work that waits in the browser is saved by the tab that edits, never dropped by one that watches', async ({ page, context, server }) => {
  await openStudio(page, server)
  // In the page itself: a route of the browser's would let a save through while the page closes.
  await page.evaluate(() => {
    window.fetch = () => Promise.reject(new TypeError('no network'))
  })
  await page.locator('[data-layer="Class title"]').click()
  await page.getByRole('textbox', { name: 'Line 1' }).fill('Waiting words')
  await expect(page.getByText('Offline: saved in this browser', { exact: true })).toBeVisible()
  const watching = await context.newPage()
  await openStudio(watching, server)
  await expect(watching.getByText('This show is open in another tab')).toBeVisible()
  // The tab that typed goes; the one that watched edits now, on top of what waited. It says so for eight seconds, and closing a page
  // that draws may take longer.
  await Promise.all([expect(watching.getByText('Changes saved in this browser are restored.')).toBeVisible({ timeout: 40_000 }), page.close()])
  await expect.poll(async () => JSON.stringify(await server.shows.get('demo-brood-frame'))).toContain('Waiting words')
  await watching.locator('[data-layer="Class title"]').click()
  await expect(watching.getByRole('textbox', { name: 'Line 1' })).toHaveValue('Waiting words')
})

test('taking over keeps the first edit made after it', async ({ page, context, server }) => {
  await openStudio(page, server)
  const second = await context.newPage()
  await openStudio(second, server)
  await second.locator('[data-layer="Class title"]').click()
  await page.locator('[data-layer="Class title"]').click()
  await page.getByRole('textbox', { name: 'Line 1' }).fill('Typed first')
  await second.getByRole('button', { name: 'Edit here' }).click()
  await second.getByRole('textbox', { name: 'Line 2' }).fill('Typed second')
  await expect.poll(async () => JSON.stringify(await server.shows.get('demo-brood-frame'))).toContain('Typed second')
  expect(JSON.stringify(await server.shows.get('demo-brood-frame'))).toContain('Typed first')
})

test('a show that cannot be read is listed as such, exported and deleted; the others are untouched', async ({ page, server }) => {
  await server.shows.create((await server.shows.get('demo-brood-frame')).show, 'broken')
  await server.database.sequelize.query(
    `UPDATE shows SET document = '{"format":"green-room-show","version":2,"inputs":[null]}', name = 'Old evening' WHERE id = 'broken'`,
  )
  await page.goto(`${server.studioUrl}/shows`)
  await expect(page.getByRole('link', { name: 'Open: Reading a brood frame' })).toBeVisible()
  const card = page.getByTestId('unreadable-show')
  await expect(card.getByRole('heading', { name: 'Old evening' })).toBeVisible()
  await expect(card.getByText('This show cannot be read')).toBeVisible()
  const download = page.waitForEvent('download')
  await card.getByRole('button', { name: 'Export anyway' }).click()
  expect((await download).suggestedFilename()).toBe('Old evening.json')
  await card.getByRole('button', { name: 'Delete' }).click()
  await expect(card).toHaveCount(0)
  await expect(page.getByRole('link', { name: 'Open: Reading a brood frame' })).toBeVisible()
})
