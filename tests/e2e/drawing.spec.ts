// Drawing through the real interface, seen by a meeting: on pages and over scenes, taken back, rubbed out, faded, kept.
import type { Page } from '@playwright/test'
import { isGroup } from '../../core/layers/group.ts'
import { isShape } from '../../core/layers/shape.ts'
import { decksIn, dialogOf, paperAt, paperDeck, putOnAir, SHOW_ID, slidesOnAir } from './slides.ts'
import { colourAt, expect, openStudio, test } from './studio.ts'
import { pdfOf } from '../support/decks.ts'

type Spot = readonly [x: number, y: number]

/** Draws through spots, shares of the stage. */
async function drawThrough(page: Page, ...spots: readonly Spot[]): Promise<void> {
  const { x, y, width, height } = (await page.getByTestId('draw-layer').boundingBox())!
  const [first, ...rest] = spots.map(([across, down]) => [x + across * width, y + down * height] as const)
  await page.mouse.move(...first!)
  await page.mouse.down()
  for (const spot of rest) await page.mouse.move(...spot, { steps: 8 })
  await page.mouse.up()
}

const bar = (page: Page) => page.getByTestId('draw-bar')
const tool = (page: Page, name: string) => bar(page).getByRole('button', { name, exact: true }).click()
/** Red enough to be the fourth colour of the bar, through a codec. */
async function isRed(meeting: Page, x: number, y: number): Promise<boolean> {
  const [red, green, blue] = await colourAt(meeting, x, y)
  return red > 150 && green < 110 && blue < 110
}

/** Opens the pens with a broad red line in hand. */
async function takeRedPen(page: Page): Promise<void> {
  await page.locator('main').press('d')
  await expect(page.getByTestId('draw-layer')).toBeFocused()
  await bar(page).getByRole('button', { name: 'Colour 4, #d9412e' }).click()
  await tool(page, 'Broad')
  await tool(page, 'Line')
}

test('what is drawn on a page turns with it, stays after a reload, and goes back stroke by stroke', async ({ page, server }) => {
  await openStudio(page, server)
  const meeting = await slidesOnAir(page, server, 3, 'Full page')
  await expect.poll(() => paperAt(meeting), { timeout: 30_000 }).toBe(1)
  const before = (await server.shows.get(SHOW_ID)).show
  await takeRedPen(page)
  await drawThrough(page, [0.3, 0.5], [0.7, 0.5])
  await expect.poll(() => isRed(meeting, 640, 360)).toBe(true)
  await drawThrough(page, [0.5, 0.2], [0.5, 0.3])
  await expect.poll(() => isRed(meeting, 640, 180)).toBe(true)
  // Its own page only, and there again where it was.
  await page.keyboard.press('PageDown')
  await expect.poll(() => paperAt(meeting)).toBe(2)
  expect(await isRed(meeting, 640, 360)).toBe(false)
  await page.keyboard.press('PageUp')
  await expect.poll(() => isRed(meeting, 640, 360)).toBe(true)
  expect(await isRed(meeting, 640, 180)).toBe(true)
  // Strokes are no edits: the pen's steps go back first, and the document stays as it was.
  await page.keyboard.press('Control+z')
  await expect.poll(() => isRed(meeting, 640, 180)).toBe(false)
  expect(await isRed(meeting, 640, 360)).toBe(true)
  await page.keyboard.press('Control+Shift+z')
  await expect.poll(() => isRed(meeting, 640, 180)).toBe(true)
  expect((await server.shows.get(SHOW_ID)).show).toEqual(before)
  // Looked at closer, it comes along: twice as wide, and where the page has it.
  await page.keyboard.press('Escape')
  await expect(page.getByTestId('draw-layer')).toBeHidden()
  await page.locator('main').press('z')
  const stage = page.getByTestId('focus-layer')
  const box = (await stage.boundingBox())!
  await stage.click({ position: { x: box.width * 0.5, y: box.height * 0.5 } })
  await expect.poll(() => isRed(meeting, 160, 360)).toBe(true)
  expect(await isRed(meeting, 640, 180)).toBe(false)
  await page.keyboard.press('z')
  await expect.poll(() => isRed(meeting, 640, 180)).toBe(true)
  await page.reload()
  await expect(page.getByTestId('deck-bar')).toContainText('1 / 3')
  await page.locator('main').press('PageDown')
  await expect.poll(() => paperAt(meeting), { timeout: 60_000 }).toBe(2)
  await page.locator('main').press('PageUp')
  await expect.poll(async () => [await isRed(meeting, 640, 360), await isRed(meeting, 640, 180)]).toEqual([true, true])
})

