// npm run screenshots: the pictures of docs/screenshots, made from the demo at 1280 × 800.
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import sharp from 'sharp'
import { chromium, type Page } from '@playwright/test'
import type { StandinCamera } from '../core/show/show.ts'
import { standinWords } from '../app/locales/en/steps.ts'
import { classSlides } from '../demo/draw/class-slides.ts'
import { seedDemos, slidePictures } from '../demo/seed.ts'
import { CHROMIUM, CHROMIUM_FLAGS } from '../tests/support/chromium.ts'
import '../app/engine/diagnostics.ts'
import '../standins/meeting/figures-window.ts'
import { startTestServer, type TestServer } from '../tests/support/test-server.ts'

const folder = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../docs/screenshots')
/** Long enough for every small picture to have been drawn. */
const SETTLE_MS = 2500
const MODEL_MS = 6000

async function chooseOtherTheme(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Settings' }).click()
  await page.getByRole('radiogroup', { name: 'Theme' }).getByRole('radio', { checked: false }).click()
  await page.keyboard.press('Escape')
}

async function main(): Promise<void> {
  const server = await startTestServer()
  await seedDemos(server.shows, server.assets)
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: [...CHROMIUM_FLAGS] })
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  const shoot = async (target: Page, name: string) => {
    await target.waitForTimeout(SETTLE_MS)
    await target.screenshot({ path: path.join(folder, `${name}.png`) })
  }
  const turnTheme = () => chooseOtherTheme(page)

  const started = Date.now()
  await page.goto(server.studioUrl)
  await page.waitForFunction(() => window.greenRoom?.hasPicture())
  process.stdout.write(`first picture after ${Date.now() - started} ms\n`)
  await page.locator('[data-layer="Desk camera"]').click()
  await shoot(page, 'build-paper')
  await shootSlides(page, shoot, turnTheme)
  await shootScenes(page, shoot, turnTheme)
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
  await turnTheme()
  await page.getByRole('button', { name: 'Stop feed' }).click()
  await page.getByRole('link', { name: 'Bench' }).click()
  await shootBench(page, shoot, turnTheme)
  await page.goto(`${server.studioUrl}/shows`)
  await shoot(page, 'shows-paper')
  await page.getByRole('button', { name: 'New show' }).click()
  await shoot(page, 'new-show-paper')
  await page.keyboard.press('Escape')
  await browser.close()
  await shootDevices(server)
  await server.close()
}

/** A ring and an arrow on the page over the shoulder. */
async function drawOnPage(page: Page): Promise<void> {
  await page.locator('main').press('d')
  const { x, y, width, height } = (await page.getByTestId('draw-layer').boundingBox())!
  const pens = page.getByTestId('draw-bar')
  await pens.getByRole('button', { name: /^Colour 4/ }).click()
  for (const [pen, from, to] of [
    ['Ellipse', [0.255, 0.27], [0.34, 0.36]],
    ['Arrow', [0.15, 0.44], [0.25, 0.34]],
  ] as const) {
    await pens.getByRole('button', { name: pen, exact: true }).click()
    await page.mouse.move(x + width * from[0], y + height * from[1])
    await page.mouse.down()
    await page.mouse.move(x + width * to[0], y + height * to[1], { steps: 6 })
    await page.mouse.up()
  }
}

/** Slides: those of the demo beside the presenter, and the same file on its way in. */
async function shootSlides(page: Page, shoot: (target: Page, name: string) => Promise<void>, turnTheme: () => Promise<void>): Promise<void> {
  await page.getByText('Slides beside me').first().click()
  for (let turns = 0; turns < 3; turns += 1) await page.locator('main').press('PageDown')
  await page.locator('[data-layer="Class slides"]').click()
  await drawOnPage(page)
  await turnTheme()
  await shoot(page, 'slides-blackout')
  await page.getByRole('button', { name: 'Stop drawing' }).click()
  await turnTheme()
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  const asked = page.waitForEvent('filechooser')
  await page
    .getByRole('option', { name: /^Slides \.?/ })
    .first()
    .click()
  const files = slidePictures().map((buffer, index) => ({ name: `${classSlides[index]!.title}.png`, mimeType: 'image/png', buffer }))
  await (await asked).setFiles(files)
  await page.getByText('12 pages are ready').waitFor()
  await page.getByRole('button', { name: 'Over the shoulder' }).click()
  await shoot(page, 'slides-import-paper')
  await page.keyboard.press('Escape')
  await page.getByText('Welcome').first().click()
}

