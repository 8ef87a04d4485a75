// What a presenter comes to do, with every action counted and printed: by mouse, and once by keys alone.
import { readFileSync } from 'node:fs'
import path from 'node:path'
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

/** Where a point of the picture is on the stage. */
async function onStage(page: Page, x: number, y: number): Promise<{ readonly x: number; readonly y: number }> {
  const box = (await page.getByTestId('stage').boundingBox())!
  return { x: box.x + (x / 1280) * box.width, y: box.y + (y / 720) * box.height }
}

test('(a) from a new show to the meeting: camera, key, picture behind, own name, on air, in at most 9 actions', async ({ server }) => {
  await withCamera(async (context) => {
    const page = await context.newPage()
    const hand = new Hand()
    await openShows(page, server)
    await hand.click(page.getByRole('button', { name: 'New show' }))
    await hand.click(page.getByRole('button', { name: 'Create show' }))
    await expect(page.getByText(/^Starting\./)).toHaveCount(0)
    await expect.poll(() => page.evaluate(() => window.greenRoom?.hasPicture())).toBe(true)
    await hand.click(page.getByRole('button', { name: 'Key the cloth for me' }))
    await expect(page.getByTestId('everywhere')).toContainText('Spill', { timeout: 30_000 })
    await hand.drop(page, [await poster()])
    await expect(page.locator('[data-layer="Evening sky"]')).toBeVisible()
    hand.actions += 1
    const { x, y } = await onStage(page, 120, 612)
    await page.mouse.dblclick(x, y)
    await hand.write(page.locator('.build-stage').getByRole('textbox', { name: 'Line 1' }), NAME)
    await hand.click(page.getByRole('button', { name: 'Start feed' }))
    const meeting = await context.newPage()
    await meeting.goto(server.meetingUrl)
    await expect(meeting.locator('#camera option', { hasText: 'Green Room Camera' })).toHaveCount(1)
    await hand.select(meeting.locator('#camera'), 'Green Room Camera')
    await hand.click(meeting.getByRole('button', { name: 'Join' }))
    await expectMade(meeting)
    hand.tell('(a) from a new show to the meeting', 9)
    const show = await saved(server, 'New show')
    const { layers } = show.scenes[0]!
    expect(layers.map((layer) => layer.name)).toEqual(['Wall', 'Evening sky', 'Camera', 'Text'])
    expect(show.inputs[0]).toMatchObject({ kind: 'camera', device: { type: 'device' } })
    expect(show.microphone.device.type).toBe('device')
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
    await expect(page.getByRole('button', { name: 'Create show' })).toBeFocused()
    await hand.press(page, 'Enter')
    await expect(page.getByTestId('stage')).toBeVisible()
    await expect.poll(() => page.evaluate(() => window.greenRoom?.hasPicture())).toBe(true)
    await expect(page.getByText(/^Starting\./)).toHaveCount(0)
    await hand.tabTo(page, page.locator('.stage-handles'))
    await hand.press(page, 'Enter')
    await hand.tabTo(page, page.getByRole('button', { name: 'Key the cloth for me' }))
    await hand.press(page, 'Enter')
    await expect(page.getByTestId('everywhere')).toContainText('Spill', { timeout: 30_000 })
    await hand.tabTo(page, page.getByRole('button', { name: 'Add picture' }), 'Shift+Tab')
    await hand.chooseFile(page, () => hand.press(page, 'Enter'), await poster())
    await expect(page.locator('[data-layer="Evening sky"]')).toBeVisible()
    // By typing: the text that is there, by its name.
    await hand.press(page, 'Control+k')
    await expect(page.getByRole('combobox', { name: 'Find anything' })).toBeFocused()
    await hand.type(page, 'text')
    await expect(page.getByRole('option').first()).toContainText('Text')
    await hand.press(page, 'Enter')
    await expect(page.getByRole('heading', { name: 'Text' }).first()).toBeVisible()
    await hand.tabTo(page, page.locator('.stage-handles'), 'Shift+Tab')
    await hand.press(page, 'Shift+Enter')
    await expect(page.locator('.build-stage').getByRole('textbox', { name: 'Line 1' })).toBeFocused()
    await hand.type(page, NAME)
    await hand.press(page, 'Escape', 'Control+k')
    await hand.type(page, 'start')
    await hand.press(page, 'Enter')
    await expect(page.getByRole('button', { name: 'Stop feed' })).toBeVisible()
    const meeting = await context.newPage()
    await meeting.goto(server.meetingUrl)
    await expect(meeting.locator('#camera option', { hasText: 'Green Room Camera' })).toHaveCount(1)
    await hand.tabTo(meeting, meeting.locator('#camera'))
    await hand.type(meeting, 'Green')
    await hand.tabTo(meeting, meeting.getByRole('button', { name: 'Join' }))
    await hand.press(meeting, 'Enter')
    await expectMade(meeting)
    hand.tell('(a) by keys alone', 90, 'presses')
  })
})

