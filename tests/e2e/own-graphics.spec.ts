// Graphics of one's own: with a photo that can be left out, saved for any show, drawn from nothing, shown linked or as a copy; and moving
// backgrounds that follow the colours. Through the real interface; pixels at the meeting or on the stage.
import type { Page } from '@playwright/test'
import sharp from 'sharp'
import { newShow } from '../../core/show/create.ts'
import { isSceneLayer } from '../../core/layers/scene.ts'
import type { TestServer } from '../support/test-server.ts'
import { colourAt, expect, joinMeeting, openStudio, test } from './studio.ts'

type Rgb = readonly [number, number, number]
const SHOW_ID = 'demo-brood-frame'
const PANEL: Rgb = [0xf6, 0xf2, 0xe7]
const PURPLE: Rgb = [0x7a, 0x1f, 0x5c]
const NEAR = 14

const isNear = (one: Rgb, other: Rgb) => one.every((value, i) => Math.abs(value - other[i]!) <= NEAR)
const gets = (meeting: Page, x: number, y: number, colour: Rgb) =>
  expect.poll(async () => isNear(await colourAt(meeting, x, y), colour), { timeout: 20_000, message: `${colour.join()} at ${x}, ${y}` }).toBe(true)

/** A picture of one colour; purple, which video coding changes little. */
const portrait = async () => ({
  name: 'ana.png',
  mimeType: 'image/png',
  buffer: await sharp({ create: { width: 90, height: 120, channels: 3, background: '#7a1f5c' } })
    .png()
    .toBuffer(),
})
const openGallery = (page: Page) => page.getByRole('button', { name: 'Add a graphic' }).click()
const tile = (page: Page, name: string) => page.getByTestId('graphic-gallery').getByRole('button', { name, exact: true })
const menuOf = (page: Page, name: string) => page.locator('aside').getByRole('button', { name: `More for ${name}` })

async function addPortraitStrip(page: Page): Promise<void> {
  await openGallery(page)
  const asked = page.waitForEvent('filechooser')
  await tile(page, 'Name strip with photo').click()
  await (await asked).setFiles(await portrait())
  await expect(page.getByRole('switch', { name: 'Photo', exact: true })).toBeChecked()
}

test('a name strip shows a photo; without it the strip closes the gap, on air too, and undo opens it again', async ({ page, server }) => {
  await openStudio(page, server)
  await page.getByRole('button', { name: 'Start feed' }).click()
  const meeting = await joinMeeting(page.context(), server)
  await expect.poll(async () => (await colourAt(meeting, 640, 60))[1], { timeout: 30_000 }).toBeGreaterThan(100)
  const behind = await colourAt(meeting, 690, 655)
  await addPortraitStrip(page)
  await page.getByRole('button', { name: 'Show over scenes' }).click()
  // A strip of 680 × 140 in the lower left of the title-safe area, its photo 104 wide at the beginning of its room.
  await gets(meeting, 142, 616, PURPLE)
  await gets(meeting, 690, 655, PANEL)
  await page.getByRole('switch', { name: 'Photo', exact: true }).click()
  await gets(meeting, 690, 655, behind)
  await gets(meeting, 142, 670, PANEL)
  await page.keyboard.press('Control+z')
  await gets(meeting, 142, 616, PURPLE)
  await gets(meeting, 690, 655, PANEL)
  // The next graphic with a photo has the same one, and asks for none.
  await openGallery(page)
  await page.getByRole('radio', { name: 'Card' }).click()
  await tile(page, 'Name strip with photo').click()
  await expect(page.locator('[data-graphic="Name strip with photo 2"]')).toBeVisible()
})

test('a graphic is saved, comes into another show with its picture, and can be deleted and brought back', async ({ page, server }) => {
  let count = 0
  const other = await server.shows.create(newShow('Another evening', { scene: 'One', camera: 'Camera', wall: 'Wall' }, () => `o${(count += 1)}`))
  await openStudio(page, server)
  await addPortraitStrip(page)
  await menuOf(page, 'Name strip with photo').click()
  await page.getByRole('menuitem', { name: 'Save for any show' }).click()
  await expect(page.getByText('Saved “Name strip with photo”.')).toBeVisible()
  // Once more under the same name: the earlier one can be kept.
  await menuOf(page, 'Name strip with photo').click()
  await page.getByRole('menuitem', { name: 'Save for any show' }).click()
  await expect(page.getByText('in place of the earlier one')).toBeVisible()

  await page.goto(`${server.studioUrl}/show/${other.id}/build`)
  await expect.poll(() => page.evaluate(() => window.greenRoom?.hasPicture())).toBe(true)
  await openGallery(page)
  await page.getByRole('radio', { name: 'Yours' }).click()
  const saved = page.locator('[data-saved="Name strip with photo"]')
  await saved.getByRole('button').first().click()
  await expect(page.locator('[data-graphic="Name strip with photo"]')).toBeVisible()
  const inputs = async () => (await server.shows.get(other.id)).show.inputs.map(({ name }) => name)
  await expect.poll(inputs).toContain('ana')
  // A second copy has a name of its own, no key, and the same picture.
  await openGallery(page)
  await page.getByRole('radio', { name: 'Yours' }).click()
  await saved.getByRole('button').first().click()
  await expect(page.locator('[data-graphic="Name strip with photo 2"]')).toBeVisible()
  const graphics = async () => (await server.shows.get(other.id)).show.scenes.filter(({ graphic }) => graphic !== null)
  await expect.poll(async () => (await graphics()).map(({ graphic }) => graphic!.key)).toEqual(['KeyP', null])
  expect((await inputs()).filter((name) => name === 'ana')).toHaveLength(1)

  await openGallery(page)
  await page.getByRole('radio', { name: 'Yours' }).click()
  await page.getByRole('button', { name: 'Delete Name strip with photo from your graphics' }).click()
  await expect(page.getByText('Save a graphic from its menu to use it in any show.')).toBeVisible()
  await page.getByTestId('graphic-gallery').getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(saved).toBeVisible()
})