/** Building scenes: what can be added, layouts, inside the page, what the depth strip finds. Everything is undone again. */
async function shootScenes(page: Page, shoot: (target: Page, name: string) => Promise<void>, turnTheme: () => Promise<void>): Promise<void> {
  const undoAll = async () => {
    while ((await page.getByRole('button', { name: /^Undo / }).count()) > 0) await page.keyboard.press('Control+z')
  }
  await page.getByRole('button', { name: 'Add a graphic' }).click()
  await page.getByRole('radio', { name: 'Card' }).click()
  await page.waitForTimeout(MODEL_MS)
  await shoot(page, 'graphics-paper')
  await shootGraphic(page, shoot, turnTheme)
  await undoAll()
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox').fill('choose a background')
  await page.keyboard.press('Enter')
  await page.waitForTimeout(MODEL_MS)
  await shoot(page, 'backgrounds-paper')
  await page.keyboard.press('Escape')
  await page.getByTestId('background-gallery').waitFor({ state: 'hidden' })
  await shootTransition(page, turnTheme)
  await undoAll()
  await page.getByText('Welcome').first().click()
  await page.getByRole('button', { name: 'Layout', exact: true }).click()
  await page.getByRole('button', { name: /^What you show/ }).click()
  await page.getByRole('option', { name: /^Stand-in screen/ }).click()
  await page.getByTestId('layouts').getByRole('button', { name: 'Over the shoulder' }).click()
  await shoot(page, 'layouts-paper')
  await page.getByTestId('layouts').getByRole('button', { name: 'Inside the page' }).click()
  await page.keyboard.press('Escape')
  await page.locator('[data-layer="Hive scale"]').click()
  await shoot(page, 'inside-paper')
  await undoAll()
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await page.getByRole('option', { name: /^Stand-in screen/ }).click()
  await page.locator('[data-layer="Hive scale"] button').press('Shift+ArrowRight')
  await page.locator('[data-layer="Desk camera"]').click()
  await turnTheme()
  await shoot(page, 'build-finding-blackout')
  await turnTheme()
  await undoAll()
}

/** A name strip with a photo: its form, and then how its words come in. The gallery is open. */
async function shootGraphic(page: Page, shoot: (target: Page, name: string) => Promise<void>, turnTheme: () => Promise<void>): Promise<void> {
  const asked = page.waitForEvent('filechooser')
  await page.getByTestId('graphic-gallery').getByRole('button', { name: 'Name strip with photo' }).click()
  const portrait = await sharp(Buffer.from(PORTRAIT)).png().toBuffer()
  await (await asked).setFiles({ name: 'Portrait.png', mimeType: 'image/png', buffer: portrait })
  await page.getByRole('textbox', { name: 'Your name' }).fill('Ines Marković')
  await page.getByRole('textbox', { name: 'Your title' }).fill('Beekeepers’ society, Lower Meadow')
  await page.getByRole('button', { name: 'Plum', exact: true }).click()
  await turnTheme()
  await shoot(page, 'graphic-form-blackout')
  await turnTheme()
  await page.locator('[data-layer="Name"] button').first().click()
  await page.getByRole('button', { name: /^Comes in/ }).click()
  await page.getByRole('option', { name: 'Typed' }).click()
  await page.waitForTimeout(SETTLE_MS)
  await page.getByText('Motion', { exact: true }).scrollIntoViewIfNeeded()
  await shoot(page, 'motion-paper')
}

/** Somebody, drawn. */
const PORTRAIT = `<svg xmlns="http://www.w3.org/2000/svg" width="400" height="400"><rect width="400" height="400" fill="#7f97a3"/><ellipse cx="200" cy="410" rx="165" ry="150" fill="#c98b1f"/><path d="M165 250h70v60a35 35 0 0 1-70 0z" fill="#b97a56"/><ellipse cx="200" cy="180" rx="82" ry="98" fill="#c98d68"/><path d="M112 190C95 70 160 50 205 55s105 30 84 135c-8-50-40-75-85-78s-80 25-92 78" fill="#3a241b"/></svg>`

/** A scene that pushes out the one before, half way, on the stage. */
async function shootTransition(page: Page, turnTheme: () => Promise<void>): Promise<void> {
  await turnTheme()
  await page.getByText('Key points').first().click()
  await page.keyboard.press('Escape')
  const own = page.getByRole('group', { name: 'Into this scene' })
  await own.getByRole('button', { name: /^Into this scene/ }).click()
  await page.getByRole('option', { name: 'Push' }).click()
  await own.getByRole('slider', { name: 'Duration' }).fill('4')
  await page.waitForTimeout(SETTLE_MS)
  await own.getByRole('button', { name: /^Play on the stage/ }).click()
  await page.waitForTimeout(2200)
  await page.screenshot({ path: path.join(folder, 'transition-blackout.png') })
  await turnTheme()
}

