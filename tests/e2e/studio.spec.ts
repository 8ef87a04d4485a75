// The studio by itself: saving, undo, two tabs, the keyboard, the library, bad files.
import type { Locator } from '@playwright/test'
import sharp from 'sharp'
import '../../app/engine/diagnostics.ts'
import { restartTestServer } from '../support/test-server.ts'
import { addStep, colourAt, expect, expectPace, FULL_RATE, joinMeeting, openStudio, test, turnTheme } from './studio.ts'

test('opens on the demo with a live picture, without a page scroll, in both themes', async ({ page, server }) => {
  await openStudio(page, server)
  await expect(page.getByRole('heading', { name: 'Scenes' })).toBeVisible()
  for (const [width, height] of [
    [1280, 800],
    [1024, 700],
    [1920, 1080],
  ] as const) {
    await page.setViewportSize({ width, height })
    const overflow = await page.evaluate(() => ({
      page: document.documentElement.scrollHeight > innerHeight || document.documentElement.scrollWidth > innerWidth,
      header: document.querySelector('header')!.scrollWidth > document.querySelector('header')!.clientWidth,
    }))
    expect(overflow, `${width}×${height}`).toEqual({ page: false, header: false })
  }
  await turnTheme(page)
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'blackout')
  await page.reload()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'blackout')
})

test('undoes and redoes every kind of edit by keyboard', async ({ page, server }) => {
  await openStudio(page, server)
  const panes = page.locator('[data-layer]')
  await page.locator('[data-layer="Class title"]').click()
  const xField = page.getByRole('spinbutton', { name: 'X', exact: true })
  await expect(xField).toHaveValue('64')
  await page.locator('.stage-handles').focus()
  await page.keyboard.press('Shift+ArrowRight')
  await expect(xField).toHaveValue('74')
  await page.getByRole('button', { name: 'Hide', exact: true }).click()
  await page.locator('[data-layer="Class title"] button').focus()
  await page.keyboard.press('Shift+ArrowLeft')
  await expect(panes.nth(1)).toHaveAttribute('data-layer', 'Class title')
  await page.keyboard.press('Control+z')
  await expect(panes.nth(2)).toHaveAttribute('data-layer', 'Class title')
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('button', { name: 'Hide', exact: true })).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(xField).toHaveValue('64')
  await page.keyboard.press('Control+Shift+z')
  await expect(xField).toHaveValue('74')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
})

test('moves a layer by dragging it on the stage, as one step of undo', async ({ page, server }) => {
  await openStudio(page, server)
  const stage = (await page.getByTestId('stage').boundingBox())!
  const at = (x: number, y: number) => [stage.x + (x / 1280) * stage.width, stage.y + (y / 720) * stage.height] as const
  await page.mouse.move(...at(500, 640))
  await page.mouse.down()
  await page.mouse.move(...at(560, 600), { steps: 6 })
  await page.mouse.move(...at(640, 560), { steps: 6 })
  await page.mouse.up()
  const xField = page.getByRole('spinbutton', { name: 'X', exact: true })
  await expect.poll(async () => Number(await xField.inputValue())).toBeGreaterThan(150)
  await page.keyboard.press('Control+z')
  await expect(xField).toHaveValue('64')
})

test('says it is offline, keeps editing, and saves when the server is back', async ({ page, server }) => {
  await openStudio(page, server)
  await page.route('**/api/shows/**', (route) => route.abort('connectionrefused'))
  await page.locator('[data-layer="Class title"]').click()
  await page.getByRole('textbox', { name: 'Line 1' }).fill('Written while offline')
  await expect(page.getByText('Offline: saved in this browser', { exact: true })).toBeVisible()
  // Even closing the tab loses nothing: what was kept is saved by the next.
  await page.unroute('**/api/shows/**')
  await page.reload()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.locator('[data-layer="Class title"]').click()
  await expect(page.getByRole('textbox', { name: 'Line 1' })).toHaveValue('Written while offline')
  await expect.poll(async () => JSON.stringify(await server.shows.get('demo-brood-frame'))).toContain('Written while offline')
})

