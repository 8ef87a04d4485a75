// The craft of the stage, the strip and the list of scenes, by pointer and by keys.
import { newTextLayer } from '../../core/layers/text.ts'
import { newStep } from '../../core/steps/treatment.ts'
import { newInputLayer } from '../../core/layers/input.ts'
import { newCamera } from '../../core/inputs/camera.ts'
import type { Page } from '@playwright/test'
import type { Layer, Show, Step } from '../../core/show/show.ts'
import { expect, openStudio, setNumber, test } from './studio.ts'
import type { TestServer } from '../support/test-server.ts'

const ID = 'demo-brood-frame'

/** What is saved, once it says something. */
async function expectSaved(server: TestServer, holds: (show: Show) => unknown, message: string): Promise<void> {
  await expect.poll(async () => holds((await server.shows.get(ID)).show), { message }).toBeTruthy()
}

const inWelcome = (show: Show, name: string): Layer | undefined => show.scenes[0]!.layers.find((layer) => layer.name === name)

/** A point of the canvas on the screen. */
async function at(page: Page, x: number, y: number): Promise<readonly [number, number]> {
  const box = (await page.getByTestId('stage').boundingBox())!
  const zoom = box.width / 1280
  return [box.x + x * zoom, box.y + y * zoom]
}

async function drag(page: Page, from: readonly [number, number], to: readonly [number, number], ...keys: string[]): Promise<void> {
  for (const key of keys) await page.keyboard.down(key)
  await page.mouse.move(...(await at(page, ...from)))
  await page.mouse.down()
  await page.mouse.move(...(await at(page, (from[0] + to[0]) / 2, (from[1] + to[1]) / 2)), { steps: 3 })
  await page.mouse.move(...(await at(page, ...to)), { steps: 3 })
  await page.mouse.up()
  for (const key of keys) await page.keyboard.up(key)
}

test('moved near a line a title rests on it, with a guide; with Control it does not', async ({ page, server }) => {
  await openStudio(page, server)
  // The title's left edge is at 64, which is the title-safe line; its centre 640 is 296 px away.
  await page.mouse.move(...(await at(page, 300, 610)))
  await page.mouse.down()
  await page.mouse.move(...(await at(page, 450, 500)), { steps: 3 })
  await page.mouse.move(...(await at(page, 593, 400)), { steps: 3 })
  await expect(page.locator('[data-guide="canvasCentre"]').first()).toBeVisible()
  await page.mouse.up()
  await expect(page.locator('[data-guide]')).toHaveCount(0)
  await expectSaved(server, (show) => inWelcome(show, 'Class title')!.placement.x === 360, 'in the middle: 640 − 280')
  await page.mouse.move(...(await at(page, 600, 400)))
  await page.mouse.down()
  await page.keyboard.down('Control')
  await page.mouse.move(...(await at(page, 590, 350)), { steps: 3 })
  await page.mouse.move(...(await at(page, 597, 310)), { steps: 3 })
  await page.mouse.up()
  await page.keyboard.up('Control')
  await expectSaved(server, (show) => inWelcome(show, 'Class title')!.placement.x === 357, 'three pixels beside it')
})

test('a corner keeps the proportions of a picture, Shift lets them go; the turn rests on fifteens', async ({ page, server }) => {
  await openStudio(page, server)
  await page.locator('[data-layer="Society mark"]').click()
  const corner = page.locator('[data-handle="-1 1"]')
  const box = (await corner.boundingBox())!
  await page.mouse.move(box.x + 5, box.y + 5)
  await page.mouse.down()
  await page.mouse.move(box.x - 75, box.y + 20, { steps: 5 })
  await page.mouse.up()
  await expectSaved(
    server,
    (show) =>
      Math.abs(inWelcome(show, 'Society mark')!.placement.width - inWelcome(show, 'Society mark')!.placement.height) <= 1 &&
      inWelcome(show, 'Society mark')!.placement.width > 180,
    'square still',
  )
  const knob = (await page.locator('[data-handle="turn"]').boundingBox())!
  const mark = (await page.getByTestId('selection').boundingBox())!
  await page.mouse.move(knob.x + 5, knob.y + 5)
  await page.mouse.down()
  await page.mouse.move(mark.x + mark.width + 300, mark.y + mark.height / 2 + 8, { steps: 5 })
  await page.mouse.up()
  await expectSaved(server, (show) => inWelcome(show, 'Society mark')!.placement.angleDeg === 90, 'a quarter turn')
})

