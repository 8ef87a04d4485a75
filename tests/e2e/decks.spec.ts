// Slides through the real interface: imported, turned on air, imported again. Pages are held against poppler's pdftoppm; decks are made by general packages.
import { readdirSync } from 'node:fs'
import path from 'node:path'
import { degrees, PDFDocument, rgb } from 'pdf-lib'
import sharp from 'sharp'
import { ssim } from 'ssim.js'
import { converted, pdfOf, popplerPages, pptxOf, toldClass, type ToldPage } from '../support/decks.ts'
import { choose, decksIn, dialogOf, paperAt, paperDeck, PAPERS, putOnAir, SHOW_ID } from './slides.ts'
import { expect, openStudio, test } from './studio.ts'

test('slides are imported as a scene and turned on air by keys, by thumbnails and from the window of notes', async ({ page, server }) => {
  await openStudio(page, server)
  const dialog = await choose(page, 'brood.pptx', await pptxOf(paperDeck(6, true)), '')
  await expect(dialog.getByText('6 pages are ready')).toBeVisible({ timeout: 120_000 })
  await dialog.getByRole('button', { name: 'Full page', exact: true }).click()
  await dialog.getByRole('button', { name: 'Add 1 scene' }).click()
  await expect(dialog).toBeHidden()
  await page.getByRole('button', { name: 'Start with this scene' }).click()
  const meeting = await putOnAir(page, server)
  await page.bringToFront()
  await expect.poll(() => paperAt(meeting), { timeout: 30_000 }).toBe(1)
  await page.keyboard.press('PageDown')
  await expect.poll(() => paperAt(meeting)).toBe(2)
  await page.keyboard.press('ArrowRight')
  await expect.poll(() => paperAt(meeting)).toBe(3)
  await expect(page.getByTestId('deck-bar')).toContainText('3 / 6')
  await expect(page.getByTestId('deck-notes')).toHaveText('Note 3')
  await page.keyboard.press('PageUp')
  await expect.poll(() => paperAt(meeting)).toBe(2)

  const opening = page.waitForEvent('popup')
  await page.getByRole('button', { name: 'Open notes in a window' }).click()
  const notes = await opening
  await expect(notes.getByRole('region', { name: 'Notes' })).toHaveText('Note 2')
  await notes.keyboard.press('ArrowRight')
  await notes.keyboard.press(' ')
  await expect.poll(() => paperAt(meeting)).toBe(4)
  await expect(notes.getByRole('region', { name: 'Notes' })).toHaveText('Note 4')
  await notes.close()

  await page.locator('[data-layer="brood"]').click()
  await page.getByRole('button', { name: 'Page 6: Slide 6' }).click()
  await expect.poll(() => paperAt(meeting)).toBe(6)
  // The last page stays, whatever is pressed.
  await page.locator('main').press('PageDown')
  await expect(page.getByTestId('deck-bar')).toContainText('6 / 6')
  // No edit was made of it, and a reload stays at the page.
  expect((await decksIn(server))[0]!.pageId).toBe((await decksIn(server))[0]!.pages[0]!.id)
  await page.reload()
  await expect(page.getByTestId('deck-bar')).toContainText('6 / 6')
  await expect.poll(() => paperAt(meeting), { timeout: 60_000 }).toBe(6)
})

