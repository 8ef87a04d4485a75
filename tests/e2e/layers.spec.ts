// Kinds of layers, frames, blends and groups, through the real interface.
import { textOf } from '../../core/layers/text.ts'
import type { Locator, Page } from '@playwright/test'
import { choose, expect, openStudio, setNumber, test } from './studio.ts'

/** The middle of the stage's picture: red, green, blue. */
function middleOfStage(page: Page): Promise<number[]> {
  return page.evaluate(() => {
    const source = document.querySelector<HTMLCanvasElement>('[data-testid="stage"] canvas')!
    const pen = new OffscreenCanvas(1280, 720).getContext('2d')!
    pen.drawImage(source, 0, 0, 1280, 720)
    return [...pen.getImageData(640, 360, 1, 1).data.slice(0, 3)]
  })
}

const inspectorOf = (page: Page): Locator => page.getByRole('complementary', { name: 'Selected layer' })
const panes = (page: Page) => page.getByTestId('depth').getByRole('listitem')

test('a shape is added, framed, filled and blended; two layers are grouped and taken apart; every edit is undone', async ({ page, server }) => {
  await openStudio(page, server)
  await page.getByRole('button', { name: /^Closing card/ }).click()
  await expect(panes(page)).toHaveCount(3)
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await page.getByRole('option', { name: 'Ellipse' }).click()
  await expect(panes(page)).toHaveCount(4)
  // It came where it covers no words: into the middle with it.
  await setNumber(page, 'X', '520')
  await setNumber(page, 'Y', '240')
  // Its colour, seen on the stage.
  await expect.poll(() => middleOfStage(page)).toEqual([0x1e, 0x5b, 0x47])
  const inspector = inspectorOf(page)
  await inspector.getByRole('switch', { name: 'Border' }).click()
  await inspector.getByRole('switch', { name: 'Shadow' }).click()
  await expect(inspector.getByRole('slider', { name: 'Blur' })).toBeVisible()
  await choose(page, inspector.getByRole('button', { name: /^Fill:/ }).locator('..'), 'Linear gradient')
  // Half way from the one colour to the other.
  await expect.poll(async () => (await middleOfStage(page))[0]).toBeGreaterThan(100)
  await choose(page, inspector.getByRole('button', { name: /^Blend/ }).locator('..'), 'Add light')
  await expect.poll(async () => (await middleOfStage(page))[0]).toBeGreaterThan(130)

  await inspector.getByRole('button', { name: /^More for/ }).click()
  await page.getByRole('menuitem', { name: /^Group with/ }).click()
  await expect(panes(page)).toHaveCount(3)
  await expect(inspector.getByText('2 layers as a group')).toBeVisible()
  await inspector.getByRole('button', { name: /^More for/ }).click()
  await page.getByRole('menuitem', { name: 'Ungroup' }).click()
  await expect(panes(page)).toHaveCount(4)

  await page.locator('body').press('Control+z')
  await expect(panes(page)).toHaveCount(3)
  for (let i = 0; i < 8; i += 1) await page.locator('body').press('Control+z')
  await expect(panes(page)).toHaveCount(3)
  await expect(page.getByTestId('depth').getByText('Ellipse')).toHaveCount(0)
})

test('a scene is shown in another, and follows it; it cannot be shown in itself', async ({ page, server }) => {
  await openStudio(page, server)
  await page.getByRole('button', { name: /^Closing card/ }).click()
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByRole('option', { name: 'Closing card' })).toHaveCount(0)
  await page.getByRole('option', { name: 'Just me' }).click()
  await expect(inspectorOf(page).getByText('Scene', { exact: true })).toBeVisible()
  await page
    .getByRole('button', { name: /^Just me/ })
    .first()
    .click()
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByRole('option', { name: 'Closing card' })).toHaveCount(0)
  // A box over everything there is seen through the other scene, too.
  await page.getByRole('option', { name: 'Box' }).click()
  await setNumber(page, 'X', '400')
  await setNumber(page, 'Y', '240')
  await page.getByRole('button', { name: /^Closing card/ }).click()
  await expect.poll(() => middleOfStage(page)).toEqual([0x1e, 0x5b, 0x47])
})