test('several by a box, lined up and spread; a copy is dragged away with Alt', async ({ page, server }) => {
  await openStudio(page, server)
  // The wall is locked, so that a box can be begun on it.
  await page.locator('[data-layer="Apiary wall"]').click()
  await page.getByRole('button', { name: 'Lock in place' }).click()
  await page.locator('[data-layer="Desk camera"]').click()
  await page.getByRole('button', { name: 'Lock in place' }).click()
  await drag(page, [30, 520], [640, 700])
  await expect(page.getByTestId('selection')).toBeVisible()
  await expect(page.locator('[data-layer="Class title"] button')).toHaveAttribute('aria-pressed', 'true')
  await drag(page, [800, 20], [1270, 250], 'Shift')
  await expect(page.locator('[data-layer="Society mark"] button')).toHaveAttribute('aria-pressed', 'true')
  await expect(page.locator('[data-layer="Class title"] button')).toHaveAttribute('aria-pressed', 'true')
  await page.getByRole('button', { name: 'Left edges' }).click()
  await expectSaved(server, (show) => inWelcome(show, 'Society mark')!.placement.x === inWelcome(show, 'Class title')!.placement.x, 'in line')
  await page.keyboard.press('Control+z')
  await page.locator('.stage-handles').press('Escape')
  await drag(page, [300, 610], [700, 300], 'Alt')
  await expectSaved(server, (show) => show.scenes[0]!.layers.filter(({ name }) => name === 'Class title').length === 2, 'a copy')
  await expect(page.getByText('Separate copy')).toBeVisible()
  await page.getByRole('button', { name: 'Link this copy' }).click()
  await expectSaved(
    server,
    (show) => new Set(show.scenes[0]!.layers.flatMap((layer) => (layer.kind === 'text' ? [layer.contentId] : []))).size === 1,
    'the same words',
  )
})

test('words are written where they stand; words and pictures are pasted; layers too, from scene to scene', async ({ page, server, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'], { origin: server.studioUrl })
  await openStudio(page, server)
  await page.mouse.dblclick(...(await at(page, 300, 600)))
  const words = page.getByRole('group', { name: 'Text' }).getByRole('textbox', { name: 'Line 1' })
  await expect(words).toBeFocused()
  await page.keyboard.type('Reading brood')
  await page.keyboard.press('Escape')
  await expect(words).toHaveCount(0)
  await expectSaved(server, (show) => JSON.stringify(show.contents).includes('Reading brood'), 'written')
  await page.locator('.stage-handles').focus()
  await page.keyboard.press('Control+c')
  await page.getByRole('button', { name: 'Just me', exact: true }).click()
  await page.locator('.stage-handles').focus()
  await page.keyboard.press('Control+v')
  await expectSaved(server, (show) => show.scenes[1]!.layers.some(({ name }) => name === 'Class title'), 'pasted')
  await page.evaluate(() => navigator.clipboard.writeText('Bring a veil'))
  await page.locator('.stage-handles').focus()
  await page.keyboard.press('Control+v')
  await expectSaved(server, (show) => JSON.stringify(show.contents).includes('Bring a veil'), 'words pasted')
  await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(60, 40)
    canvas.getContext('2d')!.fillRect(0, 0, 60, 40)
    await navigator.clipboard.write([new ClipboardItem({ 'image/png': await canvas.convertToBlob() })])
  })
  await page.locator('.stage-handles').focus()
  await page.keyboard.press('Control+v')
  await expectSaved(server, (show) => show.inputs.filter(({ kind }) => kind === 'picture').length === 4, 'a picture pasted')
})

test('each reason why nothing is seen is told, and mended by one press', async ({ page, server }) => {
  await openStudio(page, server)
  const note = page.getByTestId('unseen')
  const pane = page.locator('[data-layer="Society mark"] button')
  await pane.click()
  await page.getByRole('button', { name: 'Hide', exact: true }).click()
  await expect(note).toContainText('This layer is hidden.')
  await expect(pane).toHaveAccessibleName(/, hidden$/)
  await note.getByRole('button', { name: 'Show it' }).click()
  await expect(note).toHaveCount(0)
  await setNumber(page, 'X', '1400')
  await expect(note).toContainText('outside the picture')
  await note.getByRole('button', { name: 'Move into the picture' }).click()
  await expect(note).toHaveCount(0)
  await setNumber(page, 'Opacity', '0')
  await expect(note).toContainText('Its opacity is zero.')
  await note.getByRole('button', { name: 'Make it opaque' }).click()
  await expect(note).toHaveCount(0)
  await pane.press('Shift+ArrowLeft')
  await pane.press('Shift+ArrowLeft')
  await pane.press('Shift+ArrowLeft')
  await expect(note).toContainText('Apiary wall covers it.')
  await note.getByRole('button', { name: 'Move in front' }).click()
  await expect(note).toHaveCount(0)
  await expectSaved(server, (show) => show.scenes[0]!.layers.findIndex(({ name }) => name === 'Society mark') > 0, 'in front of the wall')
})

