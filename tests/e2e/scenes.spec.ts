// Scenes that presenters build, from an empty show, every action counted and printed; what is on the stage is held to the reference
// renderer. Numbers of frames, dividers and crops: common practice, no source.
import { chromium, type Page } from '@playwright/test'
import sharp from 'sharp'
import type { Picture } from '../../core/picture/picture.ts'
import { BARE_SCENE, newMicrophone, NOBODY } from '../../core/show/create.ts'
import { USUAL_STYLE } from '../../core/show/style.ts'
import { USUAL_TRANSITIONS } from '../../core/show/show-transitions.ts'
import type { Layer, Scene, Show } from '../../core/show/show.ts'
import { CHROMIUM, CHROMIUM_FLAGS } from '../support/chromium.ts'
import { apart, referenceScene, type GivenPictures } from '../support/reference-scene.ts'
import type { TestServer } from '../support/test-server.ts'
import { Hand } from './hand.ts'
import { CALM_RATE, expect, setNumber, test } from './studio.ts'

const FULL_HD = { widthPx: 1920, heightPx: 1080, frameRate: CALM_RATE }

/** A show with nothing in it but empty scenes. */
function emptyShow(names: readonly string[], canvas: Show['canvas'] = { widthPx: 1280, heightPx: 720, frameRate: CALM_RATE }): Show {
  return {
    format: 'green-room-show',
    version: 10,
    name: 'Empty',
    canvas,
    inputs: [],
    contents: [],
    scenes: names.map((name, i) => ({ ...BARE_SCENE, id: `scene-${i + 1}`, name, layers: [] })),
    presenter: NOBODY,
    style: USUAL_STYLE,
    transitions: USUAL_TRANSITIONS,
    favourites: [],
    microphone: newMicrophone({ type: 'none' }),
    holdingCard: { title: 'Back in a moment', detail: '' },
  }
}

async function openEmpty(page: Page, server: TestServer, show = emptyShow(['Scene 1'])): Promise<void> {
  await server.shows.create(show, 'empty')
  await page.goto(`${server.studioUrl}/show/empty/build`)
  await expect(page.getByText('This scene is empty')).toBeVisible()
}

/** What is saved once the studio says so. */
async function saved(page: Page, server: TestServer, id = 'empty'): Promise<Show> {
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  return (await server.shows.get(id)).show
}

const layerNamed = ({ layers }: Scene, name: string | RegExp): Layer =>
  layers.find((layer) => (typeof name === 'string' ? layer.name === name : name.test(layer.name)))!

const SMALL = { widthPx: 320, heightPx: 180 }

/** The stage as it is now, small, and when that was. */
async function stagePicture(page: Page): Promise<{ readonly data: Uint8Array; readonly timeMs: number }> {
  const { text, timeMs } = await page.evaluate(({ widthPx, heightPx }) => {
    const stage = document.querySelector<HTMLCanvasElement>('[data-testid="stage"] canvas')!
    const copy = document.createElement('canvas')
    copy.width = widthPx
    copy.height = heightPx
    const pen = copy.getContext('2d')!
    pen.imageSmoothingQuality = 'high'
    pen.drawImage(stage, 0, 0, widthPx, heightPx)
    let letters = ''
    for (const byte of pen.getImageData(0, 0, widthPx, heightPx).data) letters += String.fromCharCode(byte)
    return { text: btoa(letters), timeMs: Date.now() }
  }, SMALL)
  return { data: new Uint8Array(Buffer.from(text, 'base64')), timeMs }
}

/**
 * The stage is what the reference renderer makes of the saved show; cameras are some frames behind the clock. The show is read at each
 * try: a layout is made once more when the picture arrives whose size it did not know.
 */