/** A browser that shares the tab with a title when a page asks for a screen, as if the presenter had chosen it. */
async function withSharing(title: string, run: (context: BrowserContext) => Promise<void>): Promise<void> {
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: [...CHROMIUM_FLAGS, `--auto-select-tab-capture-source-by-title=${title}`] })
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
    const tab = await context.newPage()
    await tab.setContent(`<title>${title}</title><body style="background:#c040a0">`)
    await run(context)
  } finally {
    await browser.close()
  }
}

async function openEmptyScene(page: Page, server: TestServer): Promise<void> {
  await openStudio(page, server)
  await page.getByRole('button', { name: 'New scene', exact: true }).click()
  await expect(page.getByText('This scene is empty')).toBeVisible()
}

/** The presenter over the whole picture, the screen beside their head. */
async function expectOverTheShoulder(server: TestServer): Promise<void> {
  const placed = async () => {
    const { show } = await server.shows.get('demo-brood-frame')
    const layers = show.scenes.at(-1)!.layers.map(({ name, placement }) => [name, placement.width / 1280] as const)
    return Object.fromEntries(layers)
  }
  await expect.poll(async () => (await placed())['Desk camera']).toBe(1)
  await expect.poll(async () => (await placed())['Screen'] ?? 1).toBeLessThan(0.5)
}

test('(e) a screen over the shoulder in an empty scene in at most 4 actions', async ({ server }) => {
  await withSharing('Shared log', async (context) => {
    const page = await context.newPage()
    const hand = new Hand()
    await openEmptyScene(page, server)
    await hand.click(page.getByRole('button', { name: 'Over the shoulder' }))
    await hand.click(page.getByRole('button', { name: /^What you show/ }))
    await hand.click(page.getByRole('option', { name: 'Window, tab or screen' }))
    // The browser's list, in which the presenter chooses.
    hand.actions += 1
    await expectOverTheShoulder(server)
    hand.tell('(e) a screen over the shoulder', 4)
  })
})

test('(e) by keys alone: at most 25 presses', async ({ server }) => {
  await withSharing('Shared log', async (context) => {
    const page = await context.newPage()
    const hand = new Hand()
    await openEmptyScene(page, server)
    await hand.tabTo(page, page.getByRole('button', { name: 'Over the shoulder' }))
    await hand.press(page, 'Enter')
    await hand.tabTo(page, page.getByRole('button', { name: /^What you show/ }))
    await hand.press(page, 'Enter')
    await expect(page.getByRole('option', { name: 'Window, tab or screen' })).toBeVisible()
    await hand.type(page, 'Win')
    await hand.press(page, 'Enter')
    await expectOverTheShoulder(server)
    hand.tell('(e) by keys alone', 25, 'presses')
  })
})

test('(f) a clip behind the presenter in at most 3 actions', async ({ page, server }) => {
  const hand = new Hand()
  await openStudio(page, server)
  const file = { name: 'Hive.mp4', mimeType: 'video/mp4', buffer: readFileSync(path.resolve(import.meta.dirname, '../fixtures/clips/h264-rate.mp4')) }
  page.on('filechooser', () => undefined)
  await hand.click(page.getByRole('button', { name: 'Just me', exact: true }))
  await hand.chooseFile(page, () => hand.click(page.getByRole('button', { name: 'Add picture' })), file)
  const order = async () => (await server.shows.get('demo-brood-frame')).show.scenes[1]!.layers.map(({ name }) => name)
  await expect.poll(order).toContain('Hive')
  const names = await order()
  expect(names.indexOf('Hive')).toBeLessThan(names.indexOf('Desk camera'))
  hand.tell('(f) a clip behind the presenter', 3)
})

