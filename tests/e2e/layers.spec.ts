// Kinds of layers, frames, blends and groups, through the real interface.
import type { Locator, Page } from '@playwright/test'
import { choose, expect, openStudio, test } from './studio.ts'

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
  await page.getByRole('menuitem', { name: 'Ellipse' }).click()
  await expect(panes(page)).toHaveCount(4)
  // Its colour, seen on the stage.
  await expect.poll(() => middleOfStage(page)).toEqual([0x1e, 0x5b, 0x47])
  const inspector = inspectorOf(page)
  await inspector.getByRole('switch', { name: 'Border' }).click()
  await inspector.getByRole('switch', { name: 'Shadow' }).click()
  await expect(inspector.getByRole('slider', { name: 'Softness' })).toBeVisible()
  await choose(page, inspector.getByRole('button', { name: /^Fill/ }).locator('..'), 'Colours along a line')
  // Half way from the one colour to the other.
  await expect.poll(async () => (await middleOfStage(page))[0]).toBeGreaterThan(100)
  await choose(page, inspector.getByRole('button', { name: /^Blend/ }).locator('..'), 'Add light')
  await expect.poll(async () => (await middleOfStage(page))[0]).toBeGreaterThan(130)

  await inspector.getByRole('button', { name: /^More for/ }).click()
  await page.getByRole('menuitem', { name: /^Group with/ }).click()
  await expect(panes(page)).toHaveCount(3)
  await expect(inspector.getByText('2 layers as a group')).toBeVisible()
  await inspector.getByRole('button', { name: /^More for/ }).click()
  await page.getByRole('menuitem', { name: 'Take the group apart' }).click()
  await expect(panes(page)).toHaveCount(4)

  await page.locator('body').press('Control+z')
  await expect(panes(page)).toHaveCount(3)
  for (let i = 0; i < 6; i += 1) await page.locator('body').press('Control+z')
  await expect(panes(page)).toHaveCount(3)
  await expect(page.getByTestId('depth').getByText('Ellipse')).toHaveCount(0)
})

test('a scene is shown in another, and follows it; it cannot be shown in itself', async ({ page, server }) => {
  await openStudio(page, server)
  await page.getByRole('button', { name: /^Closing card/ }).click()
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByRole('menuitem', { name: 'Closing card' })).toHaveCount(0)
  await page.getByRole('menuitem', { name: 'Just me' }).click()
  await expect(inspectorOf(page).getByText('Scene', { exact: true })).toBeVisible()
  await page
    .getByRole('button', { name: /^Just me/ })
    .first()
    .click()
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByRole('menuitem', { name: 'Closing card' })).toHaveCount(0)
  // A box over everything there is seen through the other scene, too.
  await page.getByRole('menuitem', { name: 'Box' }).click()
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
  await choose(page, inspector.getByRole('button', { name: /^Form/ }).locator('..'), 'Soft square')
  await inspector.getByRole('switch', { name: 'Border' }).click()
  await inspector.getByRole('button', { name: 'Copy frame' }).click()
  await page
    .getByTestId('depth')
    .getByRole('button', { name: /^Desk camera/ })
    .click()
  await inspector.getByRole('button', { name: 'Paste frame' }).click()
  await expect(inspector.getByRole('switch', { name: 'Border' })).toBeChecked()
  await expect(inspector.getByRole('button', { name: /^Form: Soft square/ })).toBeVisible()
})