test('a page fills the picture and goes back by one key; a spot is looked at closer, and the audience alone sees it', async ({ page, server }) => {
  await openStudio(page, server)
  // Four quarters, each of another paper.
  const pdf = await pdfOf(paperDeck(2), (sheet) => {
    for (const [index, [x, y]] of (
      [
        [0, 270],
        [480, 270],
        [0, 0],
        [480, 0],
      ] as const
    ).entries()) {
      const [red, green, blue] = [1, 3, 5].map((at) => parseInt(PAPERS[index]!.slice(at, at + 2), 16) / 255)
      sheet.drawRectangle({ x, y, width: 480, height: 270, color: rgb(red!, green!, blue!) })
    }
  })
  const dialog = await choose(page, 'quarters.pdf', pdf)
  await expect(dialog.getByText('2 pages are ready')).toBeVisible({ timeout: 60_000 })
  await dialog.getByRole('button', { name: 'Over the shoulder' }).click()
  await dialog.getByRole('button', { name: 'Add 1 scene' }).click()
  await expect(dialog).toBeHidden()
  await page.getByRole('button', { name: 'Start with this scene' }).click()
  const meeting = await putOnAir(page, server)
  await page.bringToFront()
  const corners = async () => [await paperAt(meeting, 40, 40), await paperAt(meeting), await paperAt(meeting, 40, 680), await paperAt(meeting, 1240, 680)]
  await expect.poll(async () => (await decksIn(server)).length).toBe(1)
  const before = (await server.shows.get(SHOW_ID)).show
  await page.locator('main').press('f')
  await expect.poll(corners).toEqual([1, 2, 3, 4])
  await page.keyboard.press('z')
  const stage = page.getByTestId('focus-layer')
  await stage.click({ position: { x: (await stage.boundingBox())!.width * 0.76, y: (await stage.boundingBox())!.height * 0.24 } })
  await expect.poll(corners).toEqual([2, 2, 2, 2])
  // Pressed again it moves on from what is seen: half way to the left is the left edge of that quarter.
  await stage.click({ position: { x: 4, y: (await stage.boundingBox())!.height * 0.5 } })
  await expect.poll(corners).toEqual([1, 2, 1, 2])
  await page.keyboard.press('z')
  await expect.poll(corners).toEqual([1, 2, 3, 4])
  await page.keyboard.press('f')
  await expect.poll(async () => await paperAt(meeting)).toBeNull()
  expect((await server.shows.get(SHOW_ID)).show).toEqual(before)

  // By keys alone, from the same scene: aimed at the page over the shoulder.
  await page.keyboard.press('z')
  for (let step = 0; step < 7; step += 1) await page.keyboard.press('ArrowLeft')
  for (let step = 0; step < 2; step += 1) await page.keyboard.press('ArrowUp')
  await page.keyboard.press('Enter')
  await expect(page.getByText('2.0 times closer on air')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByTestId('focus-layer')).toBeHidden()
})

test('a layer stays at its page while another follows; a page that is skipped is passed over', async ({ page, server }) => {
  await openStudio(page, server)
  const dialog = await choose(page, 'two.pdf', await pdfOf(paperDeck(4)))
  await expect(dialog.getByText('4 pages are ready')).toBeVisible({ timeout: 60_000 })
  await dialog.getByRole('button', { name: 'Include page 3' }).click()
  await dialog.getByRole('button', { name: 'Full page', exact: true }).click()
  await dialog.getByRole('button', { name: 'Add 1 scene' }).click()
  await expect(dialog).toBeHidden()
  await page.getByRole('button', { name: 'Start with this scene' }).click()
  const meeting = await putOnAir(page, server)
  await page.bringToFront()
  await expect.poll(() => paperAt(meeting), { timeout: 30_000 }).toBe(1)
  await expect(page.getByTestId('deck-bar')).toContainText('1 / 3')
  for (const paper of [2, 4]) {
    await page.keyboard.press('PageDown')
    await expect.poll(() => paperAt(meeting)).toBe(paper)
  }
  await page.locator('[data-layer="two"]').click()
  await page.getByRole('radio', { name: 'Always this page' }).click()
  await page.getByRole('button', { name: 'Page 2: Slide 2' }).click()
  await expect.poll(() => paperAt(meeting)).toBe(2)
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('radio', { name: 'Current page' })).toBeChecked()
  await expect.poll(() => paperAt(meeting)).toBe(4)
})

test('a changed file is imported again: pages that stay keep their places, what changed is said', async ({ page, server }) => {
  await openStudio(page, server)
  const first = await choose(page, 'class.pdf', await pdfOf(paperDeck(4)))
  await expect(first.getByText('4 pages are ready')).toBeVisible({ timeout: 60_000 })
  await first.getByRole('button', { name: 'Include page 4' }).click()
  await first.getByRole('button', { name: 'Full page', exact: true }).click()
  await first.getByRole('button', { name: 'Add 1 scene' }).click()
  await expect(first).toBeHidden()
  await expect.poll(async () => (await decksIn(server)).length).toBe(1)
  const [before] = await decksIn(server)

  await page.locator('[data-layer="class"]').click()
  const choosing = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Update', exact: true }).click()
  // The second page has other words on it now, a new one comes before the last.
  const [one, two, three, four] = paperDeck(4) as [ToldPage, ToldPage, ToldPage, ToldPage]
  const changed = await pdfOf([one, { ...two, words: ['Also look for wax moth'] }, three, { title: 'Brand new', paper: '#ffffff' }, four])
  await (await choosing).setFiles({ name: 'class-2.pdf', mimeType: 'application/pdf', buffer: changed })
  const again = dialogOf(page)
  await expect(again.getByText('Changed: 2')).toBeVisible({ timeout: 60_000 })
  await expect(again.getByText('New: 4')).toBeVisible()
  await again.getByRole('button', { name: 'Replace pages' }).click()
  await expect(again).toBeHidden()
  await expect.poll(async () => (await decksIn(server))[0]!.pages.length).toBe(5)
  const [after] = await decksIn(server)
  const ids = before!.pages.map(({ id }) => id)
  expect(after!.pages.map(({ id }) => ids.indexOf(id) + 1)).toEqual([1, 2, 3, 0, 4])
  expect(after!.pages.map(({ skipped }) => skipped)).toEqual([false, false, false, false, true])
  expect([after!.fileName, after!.name, after!.id]).toEqual(['class-2.pdf', 'class', before!.id])
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await decksIn(server))[0]).toEqual(before)
})