test('a frame is copied from one layer to another', async ({ page, server }) => {
  await openStudio(page, server)
  const inspector = inspectorOf(page)
  await page
    .getByTestId('depth')
    .getByRole('button', { name: /^Society mark/ })
    .click()
  await expect(inspector.getByRole('button', { name: 'Paste frame' })).toHaveCount(0)
  await inspector.getByRole('radio', { name: 'Soft square' }).click()
  await inspector.getByRole('switch', { name: 'Border' }).click()
  await inspector.getByRole('button', { name: 'Copy frame' }).click()
  await page
    .getByTestId('depth')
    .getByRole('button', { name: /^Desk camera/ })
    .click()
  await inspector.getByRole('button', { name: 'Paste frame' }).click()
  await expect(inspector.getByRole('switch', { name: 'Border' })).toBeChecked()
  await expect(inspector.getByRole('radio', { name: 'Soft square' })).toBeChecked()
})

test('a text takes words from the show and the clock, and has letters with an outline; once more it is the same thing, until it is its own', async ({
  page,
  server,
}) => {
  await openStudio(page, server)
  await panes(page).filter({ hasText: 'Class title' }).getByRole('button').first().click()
  const inspector = inspectorOf(page)
  const line = inspector.getByRole('textbox', { name: 'Line 1' })
  await expect(inspector.getByText('Insert:')).toBeVisible()
  await line.fill('{name}')
  await inspector.getByLabel('Your name').fill('Iva')
  await inspector.getByLabel('Your name').press('Tab')
  await inspector.getByRole('switch', { name: 'Text outline' }).click()
  await inspector.getByRole('switch', { name: 'Text shadow' }).click()
  const stored = async () => (await server.shows.get('demo-brood-frame')).show
  await expect.poll(async () => (await stored()).presenter.name).toBe('Iva')
  await expect.poll(async () => (await stored()).contents[0]).toMatchObject({ text: { outline: { widthPx: 3 }, shadow: { blurPx: 10 } } })
  // The outline's colour, on the plate where there were only green and white.
  const dark = () =>
    page.evaluate(() => {
      const source = document.querySelector<HTMLCanvasElement>('[data-testid="stage"] canvas')!
      const pen = new OffscreenCanvas(1280, 720).getContext('2d')!
      pen.drawImage(source, 0, 0, 1280, 720)
      const { data } = pen.getImageData(90, 570, 300, 60)
      let count = 0
      for (let i = 0; i < data.length; i += 4) if (data[i]! < 24 && data[i + 1]! < 30 && data[i + 2]! < 28) count += 1
      return count
    })
  await expect.poll(dark).toBeGreaterThan(100)

  await inspector.getByRole('button', { name: /^More for/ }).click()
  await page.getByRole('menuitem', { name: 'Duplicate linked' }).click()
  await expect(panes(page)).toHaveCount(5)
  await expect(inspector.getByText('Also in Welcome')).toBeVisible()
  await line.fill('Both')
  const words = async () => {
    const show = await stored()
    return show.scenes[0]!.layers.flatMap((layer) => (layer.kind === 'text' ? [textOf(show, layer).blocks[0]!.text] : []))
  }
  await expect.poll(words).toEqual(['Both', 'Both'])
  await inspector.getByRole('button', { name: 'Make this a separate copy' }).click()
  await expect(inspector.getByText('Also in Welcome')).toBeHidden()
  await line.fill('Mine')
  await expect.poll(words).toEqual(['Both', 'Mine'])
  for (let i = 0; i < 2; i += 1) await page.getByRole('button', { name: /^Undo/ }).click()
  await expect.poll(async () => (await stored()).contents.length).toBe(3)
})

test('a drawn form is added, outlined and changed by path data; what cannot be read is told, and changes nothing', async ({ page, server }) => {
  await openStudio(page, server)
  await page.getByRole('button', { name: /^Closing card/ }).click()
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await page.getByRole('option', { name: 'Arrow' }).click()
  await setNumber(page, 'X', '520')
  await setNumber(page, 'Y', '240')
  await expect.poll(() => middleOfStage(page)).toEqual([0x1e, 0x5b, 0x47])
  const inspector = inspectorOf(page)
  await inspector.getByRole('switch', { name: 'Outline' }).click()
  await expect(inspector.getByRole('slider', { name: 'Border width' })).toBeVisible()
  await inspector.getByText('Path data', { exact: true }).click()
  const field = inspector.getByRole('textbox', { name: 'Path data' })
  await field.fill('M0 0 H100 V100 Z')
  await field.press('Tab')
  await expect(inspector.getByRole('button', { name: /^Shape:/ })).toHaveText('Custom path')
  await field.fill('M0 0 L')
  await field.press('Tab')
  await expect(inspector.getByRole('alert')).toContainText('from character 7 on')
  // The middle is on the line of the triangle that is there still: white.
  await expect.poll(() => middleOfStage(page)).toEqual([255, 255, 255])
  await field.fill('')
  await field.press('Tab')
  await expect(inspector.getByRole('alert')).toContainText('draws nothing')
  await page.locator('body').press('Control+z')
  await expect(inspector.getByRole('button', { name: /^Shape:/ })).toHaveText('Arrow')
})