/** The devices with the extension's guide. */
async function shootDevices(server: TestServer): Promise<void> {
  const plain = await chromium.launch({ executablePath: CHROMIUM, args: [...CHROMIUM_FLAGS] })
  const page = await plain.newPage({ viewport: { width: 1280, height: 800 } })
  // Where this machine keeps the project is nobody's business.
  await page.route('**/api/extension', (route) => route.fulfill({ json: { folder: '/home/ines/green-room/dist/extension' } }))
  await page.goto(`${server.studioUrl}/devices`)
  await page
    .getByText(/\d fps$/)
    .first()
    .waitFor()
  await page.waitForTimeout(SETTLE_MS)
  // The stand-in does not speak all the time.
  await page.waitForFunction(() => Number(document.querySelector('[data-testid=microphone-panel] [role=meter]')?.getAttribute('aria-valuenow')) > -20)
  await page.screenshot({ path: path.join(folder, 'devices-paper.png') })
  await plain.close()
}

/** The bench: a camera as it comes, then what is made of it. */
async function shootBench(page: Page, shoot: (target: Page, name: string) => Promise<void>, turnTheme: () => Promise<void>): Promise<void> {
  const head = (kind: string) => page.getByTestId(`step-${kind}`).getByRole('button').first()
  const open = async (kind: string) => {
    if ((await head(kind).getAttribute('aria-expanded')) !== 'true') await head(kind).click()
  }
  const switchSteps = async (kinds: readonly string[]) => {
    for (const kind of kinds) await page.getByTestId(`step-${kind}`).getByRole('switch').first().click()
  }
  const useCamera = async (standin: StandinCamera) => {
    await page.getByTestId('device-card').getByRole('button').first().click()
    await page.getByTestId('device').getByRole('button').click()
    await page.getByRole('option', { name: `Stand-in: ${standinWords[standin]}`, exact: true }).click()
    await page.getByTestId('device-card').getByRole('button').first().click()
  }
  const view = (mode: string) => page.getByRole('radio', { name: mode, exact: true }).click()
  const setExposure = async (stops: string) => {
    const field = page.getByRole('spinbutton', { name: 'Exposure', exact: true })
    await field.click()
    await field.fill(stops)
    await field.press('Enter')
  }
  const list = page.getByRole('button', { name: 'Add step' })

  await page.mouse.move(640, 790)
  await shoot(page, 'bench-paper')
  // A dim, uneven cloth before anything is done to it.
  await useCamera('dimLight')
  await switchSteps(['crop', 'balance', 'tone', 'chromaKey'])
  await view('Before')
  await open('crop')
  await switchSteps(['crop', 'balance', 'tone'])
  await open('tone')
  await setExposure('1.6')
  await view('Split')
  await switchSteps(['chromaKey'])
  await open('chromaKey')
  await page.getByTestId('find-key').click()
  await page.getByTestId('key-figures').waitFor()
  await view('Matte')
  await page.mouse.move(640, 790)
  await shoot(page, 'bench-key-paper')
  await view('After')
  await page.getByRole('button', { name: 'Clipping' }).click()
  await head('chromaKey').click()
  await page.mouse.move(640, 790)
  await turnTheme()
  await shoot(page, 'bench-scopes-blackout')
  await turnTheme()
  await page.getByRole('button', { name: 'Clipping' }).click()
  await view('Split')
  await switchSteps(['look'])
  await open('look')
  await page.getByRole('button', { name: 'Refresh previews' }).click()
  await page.getByRole('radio', { name: 'Beeswax' }).click()
  await switchSteps(['crop', 'chromaKey', 'matteEdge', 'spill', 'look'])
  await page.getByRole('spinbutton', { name: 'Amount', exact: true }).waitFor()
  await useCamera('untidyRoom')
  await open('tone')
  await setExposure('0')
  await list.click()
  await page.getByRole('menuitem', { name: /^Behind you/ }).click()
  // The person model loads for some seconds.
  await page.waitForTimeout(MODEL_MS)
  // The hand is up for three seconds in every eleven; the model finds it badly, as docs/guide-camera.md says.
  await page.waitForFunction(() => {
    const phase = (Object.values(window.greenRoom!.stats()!.inputs)[0]!.frameNumber / 30 + 4) % 11
    return phase > 3.2 && phase < 4
  })
  await shoot(page, 'bench-room-paper')
}

await main()