async function expectAsReference(
  page: Page,
  server: TestServer,
  sceneId = 'scene-1',
  id = 'empty',
  given: () => Promise<GivenPictures> = async () => new Map(),
): Promise<void> {
  await expect
    .poll(
      async () => {
        const show = await saved(page, server, id)
        const pictures = await given()
        const { data, timeMs } = await stagePicture(page)
        let best = { mean: Infinity, beyond: 1 }
        for (const behindMs of [60, 130, 200]) {
          const reference = await referenceScene(show, sceneId, timeMs - behindMs, server.dataDir, SMALL.widthPx / show.canvas.widthPx, pictures)
          const found = apart(data, reference.data as Uint8Array)
          if (found.mean < best.mean) best = found
          if (best.mean < 5 && best.beyond < 0.05) return 'alike'
        }
        return JSON.stringify(best)
      },
      { timeout: 60_000, intervals: [500] },
    )
    .toBe('alike')
}

const layoutButton = (page: Page) => page.getByRole('button', { name: 'Layout', exact: true })
const layout = (page: Page, name: string) => page.getByTestId('layouts').getByRole('button', { name, exact: true })

/** Opens the layouts and brings the stand-in screen as the page. */
async function presentTheScreen(page: Page, hand: Hand): Promise<void> {
  await hand.click(layoutButton(page))
  await hand.click(page.getByRole('button', { name: /^What you show/ }))
  await hand.click(page.getByRole('option', { name: 'Stand-in screen: hive scale' }))
}

/** Drags on the stage, in canvas pixels; `key` is held meanwhile. */
async function drag(page: Page, from: readonly [number, number], to: readonly [number, number], widthPx: number, key?: string): Promise<void> {
  const box = (await page.getByTestId('stage').boundingBox())!
  const zoom = box.width / widthPx
  if (key !== undefined) await page.keyboard.down(key)
  await page.mouse.move(box.x + from[0] * zoom, box.y + from[1] * zoom)
  await page.mouse.down()
  await page.mouse.move(box.x + (from[0] + to[0]) * 0.5 * zoom, box.y + (from[1] + to[1]) * 0.5 * zoom, { steps: 4 })
  await page.mouse.move(box.x + to[0] * zoom, box.y + to[1] * zoom, { steps: 4 })
  await page.mouse.up()
  if (key !== undefined) await page.keyboard.up(key)
}

test('(a) a third and two thirds with a divider: 640 px off each side on 1920, a divider of 30 px, in at most 6 actions', async ({ page, server }) => {
  const hand = new Hand()
  await openEmpty(page, server, emptyShow(['Scene 1'], FULL_HD))
  await presentTheScreen(page, hand)
  await hand.click(layout(page, 'One third, two thirds'))
  hand.tell('(a) third with divider', 6)
  const [scene] = (await saved(page, server)).scenes
  const camera = layerNamed(scene!, 'Camera')
  expect(camera.placement).toMatchObject({ x: 0, y: 0, width: 640, height: 1080 })
  expect([camera.crop!.left * 1920, camera.crop!.right * 1920].map(Math.round)).toEqual([640, 640])
  expect(layerNamed(scene!, 'Hive scale').placement).toMatchObject({ x: 640, y: 0, width: 1280, height: 1080 })
  expect(layerNamed(scene!, 'Divider').placement).toMatchObject({ x: 625, y: 0, width: 30, height: 1080 })
  await page.keyboard.press('Escape')
  await expectAsReference(page, server)
})

test('(b) over the shoulder, in at most 6 actions', async ({ page, server }) => {
  const hand = new Hand()
  await openEmpty(page, server)
  await presentTheScreen(page, hand)
  await hand.click(layout(page, 'Over the shoulder'))
  hand.tell('(b) over the shoulder', 6)
  const [scene] = (await saved(page, server)).scenes
  expect(scene!.layers.map(({ name }) => name)).toEqual(['Camera', 'Hive scale'])
  const { x, width } = layerNamed(scene!, 'Hive scale').placement
  expect(width).toBeGreaterThan(250)
  expect(x).toBeGreaterThan(640)
  await page.keyboard.press('Escape')
  await expectAsReference(page, server)
})