test('a drawing is kept with its page, through an import of the changed file too; over a scene it becomes forms', async ({ page, server }) => {
  await openStudio(page, server)
  const meeting = await slidesOnAir(page, server, 2, 'Over the shoulder')
  await takeRedPen(page)
  // The page lies on the left over the shoulder; the presenter is beside it.
  await drawThrough(page, [0.12, 0.45], [0.3, 0.45])
  await drawThrough(page, [0.6, 0.15], [0.8, 0.15])
  await expect.poll(async () => [await isRed(meeting, 250, 324), await isRed(meeting, 900, 108)]).toEqual([true, true])
  await page.getByRole('button', { name: 'Keep this drawing in the show' }).click()
  await expect.poll(async () => (await decksIn(server))[0]!.pages.map(({ strokes }) => strokes.length)).toEqual([1, 0])
  const scenes = (await server.shows.get(SHOW_ID)).show.scenes
  const drawn = scenes.flatMap(({ layers }) => layers).find(({ name }) => name === 'Drawing')
  expect(isShape(drawn) || isGroup(drawn)).toBe(true)
  await expect.poll(async () => [await isRed(meeting, 250, 324), await isRed(meeting, 900, 108)]).toEqual([true, true])
  await expect(bar(page).getByRole('button', { name: 'Clear what is drawn' })).toBeDisabled()
  // One step of undo takes all of it back.
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await decksIn(server))[0]!.pages[0]!.strokes.length).toBe(0)
  await expect.poll(async () => [await isRed(meeting, 250, 324), await isRed(meeting, 900, 108)]).toEqual([false, false])
  await page.keyboard.press('Control+Shift+z')
  await expect.poll(() => isRed(meeting, 250, 324)).toBe(true)
  await page.keyboard.press('Escape')

  await page.locator('[data-layer="papers"]').click()
  await expect(page.getByTestId('kept-drawing')).toContainText('1 stroke is kept on this page')
  const choosing = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Update', exact: true }).click()
  const [one, two] = paperDeck(2)
  const changed = await pdfOf([{ ...one!, words: ['Also look for wax moth'] }, two!])
  await (await choosing).setFiles({ name: 'papers.pdf', mimeType: 'application/pdf', buffer: changed })
  await expect(dialogOf(page).getByText('Changed: 1')).toBeVisible({ timeout: 60_000 })
  await dialogOf(page).getByRole('button', { name: 'Replace pages' }).click()
  await expect(dialogOf(page)).toBeHidden()
  await expect.poll(async () => (await decksIn(server))[0]!.pages.map(({ strokes }) => strokes.length)).toEqual([1, 0])
  expect(await isRed(meeting, 250, 324)).toBe(true)
  await page.getByRole('button', { name: 'Remove the drawing of this page' }).click()
  await expect.poll(() => isRed(meeting, 250, 324)).toBe(false)
})

test('strokes fade when asked to, are rubbed out one by one, cleared at once, and drawn by keys alone', async ({ page, server }) => {
  await openStudio(page, server)
  const meeting = await slidesOnAir(page, server, 2, 'Full page')
  await expect.poll(() => paperAt(meeting), { timeout: 30_000 }).toBe(1)
  await takeRedPen(page)
  await tool(page, 'Fade strokes after 4 seconds')
  await drawThrough(page, [0.3, 0.5], [0.7, 0.5])
  await expect.poll(() => isRed(meeting, 640, 360)).toBe(true)
  await expect.poll(() => paperAt(meeting, 640, 360), { timeout: 15_000 }).toBe(1)
  await expect(bar(page).getByRole('button', { name: 'Take back the last stroke' })).toBeDisabled()
  await tool(page, 'Fade strokes after 4 seconds')

  await drawThrough(page, [0.3, 0.4], [0.7, 0.4])
  await drawThrough(page, [0.3, 0.6], [0.7, 0.6])
  await expect.poll(async () => [await isRed(meeting, 640, 288), await isRed(meeting, 640, 432)]).toEqual([true, true])
  await tool(page, 'Eraser')
  await drawThrough(page, [0.5, 0.35], [0.5, 0.45])
  await expect.poll(async () => [await isRed(meeting, 640, 288), await isRed(meeting, 640, 432)]).toEqual([false, true])
  await page.keyboard.press('Control+z')
  await expect.poll(() => isRed(meeting, 640, 288)).toBe(true)
  await tool(page, 'Clear what is drawn')
  await expect.poll(async () => [await isRed(meeting, 640, 288), await isRed(meeting, 640, 432)]).toEqual([false, false])

  // By keys: the pen goes down in the middle and ten steps to the right.
  await tool(page, 'Line')
  await page.getByTestId('draw-layer').focus()
  await page.keyboard.press('Space')
  for (let step = 0; step < 10; step += 1) await page.keyboard.press('ArrowRight')
  // Given up, nothing is left of it.
  await expect.poll(() => isRed(meeting, 704, 360)).toBe(true)
  await page.keyboard.press('Escape')
  await expect.poll(() => isRed(meeting, 704, 360)).toBe(false)
  await page.keyboard.press('Space')
  for (let step = 0; step < 5; step += 1) await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('Space')
  await expect.poll(() => isRed(meeting, 832, 360)).toBe(true)
  await page.keyboard.press('Escape')
  await expect(page.getByTestId('draw-layer')).toBeHidden()
  await expect.poll(() => isRed(meeting, 832, 360)).toBe(true)
})