test('what is empty, what has no picture and what is cropped away is told too', async ({ page, server }) => {
  const { show, revision } = await server.shows.get(ID)
  const makeId = () => `made-${(count += 1)}`
  let count = 0
  const gone = newCamera('Lectern camera', { type: 'device', deviceId: 'gone', label: 'Lectern' }, show.canvas, makeId)
  const crop = newStep('crop', makeId) as Extract<Step, { kind: 'crop' }>
  const welcome = show.scenes[0]!
  const layers = welcome.layers.map((layer) =>
    layer.name === 'Society mark' ? { ...layer, treatment: [{ ...crop, params: { ...crop.params, left: 60, right: 60 } }] } : layer,
  )
  const empty = newTextLayer('None', ' ', show.canvas, makeId)
  const next: Show = {
    ...show,
    inputs: [...show.inputs, gone],
    contents: [
      ...show.contents,
      ...empty.contents.map((content) => (content.kind === 'text' ? { ...content, text: { ...content.text, plate: null } } : content)),
    ],
    scenes: [{ ...welcome, layers: [...layers, newInputLayer(gone, show.canvas, makeId), empty.layer] }, ...show.scenes.slice(1)],
  }
  await server.shows.save(ID, revision, next, 'with-three')
  await openStudio(page, server)
  const note = page.getByTestId('unseen')
  const pane = (name: string) => page.locator(`[data-layer="${name}"] button`)
  await pane('Lectern camera').click()
  await expect(note).toContainText('No picture is coming in.')
  await pane('None').click()
  await expect(note).toContainText('It is empty.')
  await page.getByRole('textbox', { name: 'Line 1' }).fill('Bring a veil')
  await expect(note).toHaveCount(0)
  await pane('Society mark').click()
  await expect(note).toContainText('It is cropped away.')
  await note.getByRole('button', { name: 'Turn off the crop' }).click()
  await expect(note).toHaveCount(0)
  await expectSaved(server, (saved) => inWelcome(saved, 'Society mark')!.treatment.every(({ on }) => !on), 'the crop is off')
})

test('layouts that were tried leave nothing in the strip, and undo still goes back through them', async ({ page, server }) => {
  await openStudio(page, server)
  await page.getByRole('button', { name: 'Just me', exact: true }).click()
  await page.getByRole('button', { name: 'Layout', exact: true }).click()
  const layouts = page.getByTestId('layouts')
  const divider = page.locator('[data-layer="Divider"]')
  await layouts.getByRole('button', { name: 'One third, two thirds', exact: true }).click()
  await expect(divider).toHaveCount(1)
  await layouts.getByRole('button', { name: 'Only you', exact: true }).click()
  await expect(divider).toHaveCount(1)
  await page.keyboard.press('Escape')
  await expect(divider).toHaveCount(0)
  await expectSaved(server, (show) => show.scenes[1]!.layers.every(({ part }) => part === null), 'no part is left')
  await page.keyboard.press('Control+z')
  await expect(divider).toHaveCount(1)
  await expectSaved(server, (show) => show.scenes[1]!.layers.some(({ part, visible }) => part === 'divider' && visible), 'the third is back')
  await page.keyboard.press('Control+y')
  await expectSaved(server, (show) => show.scenes[1]!.layers.every(({ part, visible }) => part === null || !visible), 'and gone again')
})

test('a page in front of the presenter is told of, with three ways to mend it', async ({ page, server }) => {
  await openStudio(page, server)
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await page.getByRole('option', { name: 'Stand-in screen: hive scale' }).click()
  const pane = page.locator('[data-layer="Hive scale"] button')
  await pane.press('Shift+ArrowRight')
  const told = page.getByTestId('depth-note')
  await expect(told).toContainText(/Hive scale covers .* of Desk camera/)
  await told.getByRole('button', { name: 'Other fixes' }).click()
  await page.getByRole('menuitem', { name: 'Make Hive scale smaller' }).click()
  await expect(page.getByText(/Hive scale covers .* of Desk camera/)).toHaveCount(0)
  await page.keyboard.press('Control+z')
  await expect(told).toContainText(/Hive scale covers/)
  await told.getByRole('button', { name: 'Other fixes' }).click()
  await page.getByRole('menuitem', { name: 'Make the white of Hive scale clear' }).click()
  await expectSaved(server, (show) => inWelcome(show, 'Hive scale')!.treatment.some(({ kind }) => kind === 'lumaKey'), 'its white is dropped')
})