test('a graphic is drawn from nothing with the tools of scenes, or is one picture over everything', async ({ page, server }) => {
  await openStudio(page, server)
  await openGallery(page)
  await page.getByRole('radio', { name: 'Yours' }).click()
  await page
    .getByTestId('graphic-gallery')
    .getByRole('button', { name: /^Blank/ })
    .click()
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await page.getByRole('option', { name: 'Star' }).click()
  const blank = async () => (await server.shows.get(SHOW_ID)).show.scenes.find(({ name }) => name === 'Blank')?.layers.map(({ kind }) => kind)
  await expect.poll(blank).toEqual(['shape'])

  await openGallery(page)
  await page.getByRole('radio', { name: 'Yours' }).click()
  const asked = page.waitForEvent('filechooser')
  await page
    .getByTestId('graphic-gallery')
    .getByRole('button', { name: /^Picture over everything/ })
    .click()
  // SVG, as a drawing program exports it: a frame with a hole.
  const svg =
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1280 720"><path fill="#7a1f5c" fill-rule="evenodd" d="M0 0H1280V720H0ZM60 60V660H1220V60Z"/></svg>'
  await (await asked).setFiles({ name: 'frame.svg', mimeType: 'image/svg+xml', buffer: Buffer.from(svg) })
  await expect(page.locator('[data-graphic="frame"]')).toBeVisible()
  await page.getByRole('button', { name: 'Start feed' }).click()
  const meeting = await joinMeeting(page.context(), server)
  await expect.poll(async () => (await colourAt(meeting, 640, 80))[1], { timeout: 30_000 }).toBeGreaterThan(100)
  await page.getByRole('button', { name: 'Show over scenes' }).click()
  await gets(meeting, 30, 360, PURPLE)
  await gets(meeting, 640, 700, PURPLE)
  expect(isNear(await colourAt(meeting, 640, 360), PURPLE)).toBe(false)
})

test('a graphic in a scene follows its original, until it is made a copy', async ({ page, server }) => {
  await openStudio(page, server)
  await openGallery(page)
  await tile(page, 'Title').click()
  await page.locator('[data-scene-button]').first().click()
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await page
    .getByRole('option', { name: /^Title/ })
    .last()
    .click()
  await expect(page.getByText('It shows Title and follows every change of it.')).toBeVisible()
  const layers = async () => (await server.shows.get(SHOW_ID)).show.scenes[0]!.layers
  await expect.poll(async () => (await layers()).some(isSceneLayer)).toBe(true)
  await page.getByRole('button', { name: 'Make this a separate copy' }).click()
  await expect.poll(async () => (await layers()).map(({ kind }) => kind)).toContain('group')
  await page.keyboard.press('Control+z')
  await page.getByRole('button', { name: 'Open it' }).click()
  await expect(page.getByRole('textbox', { name: /^Heading, line 1/ })).toBeVisible()
})

test('a moving background is drawn anew when the colours change, and again when that is undone', async ({ page, server }) => {
  await openStudio(page, server)
  await page.getByRole('button', { name: 'Choose a background' }).click()
  const gallery = page.getByTestId('background-gallery')
  await gallery.getByRole('button', { name: 'Tide' }).click()
  await expect(gallery).toBeHidden({ timeout: 60_000 })
  const asset = async () => (await movingOf(server))?.asset
  await expect.poll(asset).toMatch(/^[0-9a-f]{64}$/)
  const before = await asset()
  await openGallery(page)
  await page.getByRole('button', { name: 'Plum' }).click()
  await page.keyboard.press('Escape')
  await expect.poll(async () => (await asset()) !== before, { timeout: 60_000 }).toBe(true)
  // One step back takes the colours back, and the background follows.
  await page.keyboard.press('Control+z')
  await expect.poll(asset, { timeout: 60_000 }).toBe(before)
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await server.shows.get(SHOW_ID)).show.scenes[0]!.layers.some(({ part }) => part === 'background')).toBe(false)
})

async function movingOf(server: TestServer) {
  const { inputs } = (await server.shows.get(SHOW_ID)).show
  return inputs.flatMap((input) => (input.kind === 'clip' && input.moving === 'tide' ? [input] : []))[0]
}