test('pages look as poppler draws them (pdftoppm, SSIM at least 0.97): order, size, turned pages, crop boxes', async ({ page, server }) => {
  await openStudio(page, server)
  const pdf = await pdfOf([...toldClass(4), { title: 'Turned' }, { title: 'Cropped' }, { title: 'Upright' }], (sheet, index) => {
    if (index === 4) sheet.setRotation(degrees(90))
    if (index === 5) sheet.setCropBox(30, 200, 480, 270)
    if (index === 6) sheet.setSize(540, 700)
  })
  const dialog = await choose(page, 'sizes.pdf', pdf)
  await expect(dialog.getByText('7 pages are ready')).toBeVisible({ timeout: 60_000 })
  await dialog.getByRole('button', { name: 'Full page', exact: true }).click()
  await dialog.getByRole('button', { name: 'Add 1 scene' }).click()
  await expect(dialog).toBeHidden()
  await expect.poll(async () => (await decksIn(server)).length).toBe(1)
  const { pages } = (await decksIn(server))[0]!
  expect(pages.map(({ widthPx, heightPx }) => `${widthPx}×${heightPx}`)).toEqual([...Array<string>(4).fill('1920×1080'), '608×1080', '1920×1080', '833×1080'])
  expect(pages.map(({ title }) => title).slice(4)).toEqual(['Turned', 'Cropped', 'Upright'])
  // All are fetched before any is looked at: comparing takes longer than a server keeps a line open.
  const ours = await Promise.all(pages.map(async ({ asset }) => Buffer.from(await (await fetch(`${server.studioUrl}/api/assets/${asset}`)).arrayBuffer())))
  const theirs = popplerPages(pdf, 1920)
  for (const [index, { widthPx, heightPx }] of pages.entries()) {
    const read = async (bytes: Buffer) => {
      const { data } = await sharp(bytes).resize(widthPx, heightPx, { fit: 'fill' }).ensureAlpha().raw().toBuffer({ resolveWithObject: true })
      return { data: new Uint8ClampedArray(data), width: widthPx, height: heightPx }
    }
    const { mssim } = ssim((await read(ours[index]!)) as never, (await read(theirs[index]!)) as never)
    expect(mssim, `page ${index + 1}`).toBeGreaterThanOrEqual(0.97)
  }
})