test('a dot and a light follow the hand on air alone; a page is asked for by its number', async ({ page, server }) => {
  await openStudio(page, server)
  const meeting = await slidesOnAir(page, server, 6, 'Full page')
  await expect.poll(() => paperAt(meeting), { timeout: 30_000 }).toBe(1)
  await page.locator('main').press('d')
  await tool(page, 'Pointer dot')
  const { x, y, width, height } = (await page.getByTestId('draw-layer').boundingBox())!
  await page.mouse.move(x + width * 0.3, y + height * 0.4)
  await page.mouse.move(x + width * 0.5, y + height * 0.5, { steps: 4 })
  await expect.poll(() => isRed(meeting, 640, 360)).toBe(true)
  await page.mouse.move(x + width * 0.5, y - 30)
  await expect.poll(() => isRed(meeting, 640, 360)).toBe(false)
  await tool(page, 'Spotlight')
  await page.mouse.move(x + width * 0.5, y + height * 0.5, { steps: 4 })
  // Dark at the corner, as before in the middle.
  await expect.poll(async () => (await colourAt(meeting, 1240, 40))[0]).toBeLessThan(110)
  await expect.poll(() => paperAt(meeting, 640, 360)).toBe(1)
  await page.keyboard.press('Escape')
  await expect.poll(() => paperAt(meeting)).toBe(1)

  await page.locator('main').press('j')
  const asked = page.getByRole('textbox', { name: 'Page, 1 to 6' })
  await expect(asked).toBeFocused()
  await asked.fill('9')
  await asked.press('Enter')
  await expect(page.getByText('There is no page 9. Type a number from 1 to 6.')).toBeVisible()
  await asked.fill('4')
  await asked.press('Enter')
  await expect.poll(() => paperAt(meeting)).toBe(4)
  await expect(page.getByTestId('deck-bar')).toContainText('4 / 6')
})

test('a white board is sheets to draw on: another is added, and each keeps its own', async ({ page, server }) => {
  await openStudio(page, server)
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await page.getByRole('option', { name: /^White board/ }).click()
  await expect(page.getByTestId('draw-layer')).toBeVisible()
  await page.getByRole('button', { name: 'Stop drawing' }).click()
  const meeting = await putOnAir(page, server)
  await page.bringToFront()
  await takeRedPen(page)
  const stage = (await page.getByTestId('draw-layer').boundingBox())!
  const board = (await decksIn(server))[0]!
  // It fills the picture behind the presenter, who stands in the middle.
  const [middleX, middleY] = [200, 220]
  expect([board.fileName, board.pages.length, stage.width > 0]).toEqual([null, 3, true])
  await drawThrough(page, [(middleX - 100) / 1280, middleY / 720], [(middleX + 100) / 1280, middleY / 720])
  await expect.poll(() => isRed(meeting, middleX, middleY), { timeout: 30_000 }).toBe(true)
  await page.keyboard.press('Escape')
  await page.locator('[data-layer="White board"]').click()
  await page.getByRole('button', { name: 'Add a sheet' }).click()
  await expect(page.getByTestId('deck-bar')).toContainText('4 / 4')
  await expect.poll(() => isRed(meeting, middleX, middleY)).toBe(false)
  await page.getByRole('button', { name: /^Page 1:/ }).click()
  await expect.poll(() => isRed(meeting, middleX, middleY)).toBe(true)
})
