// The bench as a presenter uses it: a bad camera picture made good from top to bottom, seen in the meeting.
import { newCamera } from '../../core/inputs/camera.ts'
import { readFileSync } from 'node:fs'
import path from 'node:path'
import type { Page } from '@playwright/test'
import '../../app/engine/diagnostics.ts'
import type { Scopes } from '../../engine/protocol.ts'
import { addStep, benchPixels, colourAt, expect, isCloth, joinMeeting, openBench, openStudio, setNumber, switchStep, test } from './studio.ts'

const scopesOf = (page: Page) => page.evaluate(() => window.greenRoom!.scopes())

/** Mean luma code of the treated picture. */
function meanLuma({ histogram }: Scopes): number {
  let sum = 0
  let count = 0
  Object.values(histogram.luma).forEach((pixels, code) => {
    sum += pixels * code
    count += pixels
  })
  return count === 0 ? 0 : sum / count
}

test('an unlit, uneven, too wide camera is made good by following the bench from top to bottom', async ({ page, context, server }) => {
  await openBench(page, server, 'dimLight')
  // Start from nothing but the camera.
  for (const kind of ['crop', 'balance', 'tone', 'chromaKey', 'look', 'sharpen']) {
    const card = page.getByTestId(`step-${kind}`)
    if ((await card.getByRole('button', { expanded: true }).count()) === 0) await card.getByRole('button').first().click()
    await card.getByRole('button', { name: /^Remove/ }).click()
  }
  await expect.poll(async () => measured(await scopesOf(page), meanLuma)).toBeGreaterThan(10)
  const dark = meanLuma((await scopesOf(page))!)

  // Too wide: Alt and drag the left edge; the right one by number.
  const picture = page.getByTestId('bench-picture')
  const box = (await picture.boundingBox())!
  await page.keyboard.down('Alt')
  await page.mouse.move(box.x + 6, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width * 0.13, box.y + box.height / 2, { steps: 6 })
  await page.mouse.up()
  await page.keyboard.up('Alt')
  await page.getByTestId('step-crop').getByRole('button').first().click()
  await expect(page.getByRole('spinbutton', { name: 'Left', exact: true })).toHaveValue(/^1[23](\.5)? %$/)
  await setNumber(page, 'Right', '10')

  // Unlit: exposure up; the scopes follow.
  await addStep(page, 'Balance')
  await page.getByRole('button', { name: 'Measure once' }).click()
  await expect(page.getByText(/^Set to \d+ K/)).toBeVisible()
  await addStep(page, 'Exposure and tone')
  await setNumber(page, 'Exposure', '1.8')
  await expect.poll(async () => measured(await scopesOf(page), meanLuma)).toBeGreaterThan(dark * 1.5)

  // The key: picked with usual values first, then found.
  await addStep(page, 'Coloured cloth')
  await page.getByRole('button', { name: 'Pick backdrop' }).click()
  await picture.hover({ position: { x: box.width * 0.3, y: box.height * 0.3 } })
  await expect(page.getByTestId('pixel-glass')).toBeVisible()
  await picture.click({ position: { x: box.width * 0.3, y: box.height * 0.3 } })
  await expect(page.getByText(/Backdrop set to/)).toBeVisible()
  await expect.poll(async () => (await scopesOf(page))?.key?.veil ?? 0).toBeGreaterThan(0.01)
  const usual = (await scopesOf(page))!.key!
  await page.getByTestId('find-key').click()
  await expect(page.getByTestId('key-figures')).toBeVisible({ timeout: 30_000 })
  await expect(page.getByTestId('step-matteEdge')).toBeVisible()
  await expect(page.getByTestId('step-spill')).toBeVisible()
  await expect.poll(async () => (await scopesOf(page))?.key?.veil ?? NaN).toBeLessThan(usual.veil / 4)
  const found = (await scopesOf(page))!.key!
  expect(found.fringe).toBeLessThanOrEqual(2)
  expect(found.seeThrough).toBeLessThanOrEqual(0.002)
  await expect(page.getByLabel('Scopes').getByTestId('figure-fringe')).toContainText(/Green edge\s+[01]\.\d\s+· good\s+\(up to 2\)/)
  // One undo takes all three steps back, one redo brings them again.
  await page.keyboard.press('Control+z')
  await expect(page.getByTestId('step-matteEdge')).toHaveCount(0)
  await page.keyboard.press('Control+Shift+z')
  await expect(page.getByTestId('step-matteEdge')).toBeVisible()

  // The matte as a picture: the corner inside the crop is black, the face is white.
  await page.getByText('Matte', { exact: true }).first().click()
  await expect.poll(async () => (await benchPixels(page))[180 * 640 + 320]).toBeGreaterThan(250)
  expect((await benchPixels(page))[60 * 640 + 130]).toBeLessThan(5)

  await addStep(page, 'Sharpen')
  await expect(page.getByRole('note')).toHaveCount(0)
  await page.getByRole('button', { name: 'Start feed' }).click()
  const meeting = await joinMeeting(context, server)
  // The wall of the demo is where cloth was; the jumper is there, and yellow.
  await expect.poll(async () => isWall(await colourAt(meeting, 300, 90)), { timeout: 30_000 }).toBe(true)
  expect(isCloth(await colourAt(meeting, 1000, 200))).toBe(false)
  const jumper = await colourAt(meeting, 560, 690)
  expect(jumper[0] - jumper[2]).toBeGreaterThan(50)
})

