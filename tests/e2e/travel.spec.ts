// Shows that leave as a file and come back, and backgrounds, through the real interface.
import { readFileSync } from 'node:fs'
import { unzipSync } from 'fflate'
import { expect, openStudio, test } from './studio.ts'

const SHOW_ID = 'demo-brood-frame'

test('a show is exported from its menu and imported again, the same; what is no show is refused in words', async ({ page, server }) => {
  await page.goto(`${server.studioUrl}/shows`)
  await page.getByRole('button', { name: 'More for Reading a brood frame' }).click()
  const downloading = page.waitForEvent('download')
  await page.getByRole('menuitem', { name: 'Export' }).click()
  const download = await downloading
  expect(download.suggestedFilename()).toBe('Reading a brood frame.zip')
  const bytes = readFileSync(await download.path())
  expect(Object.keys(unzipSync(bytes))).toContain('show.json')

  const importFile = async (buffer: Buffer, name: string) => {
    const choosing = page.waitForEvent('filechooser')
    await page.getByRole('button', { name: 'Import show' }).click()
    await (await choosing).setFiles({ name, mimeType: 'application/zip', buffer })
  }
  await importFile(bytes, 'brood.zip')
  await expect(page.getByText('Reading a brood frame was imported')).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Reading a brood frame' })).toHaveCount(2)
  const [imported] = (await server.shows.list()).filter(({ id, name }) => name === 'Reading a brood frame' && id !== SHOW_ID)
  expect((await server.shows.get(imported!.id)).show).toEqual((await server.shows.get(SHOW_ID)).show)

  const before = (await server.shows.list()).length
  await importFile(Buffer.from('these are not the layers you are looking for'), 'letter.zip')
  await expect(page.getByText(/letter\.zip was not imported\. This file is no zip archive/)).toBeVisible()
  expect((await server.shows.list()).length).toBe(before)
})

test('files that no show uses are looked for when asked', async ({ page, server }) => {
  await page.goto(`${server.studioUrl}/shows`)
  await page.getByRole('button', { name: 'Unused files' }).click()
  await expect(page.getByText('Every file is used by a show or one of its versions.')).toBeVisible()
})

test('a background is chosen, kept as a favourite, swapped by one press and by a command, and undone', async ({ page, server }) => {
  await openStudio(page, server)
  const back = async () => (await server.shows.get(SHOW_ID)).show.scenes[0]!.layers[0]!.name
  await page.getByRole('button', { name: 'Choose a background' }).click()
  const gallery = page.getByTestId('background-gallery')
  await gallery.getByRole('button', { name: 'Add Hills to favourites' }).click()
  await gallery.getByRole('button', { name: 'Add Apiary wall to favourites' }).click()
  await gallery.getByRole('button', { name: 'Arches', exact: true }).click()
  await expect(gallery).toBeHidden()
  await expect.poll(back).toBe('Arches')
  const favourites = page.getByRole('list', { name: 'Favourite backgrounds' })
  await favourites.getByRole('button', { name: 'Hills' }).click()
  await expect.poll(back).toBe('Hills')
  await expect(favourites.getByRole('button', { name: 'Hills' })).toHaveAttribute('aria-pressed', 'true')
  await page.keyboard.press('Control+k')
  await page.keyboard.type('next favourite')
  await page.keyboard.press('Enter')
  await expect.poll(back).toBe('Apiary wall')
  for (const before of ['Hills', 'Arches']) {
    await page.keyboard.press('Control+z')
    await expect.poll(back).toBe(before)
  }
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await server.shows.get(SHOW_ID)).show.scenes[0]!.layers[0]!.part).toBeNull()
})

test('a moving background is drawn in the colours of the show and plays', async ({ page, server }) => {
  await openStudio(page, server)
  await page.getByRole('button', { name: 'Choose a background' }).click()
  await page.getByTestId('background-gallery').getByRole('button', { name: 'Tide' }).click()
  await expect(page.getByTestId('background-gallery')).toBeHidden({ timeout: 60_000 })
  await expect.poll(async () => (await server.shows.get(SHOW_ID)).show.inputs.some(({ kind, name }) => kind === 'clip' && name === 'Tide')).toBe(true)
  // Two moments of the stage differ where nobody stands.
  const column = () =>
    page.evaluate(() => {
      const pen = new OffscreenCanvas(160, 90).getContext('2d', { willReadFrequently: true })!
      pen.drawImage(document.querySelector<HTMLCanvasElement>('[data-testid="stage"] canvas')!, 0, 0, 160, 90)
      return [...pen.getImageData(12, 0, 1, 90).data].join()
    })
  const first = await column()
  await expect.poll(async () => (await column()) !== first, { timeout: 30_000 }).toBe(true)
})