test('tells a second tab that the show is open elsewhere, and lets it take over', async ({ page, context, server }) => {
  await openStudio(page, server)
  const second = await context.newPage()
  await openStudio(second, server)
  await expect(second.getByText('This show is open in another tab')).toBeVisible()
  await second.locator('[data-layer="Class title"]').click()
  await second.getByRole('textbox', { name: 'Line 1' }).fill('Not from here')
  await expect(second.getByText('Nothing changed: another tab edits this show')).toBeVisible()
  await expect(second.getByRole('button', { name: 'Nothing to undo' })).toBeVisible()
  await second.getByRole('button', { name: 'Edit here' }).click()
  await expect(second.getByText('This show is open in another tab')).toHaveCount(0)
  await expect(page.getByText('This show is open in another tab')).toBeVisible()
  await second.locator('[data-layer="Class title"]').click()
  await second.getByRole('textbox', { name: 'Line 1' }).fill('From here')
  await expect.poll(async () => JSON.stringify(await server.shows.get('demo-brood-frame'))).toContain('From here')
})

test('says what is wrong with a file and adds nothing', async ({ page, server }) => {
  await openStudio(page, server)
  const field = page.getByTestId('picture-file')
  await field.setInputFiles({ name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('not a picture') })
  await expect(page.getByText('"notes.png" is not a picture Green Room can read')).toBeVisible()
  await field.setInputFiles({ name: 'nothing.png', mimeType: 'image/png', buffer: Buffer.alloc(0) })
  await expect(page.getByText('"nothing.png" is empty (0 bytes)')).toBeVisible()
  await expect(page.locator('[data-layer]')).toHaveCount(4)
})

