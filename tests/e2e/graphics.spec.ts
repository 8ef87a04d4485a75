// Graphics over whatever is on air: chosen, filled in and shown with few actions, by keys, and seen at the meeting.
import type { Page } from '@playwright/test'
import { makeGraphic, type GraphicPreset } from '../../core/graphics/make-graphic.ts'
import { addContents } from '../../core/show/contents.ts'
import { addScene } from '../../core/show/edits.ts'
import { graphicWordsForTests } from '../support/graphic-words.ts'
import type { TestServer } from '../support/test-server.ts'
import { Hand } from './hand.ts'
import { colourAt, expect, joinMeeting, openStudio, test } from './studio.ts'

type Rgb = readonly [number, number, number]
const PANEL: Rgb = [0xf6, 0xf2, 0xe7]
const ACCENT: Rgb = [0x1e, 0x5b, 0x47]
/** Video coding and 4:2:0 change plain areas by a few codes. */
const NEAR = 14

const isNear = (one: Rgb, other: Rgb) => one.every((value, i) => Math.abs(value - other[i]!) <= NEAR)
const gets = (meeting: Page, x: number, y: number, colour: Rgb, timeout = 15_000) =>
  expect.poll(async () => isNear(await colourAt(meeting, x, y), colour), { timeout, message: `${colour.join()} at ${x}, ${y}` }).toBe(true)

async function onAir(page: Page, server: TestServer): Promise<Page> {
  await openStudio(page, server)
  await page.getByRole('button', { name: 'Start feed' }).click()
  const meeting = await joinMeeting(page.context(), server)
  // The wall of the demo is there.
  await expect.poll(async () => (await colourAt(meeting, 640, 60))[1], { timeout: 30_000 }).toBeGreaterThan(100)
  return meeting
}

/** The demo with graphics that have keys; each of a single colour where it is looked at. */
async function withGraphics(server: TestServer, presets: readonly (GraphicPreset & { readonly key: string })[]): Promise<void> {
  const { id, revision, show } = await server.shows.get('demo-brood-frame')
  let count = 0
  const next = presets.reduce((current, preset) => {
    const { graphic, contents } = makeGraphic(preset, graphicWordsForTests, show.canvas, () => `graphic-${(count += 1)}`)
    return addContents(addScene(current, { ...graphic, graphic: { key: preset.key } }), contents)
  }, show)
  await server.shows.save(id, revision, next)
}

const tile = (page: Page, name: string) => page.getByTestId('graphic-gallery').getByRole('button', { name, exact: true })

test('a name strip with one’s own name is on air in at most 5 actions, and one key hides it', async ({ page, server }) => {
  const meeting = await onAir(page, server)
  const before = await colourAt(meeting, 600, 655)
  const hand = new Hand()
  await hand.click(page.getByRole('button', { name: 'Add a graphic' }))
  await hand.click(tile(page, 'Name strip'))
  await hand.write(page.getByRole('textbox', { name: 'Your name' }), 'Ana Kovač')
  await hand.click(page.getByRole('button', { name: 'Show over scenes' }))
  // The plate of a strip of 560 × 116 in the lower left of the title-safe area: its end has no words.
  await gets(meeting, 600, 655, PANEL)
  hand.tell('name strip with own name on air', 5)
  // The name is there: dark letters on the plate.
  const darkest = async () => {
    const colours = await Promise.all(Array.from({ length: 40 }, (_, i) => colourAt(meeting, 94 + i * 4, 628)))
    return Math.min(...colours.map(([red]) => red))
  }
  await expect.poll(darkest).toBeLessThan(130)

  // It stays over the next scene, until it is hidden.
  await page.locator('main').press('2')
  await expect(page.getByTestId('on-air-sign')).toContainText('Just me')
  await gets(meeting, 600, 655, PANEL)
  await page.locator('main').press('1')
  await page.locator('main').press('h')
  await gets(meeting, 600, 655, before)
  await expect(page.getByRole('button', { name: 'Show over scenes' })).toBeVisible()
})

test('an agenda slides in on a banner that lets a fifth of the picture through, in at most 8 actions', async ({ page, server }) => {
  const meeting = await onAir(page, server)
  const before = await colourAt(meeting, 1150, 640)
  const hand = new Hand()
  await hand.click(page.getByRole('button', { name: 'Add a graphic' }))
  await hand.click(page.getByRole('radio', { name: 'Block' }))
  await hand.click(tile(page, 'Agenda'))
  await hand.write(page.getByRole('textbox', { name: 'Heading' }), 'Tonight')
  await hand.write(page.getByRole('textbox', { name: 'Point 1' }), 'What a healthy frame shows')
  await hand.write(page.getByRole('textbox', { name: 'Point 2' }), 'Eggs, larvae, sealed brood')
  await hand.click(page.getByRole('button', { name: 'Show over scenes' }))
  // Source over (W3C Compositing and Blending Level 1): 0.8 of the accent and 0.2 of what was there.
  await gets(meeting, 1150, 640, ACCENT.map((value, i) => Math.round(0.8 * value + 0.2 * before[i]!)) as unknown as Rgb)
  hand.tell('agenda on a banner', 8)
})