function isWall([red, green, blue]: readonly [number, number, number]): boolean {
  return Math.min(red, green, blue) > 110 && green - Math.max(red, blue) < 30
}

test('a step moves to one scene only and back in one action; a crop made there changes no other scene', async ({ page, server }) => {
  await openBench(page, server, 'cloth')
  const showOf = async () => {
    const response = await fetch(`${server.studioUrl}/api/shows/demo-brood-frame`)
    return (
      (await response.json()) as {
        show: { inputs: { treatment: { kind: string }[] }[]; scenes: { layers: { inputId?: string; treatment: { kind: string }[] }[] }[] }
      }
    ).show
  }
  await page.getByTestId('step-crop').getByRole('button').first().click()
  await page.getByRole('button', { name: 'Use this step in Welcome only' }).click()
  await expect(page.getByText(/^Before these: .*Coloured cloth/)).toBeVisible()
  await expect(page.getByTestId('step-crop')).toBeVisible()
  await expect.poll(async () => (await showOf()).inputs[0]!.treatment.some((step) => step.kind === 'crop')).toBe(false)
  const here = (await showOf()).scenes.map((scene) => scene.layers.flatMap((layer) => layer.treatment.map((step) => step.kind)))
  expect(here[0]).toEqual(['crop'])
  expect(here.slice(1).flat()).toEqual([])
  // Build tells of it, too.
  await page.getByRole('link', { name: 'Build' }).click()
  await page.locator('[data-layer="Desk camera"]').first().click()
  await expect(page.getByTestId('here-only')).toContainText('Crop')
  await page.getByRole('link', { name: 'Bench', exact: true }).click()
  await page.getByRole('radio', { name: / only$/ }).click()
  if ((await page.getByTestId('step-crop').getByRole('button').first().getAttribute('aria-expanded')) !== 'true')
    await page.getByTestId('step-crop').getByRole('button').first().click()
  await page.getByRole('button', { name: 'Use this step everywhere' }).click()
  await expect.poll(async () => (await showOf()).inputs[0]!.treatment.some((step) => step.kind === 'crop')).toBe(true)
  expect((await showOf()).scenes.flatMap((scene) => scene.layers).flatMap((layer) => layer.treatment)).toEqual([])
})