test('several layers are selected by pointer and by keys, moved, hidden, grouped, copied and removed together', async ({ page, server }) => {
  await openStudio(page, server)
  const inspector = inspectorOf(page)
  const pane = (name: string) => page.getByTestId('depth').locator(`[data-layer="${name}"] button`)
  await pane('Class title').click()
  await pane('Society mark').click({ modifiers: ['Control'] })
  await expect(inspector.getByRole('heading', { name: '2 layers' })).toBeVisible()
  // By keys on the stage: both, by as much.
  const placements = () =>
    page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>('.stage-handles > [data-selected]')].map(({ style }) => [parseFloat(style.left), parseFloat(style.top)]),
    )
  const before = await placements()
  expect(before).toHaveLength(2)
  await page.getByRole('application').press('Shift+ArrowRight')
  const zoom = await page.evaluate(() => document.querySelector<HTMLElement>('.stage-handles')!.clientWidth / 1280)
  await expect.poll(async () => (await placements())[0]![0]! - before[0]![0]!).toBeCloseTo(10 * zoom, 2)
  expect((await placements())[1]![0]! - before[1]![0]!).toBeCloseTo(10 * zoom, 2)
  // By the pointer, from one of them.
  const mark = (await page.locator('.stage-handles > [data-selected]').nth(1).boundingBox())!
  await page.mouse.move(mark.x + mark.width / 2, mark.y + mark.height / 2)
  await page.mouse.down()
  await page.mouse.move(mark.x + mark.width / 2 - 60, mark.y + mark.height / 2 + 40, { steps: 6 })
  await page.mouse.up()
  await expect.poll(async () => (await placements())[0]![0]! - before[0]![0]!).toBeLessThan(-30)
  const dragged = await placements()
  expect(dragged[1]![0]! - dragged[0]![0]!).toBeCloseTo(before[1]![0]! - before[0]![0]!, 2)
  await page.locator('body').press('Control+z')
  await page.locator('body').press('Control+z')
  await expect.poll(placements).toEqual(before)

  // By keys in the strip: from the one that has the focus one to the left, and both.
  await pane('Society mark').focus()
  await page.keyboard.press('Control+ArrowLeft')
  await page.keyboard.press('Control+ArrowLeft')
  await page.keyboard.press('Control+Space')
  await expect(inspector.getByRole('heading', { name: '3 layers' })).toBeVisible()
  await page.keyboard.press('Control+Space')
  await expect(inspector.getByRole('heading', { name: '2 layers' })).toBeVisible()
  await inspector.getByRole('button', { name: 'Hide' }).click()
  await expect(pane('Class title')).toHaveAccessibleName(/hidden/)
  await inspector.getByRole('button', { name: 'Show' }).click()
  await inspector.getByRole('button', { name: 'Duplicate', exact: false }).click()
  await expect(panes(page)).toHaveCount(6)
  await inspector.getByRole('button', { name: 'Remove' }).click()
  await expect(panes(page)).toHaveCount(4)
  await pane('Class title').click()
  await pane('Society mark').click({ modifiers: ['Shift'] })
  await inspector.getByRole('button', { name: 'Group' }).click()
  await expect(panes(page)).toHaveCount(3)
  await expect(inspector.getByText('2 layers as a group')).toBeVisible()
  await page.locator('body').press('Control+z')
  await expect(panes(page)).toHaveCount(4)
  // On the stage Delete leaves what is locked.
  await pane('Society mark').click()
  await inspector.getByRole('button', { name: 'Lock in place' }).click()
  await pane('Class title').click({ modifiers: ['Control'] })
  await page.getByRole('application').press('Delete')
  await expect(pane('Class title')).toHaveCount(0)
  await expect(panes(page)).toHaveCount(3)
  for (let i = 0; i < 2; i += 1) await page.locator('body').press('Control+z')
  await expect(panes(page)).toHaveCount(4)
  await pane('Desk camera').click()
  await page.keyboard.press('Control+a')
  await expect(inspector.getByRole('heading', { name: '4 layers' })).toBeVisible()
  await page.keyboard.press('Delete')
  await expect(panes(page)).toHaveCount(0)
  await page.locator('body').press('Control+z')
  await expect(panes(page)).toHaveCount(4)
})