test('(c) two frames of one style: border 4, corner 30, a shadow, in at most 10 actions', async ({ page, server }) => {
  const hand = new Hand()
  await openEmpty(page, server, emptyShow(['Scene 1'], FULL_HD))
  await presentTheScreen(page, hand)
  await hand.click(layout(page, 'Two frames'))
  hand.tell('(c) two frames of one style', 10)
  const [scene] = (await saved(page, server)).scenes
  const frames = [layerNamed(scene!, 'Camera').frame, layerNamed(scene!, 'Hive scale').frame]
  expect(frames[0]).toEqual(frames[1])
  expect(frames[0]).toMatchObject({ cornerRadiusPx: 30, border: { widthPx: 4 } })
  expect(frames[0]!.shadow).not.toBeNull()
  await page.keyboard.press('Escape')
  await expectAsReference(page, server)
})

test('(d) a logo in all scenes, moved once for all, in at most 5 actions', async ({ page, server }) => {
  const hand = new Hand()
  await openEmpty(page, server, emptyShow(['Welcome', 'Slides', 'Table', 'Goodbye']))
  const buffer = await sharp({ create: { width: 200, height: 160, channels: 4, background: '#c23b2ecc' } })
    .png()
    .toBuffer()
  await hand.drop(page, [{ name: 'Logo.png', mimeType: 'image/png', buffer }])
  const pane = page.getByRole('button', { name: /^Logo, Picture/ })
  await expect(pane).toBeVisible()
  const stage = (await page.getByTestId('stage').boundingBox())!
  const zoom = stage.width / 1280
  hand.actions += 1
  await page.mouse.click(stage.x + 1150 * zoom, stage.y + 90 * zoom, { button: 'right' })
  await hand.click(page.getByRole('menuitem', { name: 'Add to all scenes' }))
  await expect(page.getByText('Logo added to 3 scenes')).toBeVisible()
  hand.actions += 1
  await drag(page, [1150, 90], [170, 600], 1280)
  await hand.click(page.getByRole('button', { name: 'Move it there too' }))
  hand.tell('(d) logo in all scenes, moved once for all', 5)
  const { scenes } = await saved(page, server)
  const places = scenes.map((scene) => layerNamed(scene, 'Logo').placement)
  expect(places[0]!.x).toBeLessThan(200)
  for (const place of places) expect(place).toEqual(places[0])
  await expectAsReference(page, server)
})

test('(e) inside the page before a white wall, in at most 6 actions', async ({ page, server }) => {
  const hand = new Hand()
  await openEmpty(page, server)
  await hand.click(layoutButton(page))
  await hand.click(page.getByRole('button', { name: /^Presenter / }))
  await hand.click(page.getByRole('option', { name: 'White wall' }))
  await hand.click(page.getByRole('button', { name: /^What you show/ }))
  await hand.click(page.getByRole('option', { name: 'Stand-in screen: hive scale' }))
  await hand.click(layout(page, 'Inside the page'))
  hand.tell('(e) inside the page', 6)
  const [scene] = (await saved(page, server)).scenes
  expect(scene!.layers.map(({ name, part, blend }) => [name, part, blend])).toEqual([
    ['Hive scale', null, 'normal'],
    ['Camera', null, 'normal'],
    ['Hive scale, ink', 'ink', 'multiply'],
  ])
  expect(layerNamed(scene!, 'Camera').treatment.map(({ kind }) => kind)).toEqual(['lumaKey'])
  await page.keyboard.press('Escape')
  await expectAsReference(page, server)
  // Whoever has another wall is told where to go.
  await page.locator('[data-layer="Hive scale"] button').click()
  const inspector = page.getByRole('complementary', { name: 'Selected layer' })
  await expect(inspector.getByText('This assumes a white wall behind you')).toBeVisible()
  await inspector.getByText('This assumes a white wall').getByRole('link', { name: 'Open in Bench' }).click()
  await expect(page).toHaveURL(/bench/)
})

test('(f) five scenes by duplicate and change, in at most 20 actions', async ({ page, server }) => {
  const hand = new Hand()
  await openEmpty(page, server)
  await presentTheScreen(page, hand)
  await hand.click(layout(page, 'Only you'))
  const names = ['One third, two thirds', 'Over the shoulder', 'Bottom corner', 'Inside the page']
  for (const [i, name] of names.entries()) {
    await hand.click(page.getByRole('button', { name: /^More for / }).nth(i))
    await hand.click(page.getByRole('menuitem', { name: 'Duplicate' }))
    await hand.click(layoutButton(page))
    await hand.click(layout(page, name))
  }
  hand.tell('(f) five scenes by duplicate and change', 20)
  const { scenes, inputs } = await saved(page, server)
  expect(scenes).toHaveLength(5)
  expect(inputs).toHaveLength(2)
  const looks = scenes.map(({ layers }) => JSON.stringify(layers.filter(({ visible }) => visible).map(({ placement }) => placement)))
  expect(new Set(looks).size).toBeGreaterThanOrEqual(4)
  await page.keyboard.press('Escape')
  await expectAsReference(page, server, scenes[4]!.id)
})