test('a look is chosen from pictures, brought by a file, or refused with the line; an out-of-order chain is told so', async ({ page, server }) => {
  await openBench(page, server, 'cloth')
  await switchStep(page, 'look')
  await page.getByTestId('step-look').getByRole('button').first().click()
  await page.getByRole('radio', { name: 'Inkwell' }).click()
  await setNumber(page, 'Amount', '100')
  // Black and white: the vectorscope has nothing but its middle.
  await expect.poll(async () => measured(await scopesOf(page), greyShare), { timeout: 15_000 }).toBeGreaterThan(0.9)
  const chooser = page.getByLabel('Add look file').last()
  await chooser.setInputFiles({ name: 'broken.cube', mimeType: 'text/plain', buffer: Buffer.from('LUT_3D_SIZE 2\n0 0 0\n1 0\n') })
  await expect(page.getByText(/"broken\.cube" is no look that can be used: line 3: a row must hold 3 numbers, got 2/)).toBeVisible()
  const file = path.resolve(import.meta.dirname, '../references/inputs/ref5.cube')
  await chooser.setInputFiles({ name: 'ref5.cube', mimeType: 'text/plain', buffer: readFileSync(file) })
  await expect(page.getByText(/^From a file \(/)).toBeVisible()
  await expect.poll(async () => measured(await scopesOf(page), greyShare)).toBeLessThan(0.5)
  for (let i = 0; i < 5; i += 1) {
    const earlier = page.getByTestId('step-look').getByRole('button', { name: 'Move up' })
    if (await earlier.isEnabled()) await earlier.click()
  }
  await expect(page.getByRole('note').first()).toContainText('A look before the key shifts')
})

/** What is read from the scopes; no number, which no limit is met by, before there are any. */
function measured(scopes: Scopes | null, read: (scopes: Scopes) => number): number {
  return scopes === null ? NaN : read(scopes)
}

function greyShare({ vectorscope: { columns, counts } }: Scopes): number {
  let near = 0
  let all = 0
  Object.values(counts).forEach((count, i) => {
    all += count
    if (Math.hypot((i % columns) - 128, Math.floor(i / columns) - 127) < 4) near += count
  })
  return near / Math.max(1, all)
}

test('a chain is saved, applied, exported, imported and copied to another input', async ({ page, server }) => {
  await openBench(page, server, 'cloth')
  const menu = page.getByRole('button', { name: 'Presets' })
  await menu.click()
  await page.getByRole('menuitem', { name: 'Save as preset' }).click()
  await page.getByLabel('Name').fill('Evening class')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('Evening class saved')).toBeVisible()
  await menu.click()
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('menuitem', { name: 'Export as file' }).click()])
  const text = readFileSync((await download.path())!, 'utf8')
  expect(JSON.parse(text)).toMatchObject({ format: 'green-room-chain', version: 2 })
  await page.getByTestId('step-crop').getByRole('button').first().click()
  await page.getByTestId('step-crop').getByRole('button', { name: 'Remove Crop' }).click()
  await expect(page.getByTestId('step-crop')).toHaveCount(0)
  await menu.click()
  await page.getByRole('menuitem', { name: 'Evening class' }).first().click()
  await expect(page.getByTestId('step-crop')).toBeVisible()
  await page
    .getByLabel('Import file')
    .last()
    .setInputFiles({ name: 'bad.json', mimeType: 'application/json', buffer: Buffer.from(text.replace('"tolerance": 0.3', '"tolerance": 3')) })
  await expect(
    page.getByText(/Some values in this file are not allowed: steps\.3\.params\.tolerance: must be a number between 0 and 0\.9, got 3/),
  ).toBeVisible()
  await menu.click()
  await page.getByRole('menuitem', { name: 'Apiary wall' }).click()
  await expect(page.getByText('Steps copied to Apiary wall')).toBeVisible()
  await page.getByRole('link', { name: /Apiary wall/ }).click()
  await expect(page.getByTestId('step-chromaKey')).toBeVisible()
})

test('the empty cloth is measured after a countdown and used by the key', async ({ page, server }) => {
  await openBench(page, server, 'unevenCloth')
  await page.getByRole('button', { name: 'Measure the empty cloth' }).click()
  await expect(page.getByText('Step out of the picture 3')).toBeVisible()
  await expect(page.getByText('The empty cloth is saved.')).toBeVisible()
  await expect(page.getByRole('radio', { name: 'Measured' })).toHaveAttribute('aria-checked', 'true')
})

test('a step is copied to another input, with its values, as one step of undo', async ({ page, server }) => {
  await openBench(page, server, 'cloth')
  await page.getByTestId('step-crop').getByRole('button').first().click()
  await page.getByRole('button', { name: 'Copy Crop' }).click()
  const entry = (await page.getByRole('menuitem', { name: 'Apiary wall' }).boundingBox())!
  expect(entry.x).toBeGreaterThan(0)
  expect(entry.x + entry.width).toBeLessThanOrEqual(1280)
  await page.getByRole('menuitem', { name: 'Apiary wall' }).click()
  await expect(page.getByText('Crop copied to Apiary wall')).toBeVisible()
  await page.getByRole('link', { name: /Apiary wall/ }).click()
  await expect(page.getByRole('spinbutton', { name: 'Left', exact: true })).toHaveValue('13 %')
  await page.keyboard.press('Control+z')
  await expect(page.getByTestId('step-crop')).toHaveCount(0)
})