test('title, border and nothing again, by keys alone; a reload of the studio brings back what was shown', async ({ page, server }) => {
  await withGraphics(server, [
    { kind: 'title', family: 'ruled', key: 'KeyT' },
    { kind: 'border', family: 'card', key: 'KeyB' },
  ])
  const meeting = await onAir(page, server)
  const title: [number, number] = [200, 440]
  const border: [number, number] = [640, 8]
  const [underTitle, underBorder] = [await colourAt(meeting, ...title), await colourAt(meeting, ...border)]
  await page.locator('main').press('t')
  await gets(meeting, ...title, PANEL)
  await page.locator('main').press('b')
  await gets(meeting, ...border, ACCENT)
  await page.reload()
  await expect(page.getByTestId('on-air-sign')).toContainText('Welcome')
  await gets(meeting, ...title, PANEL, 40_000)
  await gets(meeting, ...border, ACCENT)
  await page.locator('main').press('h')
  await gets(meeting, ...title, underTitle)
  await gets(meeting, ...border, underBorder)
})

test('one change of the accent is seen in every graphic on air', async ({ page, server }) => {
  await withGraphics(server, [
    { kind: 'title', family: 'block', key: 'KeyT' },
    { kind: 'border', family: 'card', key: 'KeyB' },
  ])
  const meeting = await onAir(page, server)
  await page.locator('main').press('t')
  await page.locator('main').press('b')
  await gets(meeting, 640, 8, ACCENT)
  const hand = new Hand()
  await hand.click(page.getByRole('button', { name: 'Add a graphic' }))
  await hand.write(page.getByRole('textbox', { name: 'Accent, code', exact: true }), '#7a1f5c')
  await page.keyboard.press('Enter')
  const purple: Rgb = [0x7a, 0x1f, 0x5c]
  await gets(meeting, 640, 8, purple)
  await gets(meeting, 200, 440, purple)
  hand.tell('all graphics in another colour', 4)
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
  await gets(meeting, 640, 8, ACCENT)
})

test('a graphic that is deleted leaves the picture; a key that is taken is refused by name', async ({ page, server }) => {
  await withGraphics(server, [
    { kind: 'title', family: 'ruled', key: 'KeyT' },
    { kind: 'caption', family: 'ruled', key: 'KeyC' },
  ])
  const meeting = await onAir(page, server)
  const under = await colourAt(meeting, 200, 440)
  await page.locator('main').press('t')
  await gets(meeting, 200, 440, PANEL)
  await page.locator('[data-graphic="Title"] button').first().click()
  await page.getByTestId('graphic-key').click()
  await page.keyboard.press('m')
  await expect(page.getByText('M is used by “Mute or unmute”')).toBeVisible()
  await page.keyboard.press('c')
  await expect(page.getByText('C is used by “Caption”')).toBeVisible()
  await page.keyboard.press('g')
  await expect(page.locator('[data-graphic="Title"]')).toContainText('G')
  // Nor does a command take the key of a graphic.
  await page.keyboard.press('?')
  await page.getByRole('button', { name: 'Change the key for Mute or unmute' }).click()
  await page.keyboard.press('c')
  await expect(page.getByText('C is used by “Caption”')).toBeVisible()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Delete graphic' }).click()
  await gets(meeting, 200, 440, under)
  await expect(page.locator('[data-graphic="Title"]')).toHaveCount(0)
  // Undo brings it back to the list, and not to the audience.
  await page.keyboard.press('Control+z')
  await expect(page.locator('[data-graphic="Title"]')).toHaveCount(1)
  expect(isNear(await colourAt(meeting, 200, 440), under)).toBe(true)
})

/** The colour of the stage at a point of the picture. */
const stageAt = (page: Page, x: number, y: number) =>
  page.evaluate(
    ([atX, atY]) => {
      const pen = new OffscreenCanvas(1280, 720).getContext('2d', { willReadFrequently: true })!
      pen.drawImage(document.querySelector<HTMLCanvasElement>('[data-testid="stage"] canvas')!, 0, 0, 1280, 720)
      return [...pen.getImageData(atX!, atY!, 1, 1).data.slice(0, 3)] as unknown as [number, number, number]
    },
    [x, y],
  )

test('how a layer comes in is chosen in the inspector and plays on the stage at once', async ({ page, server }) => {
  await openStudio(page, server)
  await page.locator('[data-layer="Class title"]').click()
  // The plate of the title, 0.96 of the accent over the wall.
  const isThere = async () => isNear(await stageAt(page, 560, 655), ACCENT)
  await expect.poll(isThere).toBe(true)
  await page.getByRole('button', { name: /^Comes in/ }).click()
  await page.getByRole('option', { name: 'Slide' }).click()
  // Slowly enough to be seen on its way, on any machine.
  await page.getByRole('slider', { name: 'Duration' }).fill('5')
  await expect.poll(isThere).toBe(false)
  await expect.poll(isThere, { timeout: 30_000 }).toBe(true)
  await page.getByRole('button', { name: 'Play how this scene comes in' }).click()
  await expect.poll(isThere).toBe(false)
  await expect
    .poll(async () => (await server.shows.get('demo-brood-frame')).show.scenes[0]!.layers[2]!.entrance)
    .toMatchObject({
      kind: 'slide',
      durationMs: 5000,
      side: 'left',
    })
})

