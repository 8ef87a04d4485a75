// What a presenter comes to do, with every action counted and printed: by mouse, and once by keys alone.
import { textOf } from '../../core/layers/text.ts'
import { chromium, type BrowserContext, type Page } from '@playwright/test'
import sharp from 'sharp'
import type { TextLayer } from '../../core/show/show.ts'
import { CHROMIUM, CHROMIUM_FLAGS } from '../support/chromium.ts'
import type { TestServer } from '../support/test-server.ts'
import { writeStandinY4m } from '../support/y4m.ts'
import { Hand } from './hand.ts'
import { colourAt, expect, openStudio, test } from './studio.ts'

const NAME = 'Ana Kovač'

/** A browser whose only camera is a file of the drawn presenter. */
async function withCamera(run: (context: BrowserContext) => Promise<void>): Promise<void> {
  const file = await writeStandinY4m(4)
  const browser = await chromium.launch({
    executablePath: CHROMIUM,
    args: [...CHROMIUM_FLAGS, '--use-fake-ui-for-media-stream', '--use-fake-device-for-media-stream=fps=30', `--use-file-for-fake-video-capture=${file}`],
  })
  try {
    await run(await browser.newContext({ viewport: { width: 1280, height: 800 } }))
  } finally {
    await browser.close()
  }
}

async function poster() {
  const buffer = await sharp({ create: { width: 1280, height: 720, channels: 3, background: '#c040a0' } })
    .png()
    .toBuffer()
  return { name: 'Evening sky.png', mimeType: 'image/png', buffer }
}

function isMagenta([red, green, blue]: readonly [number, number, number]): boolean {
  return red - green > 80 && blue - green > 50
}

/** The studio's list of shows, and nobody in it yet. */
async function openShows(page: Page, server: TestServer): Promise<void> {
  // From here on the browser hands its file choosers to the test, however quick a key is.
  page.on('filechooser', () => undefined)
  await page.goto(`${server.studioUrl}/shows`)
  await expect(page.getByRole('button', { name: 'New show' })).toBeVisible()
}

/** What the meeting gets is what was made. */
async function expectMade(meeting: Page): Promise<void> {
  await expect(meeting.locator('#status')).toHaveText(/^In the meeting with Green Room Camera/)
  await expect.poll(async () => isMagenta(await colourAt(meeting, 300, 120)), { timeout: 30_000 }).toBe(true)
  const [red, green] = await colourAt(meeting, 600, 570)
  expect(green - red).toBeGreaterThan(25)
}

async function saved(server: TestServer, name: string) {
  const summary = (await server.shows.list()).find((show) => show.name === name)!
  return (await server.shows.get(summary.id)).show
}

test('(a) from a new show to the meeting: camera, key, picture behind, own name, on air, in at most 12 actions', async ({ server }) => {
  await withCamera(async (context) => {
    const page = await context.newPage()
    const hand = new Hand()
    await openShows(page, server)
    await hand.click(page.getByRole('button', { name: 'New show' }))
    await hand.click(page.getByTestId('device').getByRole('button'))
    await hand.click(page.getByRole('option').first())
    await expect(page.getByText(/^Starting\./)).toHaveCount(0)
    await expect.poll(() => page.evaluate(() => window.greenRoom!.hasPicture())).toBe(true)
    await hand.click(page.getByRole('button', { name: 'Key the cloth for me' }))
    await expect(page.getByTestId('everywhere')).toContainText('Spill', { timeout: 30_000 })
    await hand.chooseFile(page, () => hand.click(page.getByRole('button', { name: 'Add picture' })), await poster())
    await hand.click(page.getByRole('button', { name: 'Add text' }))
    await hand.write(page.getByRole('textbox', { name: 'Line 1' }), NAME)
    await hand.click(page.getByRole('button', { name: 'Start feed' }))
    const meeting = await context.newPage()
    await meeting.goto(server.meetingUrl)
    await expect(meeting.locator('#camera option', { hasText: 'Green Room Camera' })).toHaveCount(1)
    await hand.select(meeting.locator('#camera'), 'Green Room Camera')
    await hand.click(meeting.getByRole('button', { name: 'Join' }))
    await expectMade(meeting)
    // eslint-disable-next-line no-console -- the figure is the point
    console.log(`(a) from a new show to the meeting: ${hand.actions} actions`)
    expect(hand.actions).toBeLessThanOrEqual(12)
    const show = await saved(server, 'New show')
    const { layers } = show.scenes[0]!
    expect(layers.map((layer) => layer.name)).toEqual(['Wall', 'Evening sky', 'Camera', 'Text'])
    expect(textOf(show, layers.at(-1) as TextLayer).blocks[0]!.text).toBe(NAME)
  })
})