test('a locked scene stays as it is, and says how to go on; steps are listed and jumped to; keys are listed on "?"', async ({ page, server }) => {
  await openStudio(page, server)
  await page.getByRole('button', { name: 'More for Welcome' }).click()
  await page.getByRole('menuitem', { name: 'Lock', exact: true }).click()
  await expectSaved(server, (show) => show.scenes[0]!.locked, 'locked')
  await page.locator('[data-layer="Class title"] button').click()
  await page.locator('[data-layer="Class title"] button').press('Delete')
  await expect(page.getByText('Welcome is locked. Unlock it to make changes.')).toBeVisible()
  expect((await server.shows.get(ID)).show.scenes[0]!.layers).toHaveLength(4)
  await page.getByRole('button', { name: 'Unlock', exact: true }).first().click()
  await expectSaved(server, (show) => !show.scenes[0]!.locked, 'unlocked')
  await setNumber(page, 'X', '100')
  await setNumber(page, 'Y', '500')
  await page.getByRole('button', { name: 'History' }).click()
  await expect(page.getByRole('menuitem')).toHaveText([
    /move Class title/i,
    /move Class title/i,
    /lock or unlock Welcome/i,
    /lock or unlock Welcome/i,
    'When you opened it',
  ])
  await page.getByRole('menuitem').nth(2).click()
  await expectSaved(server, (show) => inWelcome(show, 'Class title')!.placement.x === 64, 'two steps back')
  await page.keyboard.press('?')
  await expect(page.getByRole('heading', { name: 'Keyboard shortcuts', exact: true })).toBeVisible()
  await page.keyboard.press('Escape')
})

test('by keys alone: a third and two thirds, from an empty scene', async ({ page, server }) => {
  await openStudio(page, server)
  await page.getByRole('button', { name: 'New scene', exact: true }).press('Enter')
  const tabTo = async (name: RegExp | string, key = 'Tab') => {
    for (let i = 0; i < 80; i += 1) {
      const words = await page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.textContent?.trim() ?? '')
      if (typeof name === 'string' ? words === name : name.test(words)) return
      await page.keyboard.press(key)
    }
    throw new Error(`the focus never came to ${String(name)}`)
  }
  await tabTo('Layout')
  await page.keyboard.press('Enter')
  await tabTo(/^What you show/)
  await page.keyboard.press('Enter')
  await page.keyboard.type('Stand-in s')
  await page.keyboard.press('Enter')
  await tabTo('One third, two thirds')
  await page.keyboard.press('Enter')
  await expectSaved(server, (show) => show.scenes[4]?.layers.length === 3, 'camera, screen and divider')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('button', { name: 'Layout', exact: true })).toBeFocused()
})

test('nearer and back, the picture size with everything in it, a layout for a new scene', async ({ page, server }) => {
  await openStudio(page, server)
  const before = (await page.getByTestId('stage').boundingBox())!
  await page.getByRole('button', { name: 'Zoom: Fit' }).click()
  await page.getByRole('menuitem', { name: '200 %' }).click()
  await expect.poll(async () => (await page.getByTestId('stage').boundingBox())!.width / before.width).toBeCloseTo(2, 1)
  await page.getByRole('button', { name: 'Zoom: 200 %' }).click()
  await page.getByRole('menuitem', { name: /^Fit/ }).click()
  await page.getByRole('button', { name: /^Picture size/ }).click()
  await page.getByRole('menuitem', { name: /^720×1280/ }).click()
  await expectSaved(server, (show) => show.canvas.heightPx === 1280 && inWelcome(show, 'Apiary wall')!.placement.height === 1280, 'a high canvas')
  await page.keyboard.press('Control+z')
  await expectSaved(server, (show) => show.canvas.heightPx === 720, 'and back')
  await page.getByRole('button', { name: 'New scene from a layout' }).click()
  await page.getByTestId('layouts').getByRole('button', { name: 'Only you', exact: true }).click()
  await expectSaved(server, (show) => show.scenes[4]?.layers.some(({ name }) => name === 'Desk camera'), 'the show’s own camera')
})