test('a logo in a corner, off and on again by its key, in at most 5 actions', async ({ page, server }) => {
  const meeting = await onAir(page, server)
  // A scene that does not show the mark itself.
  await page.locator('main').press('2')
  await expect(page.getByTestId('on-air-sign')).toContainText('Just me')
  // The middle of a mark of 115 × 115 in the upper right of the title-safe area.
  const at: [number, number] = [1158, 93]
  // The wall, once the mark of the first scene has gone.
  await expect.poll(async () => (await colourAt(meeting, ...at))[0]).toBeGreaterThan(120)
  const before = await colourAt(meeting, ...at)
  const hand = new Hand()
  await hand.click(page.getByRole('button', { name: 'Add a graphic' }))
  await hand.click(tile(page, 'Logo'))
  await expect(page.locator('[data-graphic="Logo"]')).toContainText('L')
  await hand.click(page.getByRole('button', { name: 'Show over scenes' }))
  // The drop of the mark is drawn from #f0c869 to #c8862a.
  const isGold = async () => {
    const [red, green, blue] = await colourAt(meeting, ...at)
    return red > 190 && green > 125 && green < red && blue < 120
  }
  await expect.poll(isGold).toBe(true)
  hand.actions += 1
  await page.locator('main').press('l')
  await gets(meeting, ...at, before)
  hand.actions += 1
  await page.locator('main').press('l')
  await expect.poll(isGold).toBe(true)
  hand.tell('logo in a corner, off and on by key', 5)

  // Another corner, chosen in the form.
  await page.getByRole('radio', { name: 'Bottom left' }).click()
  await gets(meeting, ...at, before)
})

test('colours from a logo that is a file: all graphics on air follow, in at most 4 actions', async ({ page, server }) => {
  await withGraphics(server, [
    { kind: 'title', family: 'block', key: 'KeyT' },
    { kind: 'border', family: 'card', key: 'KeyB' },
  ])
  const meeting = await onAir(page, server)
  await page.locator('main').press('t')
  await page.locator('main').press('b')
  await gets(meeting, 640, 8, ACCENT)
  // A purple disc on a clear ground, with a small grey line under it: purple is the strongest colour, by construction.
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" width="200" height="200"><circle cx="100" cy="90" r="60" fill="#7a1f5c"/><rect x="40" y="170" width="120" height="12" fill="#888"/></svg>'
  const hand = new Hand()
  await hand.click(page.getByRole('button', { name: 'Add a graphic' }))
  await hand.click(page.getByRole('button', { name: 'Colours from a picture' }))
  await hand.chooseFile(page, () => hand.click(page.getByRole('menuitem', { name: 'From a file' })), {
    name: 'club.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(svg),
  })
  const purple: Rgb = [0x7a, 0x1f, 0x5c]
  await gets(meeting, 640, 8, purple)
  await gets(meeting, 200, 440, purple)
  hand.tell('palette from a logo', 4)
  const { show } = await server.shows.get('demo-brood-frame')
  expect(show.inputs.some(({ name }) => name === 'club')).toBe(true)
})

test('a prepared show with one’s own camera and name is on air in at most 8 actions', async ({ page, server }) => {
  await page.goto(`${server.studioUrl}/shows`)
  const hand = new Hand()
  await hand.click(page.getByRole('button', { name: 'New show' }))
  await hand.click(page.getByTestId('new-show').getByText('Class', { exact: true }))
  await hand.write(page.getByRole('textbox', { name: 'Your name' }), 'Ana Kovač')
  await hand.click(page.getByRole('button', { name: /^Camera/ }))
  await hand.click(page.getByRole('option', { name: 'Stand-in: Blue cloth' }))
  await hand.click(page.getByRole('button', { name: 'Create show' }))
  await expect(page).toHaveURL(/build/)
  await hand.click(page.getByRole('button', { name: 'Start feed' }))
  hand.actions += 1
  await page.locator('main').press('n')
  const meeting = await joinMeeting(page.context(), server)
  await expect
    .poll(
      async () => {
        const [red, green, blue] = await colourAt(meeting, 300, 100)
        return blue > red + 40 && blue > green + 20
      },
      { timeout: 40_000, message: 'the blue cloth of the camera that was chosen' },
    )
    .toBe(true)
  await gets(meeting, 600, 655, PANEL)
  hand.tell('prepared show, own camera and name, on air', 8)
  const { show } = await server.shows.get((await server.shows.list())[0]!.id)
  expect(show.presenter.name).toBe('Ana Kovač')
})
