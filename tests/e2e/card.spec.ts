// A graphics card in the real interface: pinned, taken away while on air, given back.
import type { Page } from '@playwright/test'
import '../../app/engine/diagnostics.ts'
import { colourAt, expect, FULL_RATE, joinMeeting, openStudio, test } from './studio.ts'

test.use({ frameRate: FULL_RATE })

const executorOf = (page: Page) => page.evaluate(() => window.greenRoom!.executor())
const sentBy = (page: Page) => page.evaluate(() => window.greenRoom!.stats()!.feed.sent)

test('the card is lost while on air: the meeting keeps its picture, made by the processor; the card goes on when it is back', async ({
  page,
  context,
  server,
}) => {
  await openStudio(page, server)
  await expect.poll(() => executorOf(page)).toEqual({ name: 'cpu', reason: 'noCard', times: null })
  await page.getByRole('button', { name: 'Settings' }).click()
  await expect(page.getByTestId('settings')).toContainText('This browser offers no graphics card.')
  await page.getByRole('radio', { name: 'Graphics card' }).click()
  await expect(page.getByTestId('settings')).toContainText('You chose the graphics card to draw the picture.')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Start feed' }).click()
  const meeting = await joinMeeting(context, server)
  const brightness = async () => Math.max(...(await colourAt(meeting, 640, 200)))
  await expect.poll(brightness, { timeout: 40_000 }).toBeGreaterThan(60)

  // A busy browser may overlook that a card was to go: asked again until it is gone.
  await expect
    .poll(
      async () => {
        const state = await executorOf(page)
        if (state?.name === 'gl') await page.evaluate(() => window.greenRoom!.simulateLoss(true))
        return state
      },
      { timeout: 40_000, intervals: [500, 1500, 3000] },
    )
    .toEqual({ name: 'cpu', reason: 'lost', times: null })
  const atLoss = await sentBy(page)
  const seen: number[] = []
  await expect
    .poll(async () => {
      seen.push(await brightness())
      return (await sentBy(page)) - atLoss
    })
    .toBeGreaterThan(45)
  expect(Math.min(...seen)).toBeGreaterThan(60)
  expect((await page.evaluate(() => window.greenRoom!.stats()!)).feed.showsCard).toBe(false)

  await page.evaluate(() => window.greenRoom!.simulateLoss(false))
  await expect.poll(() => executorOf(page)).toEqual({ name: 'gl', reason: 'pinned', times: null })
  expect(await brightness()).toBeGreaterThan(60)
})