test('makes, names, duplicates, deletes and brings back a show', async ({ page, server }) => {
  await page.goto(`${server.studioUrl}/shows`)
  await expect(page.getByRole('link', { name: 'Open: Reading a brood frame' })).toBeVisible()
  await page.getByRole('button', { name: 'New show' }).click()
  // Three questions, all answered; a lost answer of the server keeps the answers given here.
  await page.getByRole('radio', { name: /^Slides or a screen/ }).click()
  await page.route('**/api/shows', (route) => (route.request().method() === 'POST' ? route.abort('connectionrefused') : route.continue()))
  await page.getByRole('button', { name: 'Create show' }).click()
  await expect(page.getByText('The server did not answer.')).toBeVisible()
  await expect(page.getByRole('radio', { name: /^Slides or a screen/ })).toBeChecked()
  await page.unroute('**/api/shows')
  await page.getByRole('button', { name: 'Create show' }).click()
  await expect(page.getByTestId('stage')).toBeVisible()
  await expect(page.locator('[data-scene-id]')).toHaveCount(4)
  await expect(page.getByRole('heading', { name: 'Camera', exact: true })).toBeVisible()
  await page.goto(`${server.studioUrl}/shows`)
  await page.getByRole('button', { name: 'More for New show' }).click()
  await page.getByRole('menuitem', { name: 'Rename' }).click()
  await page.getByRole('textbox', { name: 'Show name' }).fill('Swarm evening')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('link', { name: 'Open: Swarm evening' })).toBeVisible()
  await page.getByRole('button', { name: 'More for Swarm evening' }).click()
  await page.getByRole('menuitem', { name: 'Duplicate' }).click()
  await expect(page.getByRole('link', { name: 'Open: Swarm evening, copy' })).toBeVisible()
  await page.getByRole('button', { name: 'More for Swarm evening, copy' }).click()
  await page.getByRole('menuitem', { name: 'Delete' }).click()
  await expect(page.getByRole('link', { name: 'Open: Swarm evening, copy' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Restore' }).click()
  await expect(page.getByRole('link', { name: 'Open: Swarm evening, copy' })).toBeVisible()

  // Long after the message has gone, from the list.
  await page.getByRole('button', { name: 'More for Swarm evening, copy' }).click()
  await page.getByRole('menuitem', { name: 'Delete' }).click()
  await page.reload()
  await page.getByRole('button', { name: 'Deleted shows 1' }).click()
  await page.getByRole('button', { name: 'Restore Swarm evening, copy' }).click()
  await expect(page.getByRole('link', { name: 'Open: Swarm evening, copy' })).toBeVisible()
  await expect(page.getByTestId('deleted-shows')).toHaveCount(0)

  // Versions say what was changed, and when to the second.
  await page.getByRole('link', { name: 'Open: Swarm evening', exact: true }).click()
  await page.getByRole('button', { name: 'New scene', exact: true }).click()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.goto(`${server.studioUrl}/shows`)
  await page.getByRole('button', { name: 'More for Swarm evening', exact: true }).click()
  await page.getByRole('menuitem', { name: 'Earlier versions' }).click()
  const newest = page.getByRole('dialog').getByRole('listitem').first()
  await expect(newest).toContainText(/\d:\d\d:\d\d/)
  await expect(newest).toContainText(/scene/i)
  // And show the scene that was changed: here the new one, which is empty, and before it the one that there was.
  const brightest = (item: Locator) =>
    item.locator('canvas').evaluate((cover: HTMLCanvasElement) => {
      const pen = cover.getContext('2d')!
      return Math.max(...pen.getImageData(0, 0, cover.width, cover.height).data.filter((_, i) => i % 4 === 0))
    })
  await expect(newest.locator('canvas:not(.bg-well)')).toBeVisible()
  expect(await brightest(newest)).toBe(0)
  const before = page.getByRole('dialog').getByRole('listitem').nth(1)
  await expect(before.locator('canvas:not(.bg-well)')).toBeVisible()
  expect(await brightest(before)).toBeGreaterThan(60)
})

test.describe('with the feed at its full rate', () => {
  test.use({ frameRate: FULL_RATE })

  test('never sends black: the holding card is there before and after the feed, and frames are not leaked', async ({ page, context, server }) => {
    await openStudio(page, server)
    const meeting = await joinMeeting(context, server)
    const brightness = async () => {
      const [red, green, blue] = await colourAt(meeting, 640, 260)
      return red + green + blue
    }
    // The card's round lamp is drawn in brass.
    await expect.poll(brightness).toBeGreaterThan(200)
    await page.bringToFront()
    await page.getByRole('button', { name: 'Start feed' }).click()
    await expect(page.getByText('1 meeting')).toBeVisible()
    await expectPace(meeting, 'feed')
    const liveFrames = () => page.evaluate(() => window.greenRoom!.stats()!.liveFrames)
    for (let look = 0; look < 5; look += 1) {
      // A few are on their way at any moment; a leak would be hundreds by now.
      expect(await liveFrames()).toBeLessThanOrEqual(6)
      await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(resolve)))
    }
    await page.getByRole('button', { name: 'Stop feed' }).click()
    await expectPace(meeting, 'card')
    await expect.poll(brightness).toBeGreaterThan(200)
    await meeting.getByRole('button', { name: 'Leave' }).click()
    await expect(meeting.locator('#status')).toContainText('You left')
  })

  test('the picture goes on while the server restarts, and edits are saved after it', async ({ page, context, server }) => {
    await openStudio(page, server)
    await page.getByRole('button', { name: 'Start feed' }).click()
    const meeting = await joinMeeting(context, server)
    const frames = () => meeting.evaluate(() => window.meetingFigures!.read()?.frames ?? 0)
    await expectPace(meeting, 'feed')
    await restartTestServer(server, async () => {
      // No server at all: a hundred more frames arrive all the same, and an edit is kept.
      const before = await frames()
      await page.locator('[data-layer="Class title"]').click()
      await page.getByRole('textbox', { name: 'Line 1' }).fill('Typed without a server')
      await expect(page.getByText('Offline: saved in this browser', { exact: true })).toBeVisible()
      await expect.poll(frames).toBeGreaterThan(before + 100)
    })
    await expect(page.getByText('Saved', { exact: true })).toBeVisible()
    expect(JSON.stringify(await server.shows.get('demo-brood-frame'))).toContain('Typed without a server')
    const after = await frames()
    await expect.poll(frames).toBeGreaterThan(after + 60)
    await expectPace(meeting, 'feed')
  })

  test('starts the engine again by itself when its worker fails', async ({ page, server }) => {
    await page.addInitScript(() => {
      const Native = window.Worker
      const workers: Worker[] = []
      Object.assign(window, { workers })
      window.Worker = class extends Native {
        constructor(url: string | URL, options?: WorkerOptions) {
          super(url, options)
          if (options?.name === 'engine') workers.push(this)
        }
      }
    })
    await openStudio(page, server)
    await page.getByRole('button', { name: 'Start feed' }).click()
    const workers = () => page.evaluate(() => (window as unknown as { workers: Worker[] }).workers.length)
    expect(await workers()).toBe(1)
    await page.evaluate(() => {
      const [worker] = (window as unknown as { workers: Worker[] }).workers
      worker!.terminate()
      worker!.dispatchEvent(new ErrorEvent('error', { message: 'out of memory' }))
    })
    expect(await workers()).toBe(2)
    const sent = () => page.evaluate(() => window.greenRoom!.stats()?.feed.sent ?? 0)
    await expect.poll(() => page.evaluate(() => window.greenRoom!.stats()?.feed.showsCard), { timeout: 20_000 }).toBe(false)
    const before = await sent()
    await expect.poll(sent).toBeGreaterThan(before + 30)
  })
})