test('(g) a round camera with border and shadow, copied to another, in at most 7 actions', async ({ page, server }) => {
  const hand = new Hand()
  await openStudio(page, server)
  const inspector = page.locator('.build-inspector')
  await page.getByRole('button', { name: 'Key points', exact: true }).click()
  const frames = async () => Object.fromEntries((await server.shows.get('demo-brood-frame')).show.scenes[2]!.layers.map(({ name, frame }) => [name, frame]))
  const before = await frames()
  await hand.click(page.locator('[data-layer="Desk camera"]'))
  await hand.click(inspector.getByRole('radio', { name: 'Ellipse' }))
  const isOn = async (name: string) => (await inspector.getByRole('switch', { name }).getAttribute('aria-checked')) === 'true'
  for (const name of ['Border', 'Shadow']) if (!(await isOn(name))) await hand.click(inspector.getByRole('switch', { name }))
  await hand.click(inspector.getByRole('button', { name: 'Copy frame' }))
  const other = Object.keys(before).find((name) => name !== 'Desk camera')!
  await hand.click(page.locator(`[data-layer="${other}"]`))
  await hand.click(inspector.getByRole('button', { name: 'Paste frame' }))
  await expect.poll(async () => (await frames())[other]).toMatchObject({ form: 'ellipse', border: expect.anything(), shadow: expect.anything() })
  hand.tell('(g) a round frame with border and shadow, copied', 7)
})

test('(h) white balance, exposure, a look and a preset of it all in at most 8 actions', async ({ page, server }) => {
  const hand = new Hand()
  await openStudio(page, server)
  await hand.click(page.getByRole('link', { name: 'Bench', exact: true }))
  await hand.click(page.getByRole('button', { name: 'Measure Balance once' }))
  await expect(page.getByText(/^Set to \d+ K/)).toBeVisible()
  await hand.click(page.getByTestId('step-tone').getByRole('button').first())
  await hand.write(page.getByRole('spinbutton', { name: 'Exposure', exact: true }), '0,4')
  await page.keyboard.press('Enter')
  await hand.click(page.getByTestId('step-look').getByRole('button').first())
  await hand.click(page.getByRole('radio', { name: 'Window seat' }))
  const chain = async () => (await server.shows.get('demo-brood-frame')).show.inputs[0]!.treatment
  await expect.poll(async () => (await chain()).find(({ kind }) => kind === 'look')).toMatchObject({ on: true, params: { look: 'windowSeat' } })
  expect((await chain()).find(({ kind }) => kind === 'tone')).toMatchObject({ params: { exposure: 0.4 } })
  await hand.click(page.getByRole('button', { name: 'Save as preset' }))
  await hand.click(page.getByRole('dialog').getByRole('button', { name: 'Save', exact: true }))
  await expect(page.getByText('Desk camera saved')).toBeVisible()
  hand.tell('(h) white balance, exposure, look, preset', 8)
})

test('(i) any command or setting is found by typing in at most 3 actions', async ({ page, server }) => {
  await openStudio(page, server)
  await page.locator('[data-layer="Desk camera"]').click()
  const find = async (words: string) => {
    const hand = new Hand()
    hand.actions += 1
    await page.keyboard.press('Control+k')
    await hand.write(page.getByRole('combobox', { name: 'Find anything' }), words)
    hand.actions += 1
    await page.keyboard.press('Enter')
    expect(hand.actions, words).toBeLessThanOrEqual(3)
  }
  const focused = (name: string | RegExp) => expect(page.locator(':focus')).toHaveAccessibleName(name)
  await find('opacity')
  await focused('Opacity')
  await find('blend')
  await focused(/^Blend/)
  await find('exposure')
  await expect(page.getByTestId('step-tone')).toBeVisible()
  await focused('Exposure')
  await find('echo')
  await expect(page.getByTestId('microphone-panel')).toBeVisible()
  await focused('Reduce echo')
  await find('dark theme')
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'blackout')
  await find('bench')
  await expect(page.getByTestId('step-chromaKey')).toBeVisible()
})

test('(b) a scene is duplicated and its title changed only there in at most 5 actions', async ({ page, server }) => {
  const hand = new Hand()
  await openStudio(page, server)
  await hand.click(page.getByRole('button', { name: 'More for Welcome' }))
  await hand.click(page.getByRole('menuitem', { name: 'Duplicate' }))
  await hand.click(page.locator('[data-layer="Class title"]'))
  await hand.write(page.getByRole('textbox', { name: 'Line 1' }), 'After the break')
  await expect.poll(async () => titlesOf(server)).toEqual(['Reading a brood frame', 'After the break'])
  hand.tell('(b) a title changed in a copy of a scene', 5)
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
  hand.tell('(c) a crop in one scene', 5)
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
  hand.tell('(d) the room softened', 3)
})