test('(g) a table of four cameras, in at most 7 actions', async ({ page, server }) => {
  const hand = new Hand()
  await openEmpty(page, server)
  await hand.click(layoutButton(page))
  await hand.click(page.getByRole('button', { name: /^Presenter / }))
  for (const name of ['Presenter, green cloth', 'White wall', 'Untidy room', 'Table from above']) {
    await hand.click(page.getByRole('option', { name, exact: true }))
  }
  await hand.click(layout(page, 'Round table'))
  hand.tell('(g) table of four', 7)
  const [scene] = (await saved(page, server)).scenes
  const cameras = scene!.layers.filter(({ visible }) => visible)
  expect(cameras).toHaveLength(4)
  expect(new Set(cameras.map(({ placement: { width, height } }) => `${width}×${height}`)).size).toBe(1)
  await page.keyboard.press('Escape')
  await expectAsReference(page, server)
})

test('(h) a looping background with the presenter in a soft square, border 13 at 70 %, in at most 9 actions', async ({ page, server }) => {
  const hand = new Hand()
  await openEmpty(page, server)
  const { readFileSync } = await import('node:fs')
  const clip = readFileSync(new URL('../fixtures/clips/h264-bframes.mp4', import.meta.url))
  await hand.drop(page, [{ name: 'Loop.mp4', mimeType: 'video/mp4', buffer: clip }])
  await expect(page.getByTestId('clip-place')).toBeVisible()
  await hand.click(layoutButton(page))
  await hand.click(layout(page, 'Bottom corner'))
  await page.keyboard.press('Escape')
  await hand.click(page.getByRole('radio', { name: 'Soft square' }))
  hand.actions += 1
  await setNumber(page, 'Border width', '13')
  hand.actions += 1
  await setNumber(page, 'Border opacity', '70')
  hand.tell('(h) looping background, soft square', 9)
  const show = await saved(page, server)
  const camera = layerNamed(show.scenes[0]!, 'Camera')
  expect(camera.frame).toMatchObject({ form: 'softSquare', border: { widthPx: 13, opacity: 0.7 } })
  expect(show.inputs.find(({ kind }) => kind === 'clip')).toMatchObject({ loops: true })
  const loop = show.inputs.find(({ kind }) => kind === 'clip')!
  expect(show.scenes[0]!.layers[0]).toMatchObject({ inputId: loop.id, placement: { x: 0, y: 0, width: 1280, height: 720, fit: 'fill' } })
  // A moving clip is another picture each time: it is held still for the comparison. Its pane may be a moment behind.
  await page.getByRole('button', { name: /^Loop, Clip/ }).click()
  await setNumber(page, 'To', '0.1')
  await page.getByRole('button', { name: 'Restart' }).click()
  await page.getByRole('button', { name: 'Pause', exact: true }).click()
  await expectAsReference(page, server, 'scene-1', 'empty', async () => new Map([[loop.id, await paneOf(page, 'Loop')]]))
})

/** What a layer that fills the canvas shows now, by its pane in the strip. */
async function paneOf(page: Page, layer: string): Promise<Picture> {
  const text = await page.evaluate((name) => {
    const pane = document.querySelector<HTMLCanvasElement>(`[data-layer="${name}"] canvas`)!
    const copy = document.createElement('canvas')
    copy.width = pane.width
    copy.height = pane.height
    const pen = copy.getContext('2d')!
    pen.drawImage(pane, 0, 0)
    let letters = ''
    for (const byte of pen.getImageData(0, 0, pane.width, pane.height).data) letters += String.fromCharCode(byte)
    return { letters: btoa(letters), width: pane.width, height: pane.height }
  }, layer)
  return { format: 'rgba', widthPx: text.width, heightPx: text.height, data: new Uint8Array(Buffer.from(text.letters, 'base64')) }
}