test('balances the picture from a click on something grey, in its place in the chain', async ({ page, server }) => {
  await openStudio(page, server)
  await page.getByRole('link', { name: 'Bench' }).click()
  // The demo's own balance goes first; one that is added finds its place.
  await page.getByTestId('step-balance').getByRole('button').first().click()
  await page.getByRole('button', { name: 'Remove Balance' }).click()
  await expect(page.getByTestId('step-balance')).toHaveCount(0)
  await addStep(page, 'Balance')
  const cards = page.locator('section[aria-label]').filter({ has: page.getByRole('switch') })
  const names = () => cards.evaluateAll((all) => all.map((card) => card.getAttribute('aria-label')))
  await expect.poll(names).toEqual(['Crop', 'Balance', 'Exposure and tone', 'Coloured cloth', 'Look', 'Sharpen'])
  const warmth = page.getByRole('spinbutton', { name: 'Warmth' })
  await expect(warmth).toHaveValue('6500 K')
  await page.getByRole('button', { name: 'Pick a grey' }).click()
  const picture = page.getByTestId('bench-picture')
  const box = (await picture.boundingBox())!
  // The cloth is no grey, and says so; the wall beside it is.
  await picture.click({ position: { x: box.width * 0.3, y: box.height * 0.2 } })
  await expect(page.getByText('That colour is too dark or too strong for a grey')).toBeVisible()
  await picture.click({ position: { x: box.width * 0.02, y: box.height * 0.4 } })
  await expect(page.getByText('Balanced for that grey')).toBeVisible()
  // The stand-in's wall has a warm cast, so the light is found to be warmer than daylight.
  await expect.poll(async () => Number.parseInt(await warmth.inputValue(), 10)).toBeLessThan(6300)
  await page.keyboard.press('Control+z')
  await expect(warmth).toHaveValue('6500 K')
})