test('what cannot be read says so in words, and nothing is left of it', async ({ page, server }) => {
  await openStudio(page, server)
  const kept = () => readdirSync(path.join(server.dataDir, 'assets')).sort()
  const before = kept()
  const whole = await pdfOf(paperDeck(3))
  const cases: [string, Buffer, RegExp][] = [
    ['empty.pdf', Buffer.alloc(0), /empty\.pdf is empty/],
    ['letter.pdf', Buffer.from('Dear members, '.repeat(40)), /letter\.pdf is damaged or not a presentation/],
    ['cut.pptx', (await pptxOf(paperDeck(2))).subarray(0, 9000), /cut\.pptx" is no presentation, or it is damaged/],
    ['song.mp3', Buffer.from('ID3'), /song\.mp3 is not a presentation/],
  ]
  for (const [name, bytes, words] of cases) {
    const dialog = await choose(page, name, bytes, '')
    await expect(dialog.getByRole('alert')).toHaveText(words, { timeout: 60_000 })
    await dialog.getByRole('button', { name: 'Cancel' }).click()
    await expect(dialog).toBeHidden()
  }
  // Cut off in the middle it is read as far as it goes, or refused; the studio goes on either way.
  const cut = await choose(page, 'half.pdf', whole.subarray(0, Math.floor(whole.length / 2)))
  await expect(cut.getByRole('alert').or(cut.getByText(/pages? (is|are) ready/))).toBeVisible({ timeout: 60_000 })
  await cut.getByRole('button', { name: 'Cancel' }).click()
  // Given up while pages are drawn, and when all are there.
  const given = await choose(page, 'given-up.pdf', await pdfOf(toldClass(20)))
  await expect(given.locator('img').first()).toBeVisible({ timeout: 60_000 })
  await given.getByRole('button', { name: 'Cancel' }).click()
  await expect(given).toBeHidden()
  const late = await choose(page, 'late.pdf', whole)
  await expect(late.getByText('3 pages are ready')).toBeVisible({ timeout: 60_000 })
  await page.keyboard.press('Escape')
  await expect(late).toBeHidden()
  expect(kept()).toEqual(before)
  expect(await decksIn(server)).toEqual([])
})

test('a password is asked for; a wrong one is said; of a file of 2,000 pages some are chosen', async ({ page, server }) => {
  await openStudio(page, server)
  const options = JSON.stringify({ EncryptFile: { type: 'boolean', value: 'true' }, DocumentOpenPassword: { type: 'string', value: 'propolis' } })
  const locked = converted(await pptxOf(paperDeck(2)), 'pptx', `pdf:impress_pdf_Export:${options}`)
  const dialog = await choose(page, 'locked.pdf', locked)
  await expect(dialog.getByRole('alert')).toHaveText('locked.pdf needs a password.', { timeout: 60_000 })
  await dialog.getByLabel('Password').fill('honey')
  await dialog.getByRole('button', { name: 'Open' }).click()
  await expect(dialog.getByRole('alert')).toHaveText('That password does not open locked.pdf. Try again.')
  await dialog.getByLabel('Password').fill('propolis')
  await dialog.getByRole('button', { name: 'Open' }).click()
  await expect(dialog.getByText('2 pages are ready')).toBeVisible({ timeout: 60_000 })
  await dialog.getByRole('button', { name: 'Cancel' }).click()

  const long = await PDFDocument.create()
  for (let index = 0; index < 2000; index += 1) long.addPage([320, 180])
  // A page of 20,000 pixels is as large as any other on the screen.
  long.insertPage(5, [20_000, 11_250])
  const choosing = await choose(page, 'long.pdf', Buffer.from(await long.save()))
  await expect(choosing.getByText('This file has 2001 pages. Choose up to 300 of them.')).toBeVisible({ timeout: 60_000 })
  const range = choosing.getByLabel('Pages to import')
  for (const [typed, words] of [
    ['1–301', 'That is 301 pages. Choose up to 300.'],
    ['5-3', 'Enter page numbers from 1 to 2001, for example 1–20, 25.'],
    ['2002', 'Enter page numbers from 1 to 2001, for example 1–20, 25.'],
  ] as const) {
    await range.fill(typed)
    await expect(choosing.getByText(words)).toBeVisible()
    await expect(choosing.getByRole('button', { name: 'Import', exact: true })).toBeDisabled()
  }
  await range.fill('5–7, 2001')
  await choosing.getByRole('button', { name: 'Import', exact: true }).click()
  await expect(choosing.getByText('4 pages are ready')).toBeVisible({ timeout: 60_000 })
  await choosing.getByRole('button', { name: 'Full page', exact: true }).click()
  await choosing.getByRole('button', { name: 'Add 1 scene' }).click()
  await expect(choosing).toBeHidden()
  await expect
    .poll(async () => (await decksIn(server))[0]?.pages.map(({ number, widthPx }) => `${number}:${widthPx}`))
    .toEqual(['5:1920', '6:1920', '7:1920', '2001:1920'])
})

test('pictures are slides in the order of their names; without LibreOffice a PPTX says what to do', async ({ page, server }) => {
  await openStudio(page, server)
  const square = (colour: string) =>
    sharp({ create: { width: 320, height: 180, channels: 3, background: colour } })
      .png()
      .toBuffer()
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  const choosing = page.waitForEvent('filechooser')
  await page.getByRole('option', { name: /^Slides/ }).click()
  const files = await Promise.all([['frame 10.png', '#5f6f4f'], ['frame 9.png', '#8a97a6'], ['frame 1.png', '#c9dff2']].map(async ([name, colour]) => ({ name: name!, mimeType: 'image/png', buffer: await square(colour!) }))) // prettier-ignore
  await (await choosing).setFiles(files)
  const dialog = dialogOf(page)
  await expect(dialog.getByText('3 pages are ready')).toBeVisible({ timeout: 60_000 })
  await expect(dialog.getByRole('list', { name: 'Pages' }).getByRole('listitem')).toHaveText([/1\s*frame 1/, /2\s*frame 9/, /3\s*frame 10/])
  await dialog.getByRole('button', { name: 'Cancel' }).click()

  const refusal = { error: { code: 'office-missing', message: 'LibreOffice is not installed on this computer.' } }
  await page.route('**/api/decks/pdf?*', (route) => route.fulfill({ status: 503, contentType: 'application/json', body: JSON.stringify(refusal) }))
  const without = await choose(page, 'talk.pptx', await pptxOf(paperDeck(1)), '')
  await expect(without.getByRole('alert')).toHaveText(/talk\.pptx needs LibreOffice.*Save the slides as PDF.*or install LibreOffice/, { timeout: 60_000 })
})