test('(a) by keys alone: at most 90 presses', async ({ server }) => {
  await withCamera(async (context) => {
    const page = await context.newPage()
    const hand = new Hand()
    await openShows(page, server)
    await hand.tabTo(page, page.getByRole('button', { name: 'New show' }))
    await hand.press(page, 'Enter')
    await expect(page.getByTestId('stage')).toBeVisible()
    await hand.tabTo(page, page.locator('.stage-handles'))
    await hand.press(page, 'Enter')
    await hand.tabTo(page, page.getByTestId('device').getByRole('button'))
    await hand.press(page, 'Enter')
    await expect(page.getByRole('option').first()).toBeVisible()
    await hand.press(page, 'Home', 'Enter')
    await expect.poll(() => page.evaluate(() => window.greenRoom!.hasPicture())).toBe(true)
    await expect(page.getByText(/^Starting\./)).toHaveCount(0)
    await hand.tabTo(page, page.getByRole('button', { name: 'Key the cloth for me' }))
    await hand.press(page, 'Enter')
    await expect(page.getByTestId('everywhere')).toContainText('Spill', { timeout: 30_000 })
    await hand.tabTo(page, page.getByRole('button', { name: 'Add picture' }), 'Shift+Tab')
    await hand.chooseFile(page, () => hand.press(page, 'Enter'), await poster())
    await hand.tabTo(page, page.getByRole('button', { name: 'Add text' }), 'Shift+Tab')
    await hand.press(page, 'Enter')
    await expect(page.getByRole('textbox', { name: 'Line 1' })).toBeFocused()
    await hand.type(page, NAME)
    await hand.tabTo(page, page.getByRole('button', { name: 'Start feed' }), 'Shift+Tab')
    await hand.press(page, 'Enter')
    await expect(page.getByRole('button', { name: 'Stop feed' })).toBeFocused()
    const meeting = await context.newPage()
    await meeting.goto(server.meetingUrl)
    await expect(meeting.locator('#camera option', { hasText: 'Green Room Camera' })).toHaveCount(1)
    await hand.tabTo(meeting, meeting.locator('#camera'))
    await hand.type(meeting, 'Green')
    await hand.tabTo(meeting, meeting.getByRole('button', { name: 'Join' }))
    await hand.press(meeting, 'Enter')
    await expectMade(meeting)
    // eslint-disable-next-line no-console -- the figure is the point
    console.log(`(a) by keys alone: ${hand.presses} presses`)
    expect(hand.presses).toBeLessThanOrEqual(90)
  })
})

test('(b) a scene is duplicated and its title changed only there in at most 5 actions', async ({ page, server }) => {
  const hand = new Hand()
  await openStudio(page, server)
  await hand.click(page.getByRole('button', { name: 'More for Welcome' }))
  await hand.click(page.getByRole('menuitem', { name: 'Duplicate' }))
  await hand.click(page.locator('[data-layer="Class title"]'))
  await hand.write(page.getByRole('textbox', { name: 'Line 1' }), 'After the break')
  await expect.poll(async () => titlesOf(server)).toEqual(['Reading a brood frame', 'After the break'])
  // eslint-disable-next-line no-console -- the figure is the point
  console.log(`(b) a title changed in a copy of a scene: ${hand.actions} actions`)
  expect(hand.actions).toBeLessThanOrEqual(5)
})

async function titlesOf(server: TestServer): Promise<string[]> {
  const { show } = await server.shows.get('demo-brood-frame')
  const { scenes } = show
  return scenes.flatMap((scene) =>
    scene.layers.flatMap((layer) => (layer.name === 'Class title' && layer.kind === 'text' ? [textOf(show, layer).blocks[0]!.text] : [])),
  )
}

test('(c) the camera is cropped in one scene only in at most 5 actions', async ({ page, server }) => {
  const hand = new Hand()
  await openStudio(page, server)
  await page.getByRole('button', { name: 'Just me', exact: true }).click()
  await hand.click(page.locator('[data-layer="Desk camera"]'))
  await hand.click(page.getByRole('link', { name: 'Adjust in this scene only' }))
  await expect(page.getByRole('radio', { name: 'Just me only' })).toHaveAttribute('aria-checked', 'true')
  await hand.click(page.getByRole('button', { name: 'Add step' }))
  await hand.click(page.getByRole('menuitem', { name: /^Crop\b/ }))
  await hand.write(page.getByRole('spinbutton', { name: 'Bottom', exact: true }), '20')
  await page.keyboard.press('Enter')
  const cropsOf = async () => (await server.shows.get('demo-brood-frame')).show.scenes.map((scene) => scene.layers.flatMap((layer) => layer.treatment))
  await expect.poll(async () => (await cropsOf())[1]).toMatchObject([{ kind: 'crop', params: { bottom: 20 } }])
  const crops = await cropsOf()
  expect([crops[0], crops[2], crops[3]]).toEqual([[], [], []])
  // eslint-disable-next-line no-console -- the figure is the point
  console.log(`(c) a crop in one scene: ${hand.actions} actions`)
  expect(hand.actions).toBeLessThanOrEqual(5)
})

test('(d) the room behind the presenter is softened in at most 3 actions', async ({ page, server }) => {
  const hand = new Hand()
  await openStudio(page, server)
  await hand.click(page.getByRole('link', { name: 'Bench', exact: true }))
  await hand.click(page.getByRole('button', { name: 'Add step' }))
  await hand.click(page.getByRole('menuitem', { name: /^Behind you/ }))
  await expect
    .poll(async () => (await server.shows.get('demo-brood-frame')).show.inputs[0]!.treatment.find((step) => step.kind === 'room'))
    .toMatchObject({ on: true, params: { effect: 'softened' } })
  // eslint-disable-next-line no-console -- the figure is the point
  console.log(`(d) the room softened: ${hand.actions} actions`)
  expect(hand.actions).toBeLessThanOrEqual(3)
})