test('a covered wall is a quiet note that is dismissed for good; a covered camera is not', async ({ page, server }) => {
  await openStudio(page, server)
  const poster = await sharp({ create: { width: 1280, height: 720, channels: 3, background: '#804020' } })
    .png()
    .toBuffer()
  await page.getByTestId('picture-file').setInputFiles({ name: 'Poster.png', mimeType: 'image/png', buffer: poster })
  const note = page.getByTestId('depth-note')
  // It came behind the presenter; brought in front it is in the way.
  await expect(note).toContainText('Poster covers all of Apiary wall')
  await page.locator('[data-layer="Poster"] button').press('Shift+ArrowRight')
  await expect(note).toContainText('Poster covers all of Desk camera')
  await expect(note.getByRole('button', { name: 'Keep as it is' })).toHaveCount(0)
  await note.getByRole('button', { name: 'Send it back' }).click()
  await expect(page.locator('[data-layer="Poster"] button')).toBeFocused()
  await expect(note).toContainText('Poster covers all of Apiary wall')
  await note.getByRole('button', { name: 'Keep as it is' }).click()
  await expect(note).toHaveCount(0)
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.reload()
  await expect(page.locator('[data-layer="Poster"]')).toBeVisible()
  await expect(page.getByText('Starting the picture')).toHaveCount(0)
  await expect(note).toHaveCount(0)
})

test('a step back in another scene goes there, and says what it did', async ({ page, server }) => {
  await openStudio(page, server)
  const names = (await server.shows.get('demo-brood-frame')).show.scenes.map(({ name }) => name)
  const pane = page.getByTestId('depth').getByRole('listitem').last().getByRole('button').first()
  const layer = await page.getByTestId('depth').getByRole('listitem').last().getAttribute('data-layer')
  await pane.focus()
  await page.keyboard.press('Delete')
  await page.getByRole('button', { name: names[1]!, exact: true }).click()
  await page.getByTestId('stage').focus()
  await page.keyboard.press('Control+z')
  await expect(page.getByText(new RegExp(`^Undone: .*${layer ?? ''}.*, in ${names[0]!}$`))).toBeVisible()
  await expect(page.getByRole('button', { name: names[0]!, exact: true })).toHaveAttribute('aria-current', /./)
  await page.keyboard.press('Control+Shift+z')
  // Its scene is on the stage now: what it does is seen.
  await expect(page.getByText(/^Redone/)).toHaveCount(0)
})

test('can be installed as an app: the browser finds nothing missing', async ({ page, server }) => {
  await page.goto(`${server.studioUrl}/shows`)
  const browser = await page.context().newCDPSession(page)
  const { errors, url } = await browser.send('Page.getAppManifest')
  expect([url, errors]).toEqual([`${server.studioUrl}/manifest.webmanifest`, []])
  const { installabilityErrors } = await browser.send('Page.getInstallabilityErrors')
  // A test's window is a private one, in which nothing can be installed.
  expect(installabilityErrors.filter(({ errorId }) => errorId !== 'in-incognito')).toEqual([])
})

test('the library finds shows by a name of theirs or of a scene, sorts them, and remembers how', async ({ page, server }) => {
  const { show } = await server.shows.get('demo-brood-frame')
  await server.shows.create({ ...show, name: 'Autumn fair' })
  await page.goto(`${server.studioUrl}/shows`)
  const names = page.getByRole('list', { name: 'Your shows' }).getByRole('heading')
  await expect(names).toHaveText(['Autumn fair', 'Reading a brood frame'])
  await page.getByRole('searchbox', { name: 'Find a show or a scene' }).fill('autumn')
  await expect(names).toHaveText(['Autumn fair'])
  await page.getByRole('searchbox').fill('Key points')
  await expect(names).toHaveCount(2)
  await page.getByRole('searchbox').fill('zebra')
  await expect(page.getByText('No show found. Try another word.')).toBeVisible()
  await page.getByRole('searchbox').fill('')
  await page.getByRole('button', { name: 'Sort by: Last changed' }).click()
  await page.getByRole('option', { name: 'Name' }).click()
  await page.reload()
  await expect(page.getByRole('button', { name: 'Sort by: Name' })).toBeVisible()
})