test('sides without cloth are told and cropped in one press', async ({ page, server }) => {
  const showOf = async () => (await server.shows.get('demo-brood-frame')).show
  const cropOf = async () => (await showOf()).inputs[0]!.treatment.find((step) => step.kind === 'crop')
  await openBench(page, server, 'cloth')
  await switchStep(page, 'crop')
  await switchStep(page, 'chromaKey')
  await page.getByTestId('find-key').click()
  const ends = page.getByTestId('cloth-ends')
  await expect(ends).toContainText(/The cloth ends here. Crop \d+(\.\d)? % left, \d+(\.\d)? % right\./, { timeout: 30_000 })
  // With the key off there was nothing to measure before.
  await expect(page.getByTestId('key-figures').getByTestId('figure-fringe')).toContainText(/Green edge\s+– →/)
  await ends.getByRole('button', { name: 'Crop' }).click()
  await expect(ends).toHaveCount(0)
  // The lamp stand and the wall are gone: left of 110 and right of 1174 of 1280.
  await expect.poll(cropOf).toMatchObject({ on: true })
  const crop = (await cropOf())!
  expect(crop.kind === 'crop' && crop.params.left).toBeGreaterThan(8)
  expect(crop.kind === 'crop' && crop.params.right).toBeGreaterThan(8)
})

test('a key is searched for as soon as the camera that still starts has a picture', async ({ page, server }) => {
  const solvers: string[] = []
  page.on('worker', (worker) => void (worker.url().includes('solver') && solvers.push(worker.url())))
  let letGo = () => {}
  const isFree = new Promise<void>((resolve) => (letGo = resolve))
  await page.route('**/*.wasm', async (route) => {
    await isFree
    await route.continue()
  })
  await page.goto(`${server.studioUrl}/show/demo-brood-frame/bench`)
  await switchStep(page, 'chromaKey')
  await page.getByTestId('find-key').click()
  expect(await page.evaluate(() => window.greenRoom!.hasPicture())).toBe(false)
  // Waiting is shown, and given up like the search itself; what was given up does nothing when the picture comes.
  await page.getByTestId('step-chromaKey').getByRole('button', { name: 'Cancel' }).click()
  await expect(page.getByTestId('find-key')).toBeVisible()
  await page.getByTestId('find-key').click()
  await expect(page.getByRole('progressbar', { name: 'Finding the best key' })).toBeVisible()
  letGo()
  await expect(page.getByTestId('key-figures')).toContainText(/Green edge\s+– →/, { timeout: 30_000 })
  expect(solvers).toHaveLength(1)
})

test('the bench opens on what is selected in Build, and "only here" is the scene on its stage', async ({ page, server }) => {
  await openStudio(page, server)
  await page.getByRole('button', { name: 'Key points', exact: true }).click()
  await page.locator('[data-layer="Desk camera"] button').click()
  await page.getByTestId('everywhere').getByRole('link', { name: /^Crop/ }).click()
  await expect(page.getByTestId('step-crop').getByRole('button').first()).toHaveAttribute('aria-expanded', 'true')
  await page.getByRole('radio', { name: 'Key points only' }).click()
  await addStep(page, 'Sharpen')
  const scenes = async () =>
    (await server.shows.get('demo-brood-frame')).show.scenes.map((scene) => scene.layers.flatMap((layer) => layer.treatment.map(({ kind }) => kind)))
  await expect.poll(scenes).toEqual([[], [], ['sharpen'], []])
  await page.getByRole('link', { name: 'Build' }).click()
  await page.getByRole('button', { name: 'Closing card', exact: true }).click()
  await page.locator('[data-layer="Society mark"] button').click()
  await page.getByRole('link', { name: 'Bench', exact: true }).click()
  await expect(page.getByRole('link', { name: /^Society mark/ })).toHaveAttribute('aria-current', 'true')
})

test('of many cameras that no scene uses, those are awake that can be seen in the list', async ({ page, server }) => {
  const { revision, show } = await server.shows.get('demo-brood-frame')
  const spare = Array.from({ length: 10 }, (_, i) =>
    newCamera(`Spare ${i + 1}`, { type: 'standin', standin: 'table' }, { widthPx: 320, heightPx: 180, frameRate: 10 }, () => `spare${i + 1}`),
  )
  await server.shows.save('demo-brood-frame', revision, { ...show, inputs: [...show.inputs, ...spare] })
  await openStudio(page, server)
  await page.getByRole('link', { name: 'Bench' }).click()
  const card = (name: string) => page.getByRole('complementary', { name: 'Inputs' }).getByRole('listitem').filter({ hasText: name })
  const [first, last] = [card('Desk camera'), card('Spare 10')]
  await expect(first).toContainText('Live')
  await expect(last).toContainText('Paused')
  await expect(last.locator('canvas')).toHaveCount(0)
  await last.scrollIntoViewIfNeeded()
  await expect(last).toContainText('Live')
  await expect(last.locator('canvas')).toHaveCount(1)
  await first.scrollIntoViewIfNeeded()
  await expect(last).toContainText('Paused')
})