/** What the tab of a film shows. */
function twoColours(widthPx: number, heightPx: number): Picture {
  const data = new Uint8Array(widthPx * heightPx * 4)
  for (let i = 0; i < widthPx * heightPx; i += 1) data.set(i % widthPx < widthPx / 2 ? [0x14, 0x64, 0xc8, 255] : [0xc8, 0x78, 0x14, 255], i * 4)
  return { format: 'rgba', widthPx, heightPx, data }
}

test('(i) watching together: a browser tab beside the presenter with a caption, in at most 9 actions', async ({ server }) => {
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: [...CHROMIUM_FLAGS, '--auto-select-tab-capture-source-by-title=Swarm film'] })
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
    const film = await context.newPage()
    await film.setContent('<title>Swarm film</title><body style="margin:0;background:linear-gradient(90deg,#1464c8 50%,#c87814 50%)"></body>')
    const page = await context.newPage()
    const hand = new Hand()
    await openEmpty(page, server)
    await hand.click(layoutButton(page))
    await hand.click(page.getByRole('button', { name: /^What you show/ }))
    await hand.click(page.getByRole('option', { name: 'Window, tab or screen' }))
    await hand.click(layout(page, 'Half and half'))
    await page.keyboard.press('Escape')
    await hand.click(page.getByRole('button', { name: 'Add text' }))
    await hand.write(page.getByRole('textbox', { name: 'Line 1' }), 'Watching: a swarm moves in')
    hand.tell('(i) watching together', 9)
    const show = await saved(page, server)
    expect(show.scenes[0]!.layers.map(({ name }) => name)).toEqual(['Screen', 'Camera', 'Divider', 'Text'])
    // The tab is on the stage: its two colours, in the half that is not the presenter's.
    await expectAsReference(
      page,
      server,
      'scene-1',
      'empty',
      async () => new Map([[show.inputs.find(({ kind }) => kind === 'screen')!.id, twoColours(1280, 800)]]),
    )
    // Closed, it says so, and offers to share again; the last picture is gone after a moment.
    await film.close()
    await page.getByRole('button', { name: /^Screen, Screen/ }).click()
    const inspector = page.getByRole('complementary', { name: 'Selected layer' })
    await expect(inspector.getByRole('button', { name: 'Share again' })).toBeVisible()
    await expect(inspector.getByText('Sharing has ended')).toBeVisible()
    await expect(page.getByTestId('stage-trouble')).toContainText('Screen: sharing has ended')
  } finally {
    await browser.close()
  }
})

test('(j) cropped here only, unchanged elsewhere, in at most 4 actions', async ({ page, server }) => {
  const hand = new Hand()
  await page.goto(server.studioUrl)
  await expect.poll(() => page.evaluate(() => window.greenRoom?.hasPicture())).toBe(true)
  const before = (await server.shows.get('demo-brood-frame')).show
  await hand.click(
    page
      .getByRole('button', { name: 'Scene 2', exact: false })
      .or(page.getByRole('button', { name: 'Just me', exact: true }))
      .first(),
  )
  await hand.click(page.getByTestId('depth').getByRole('button', { name: /^Desk camera/ }))
  hand.actions += 1
  await drag(page, [1280, 360], [1000, 360], 1280, 'Alt')
  hand.tell('(j) cropped here only', 4)
  const after = await saved(page, server, 'demo-brood-frame')
  const scene = after.scenes[1]!
  const camera = layerNamed(scene, 'Desk camera')
  expect(camera.crop!.right).toBeCloseTo(280 / 1280, 1)
  expect(camera.placement.x).toBe(0)
  expect(camera.placement.width).toBeCloseTo(1000, -1)
  expect(after.inputs).toEqual(before.inputs)
  expect(after.scenes.filter(({ id }) => id !== scene.id)).toEqual(before.scenes.filter(({ id }) => id !== scene.id))
  await expectAsReference(page, server, scene.id, 'demo-brood-frame')
})
