// npm run screenshots: the pictures of docs/screenshots, made from the demo at 1280 × 800.
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { chromium, type Page } from 'playwright'
import { seedDemo } from '../demo/seed.ts'
import { CHROMIUM, CHROMIUM_FLAGS } from '../tests/support/chromium.ts'
import '../app/engine/diagnostics.ts'
import '../standins/meeting/figures-window.ts'
import { startTestServer } from '../tests/support/test-server.ts'

const folder = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../docs/screenshots')
/** Long enough for every small picture to have been drawn. */
const SETTLE_MS = 2500

async function main(): Promise<void> {
  const server = await startTestServer()
  await seedDemo(server.shows, server.assets)
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: [...CHROMIUM_FLAGS] })
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  const shoot = async (target: Page, name: string) => {
    await target.waitForTimeout(SETTLE_MS)
    await target.screenshot({ path: path.join(folder, `${name}.png`) })
  }
  const turnTheme = () => page.getByRole('button', { name: /theme/ }).click()

  const started = Date.now()
  await page.goto(server.studioUrl)
  await page.waitForFunction(() => window.greenRoom?.hasPicture())
  process.stdout.write(`first picture after ${Date.now() - started} ms\n`)
  await page.locator('[data-layer="Desk camera"]').click()
  await shoot(page, 'build-paper')
  await page.locator('[data-layer="Class title"]').click()
  await turnTheme()
  await page.getByRole('button', { name: 'Start feed' }).click()
  const meeting = await context.newPage()
  await meeting.goto(server.meetingUrl)
  await meeting.locator('#camera option', { hasText: 'Green Room Camera' }).waitFor({ state: 'attached' })
  await meeting.locator('#camera').selectOption({ label: 'Green Room Camera' })
  await meeting.getByRole('button', { name: 'Join' }).click()
  await meeting.waitForFunction(() => (window.meetingFigures?.read()?.fps ?? 0) > 25)
  await shoot(meeting, 'meeting')
  await page.bringToFront()
  await shoot(page, 'build-blackout')
  await page.getByRole('link', { name: 'Bench' }).click()
  await page.getByRole('radio', { name: 'Matte' }).click()
  await shoot(page, 'bench-matte-blackout')
  await turnTheme()
  await page.getByRole('button', { name: 'Stop feed' }).click()
  await page.getByRole('radio', { name: 'Split' }).click()
  await page.mouse.move(640, 780)
  await shoot(page, 'bench-paper')
  await page.goto(`${server.studioUrl}/shows`)
  await shoot(page, 'shows-paper')
  await browser.close()
  await server.close()
}

await main()
