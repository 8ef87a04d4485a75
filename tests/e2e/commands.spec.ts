// The palette and the keys of commands, by keyboard alone.
import type { Page } from '@playwright/test'
import { expect, openStudio, test } from './studio.ts'

async function find(page: Page, words: string): Promise<void> {
  await page.keyboard.press('Control+k')
  await expect(page.getByRole('combobox', { name: 'Find anything' })).toBeFocused()
  await page.keyboard.type(words)
}

test('the palette goes to scenes, layers and inputs, adds layers and runs commands', async ({ page, server }) => {
  await openStudio(page, server)
  await find(page, 'key poi')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog', { name: 'Find anything' })).toHaveCount(0)
  await expect(page.getByRole('complementary').getByRole('heading', { name: 'Key points' })).toBeVisible()

  await find(page, 'add text')
  await expect(page.getByRole('option').first()).toContainText('Text')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('complementary').getByRole('heading', { name: 'Text', level: 2 })).toBeVisible()

  // The text is selected: what can be done with it is found too, and undone by name.
  await find(page, 'duplicate')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('complementary').getByRole('heading', { name: 'Text', level: 2 })).toBeVisible()
  await find(page, 'undo')
  await page.keyboard.press('Enter')

  await find(page, 'desk camera')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await find(page, 'input desk')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/\/bench\//)
})

test('what cannot run says why, and stays', async ({ page, server }) => {
  await openStudio(page, server)
  await find(page, 'stop feed')
  await expect(page.getByRole('option', { name: /Stop feed/ })).toContainText('Not now: the feed is not running')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('status').filter({ hasText: 'Stop feed. Not now: the feed is not running' })).toBeVisible()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('zebra')
  await expect(page.getByText('Nothing found. Try another word.')).toBeVisible()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('start feed')
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('on-air-sign')).toBeVisible()
})

test('keys can be changed; one that another command has is refused by its name', async ({ page, server }) => {
  await openStudio(page, server)
  await page.locator('.stage-handles').press('?')
  await expect(page.getByRole('heading', { name: 'Keyboard shortcuts', exact: true })).toBeVisible()
  const change = page.getByRole('button', { name: 'Change the key for Switch between light and dark' })
  await change.press('Enter')
  await page.keyboard.press('Control+z')
  await expect(page.getByText('Ctrl Z is used by “Undo”. Change that first, or choose another key.')).toBeVisible()
  await page.keyboard.press('ArrowUp')
  await expect(page.getByText('ArrowUp is used by the page')).toBeVisible()
  await page.keyboard.press('Control+Shift+L')
  await expect(page.getByTestId('key-theme')).toHaveText('Ctrl Shift L')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)

  const theme = () => page.evaluate(() => document.documentElement.dataset['theme'])
  expect(await theme()).toBe('paper')
  await page.keyboard.press('Control+Shift+L')
  expect(await theme()).toBe('blackout')
  // It is kept, and the palette shows it.
  await page.reload()
  await expect(page.getByTestId('stage')).toBeVisible()
  await find(page, 'light and dark')
  await expect(page.getByRole('option', { name: /Switch between light and dark theme/ })).toContainText('Ctrl Shift L')
})

test('what is done with layers is a command too: found, given a key, and run by it where it makes sense', async ({ page, server }) => {
  await openStudio(page, server)
  await page.locator('.stage-handles').press('?')
  await page.getByRole('button', { name: 'Change the key for Send to back' }).press('Enter')
  await page.keyboard.press('F8')
  await expect(page.getByTestId('key-layerToBack')).toHaveText('F8')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)

  const strip = page.locator('[data-layer="Society mark"]').getByRole('button')
  await strip.first().click()
  const places = () => page.locator('[data-layer-id]').evaluateAll((all) => all.map((each) => each.getAttribute('data-layer-id')))
  const before = await places()
  await page.keyboard.press('F8')
  await expect.poll(async () => (await places()).join()).not.toBe(before.join())
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await places()).join()).toBe(before.join())

  // Away from Build there is nothing that it could act on.
  await page.getByRole('link', { name: 'Bench', exact: true }).click()
  await expect(page.getByTestId('bench-picture')).toBeVisible()
  await page.keyboard.press('F8')
  await expect(page.getByRole('status').filter({ hasText: 'Send to back. Not now: open Build first' })).toHaveCount(1)
  await find(page, 'send to back')
  await expect(page.getByText('Nothing found. Try another word.')).toBeVisible()
  await page.keyboard.press('Escape')
  await page.getByRole('link', { name: 'Build' }).click()
  await expect.poll(async () => (await places()).join()).toBe(before.join())
})

test('what is done with scenes is a command too: found, and done to the scene on the stage', async ({ page, server }) => {
  await openStudio(page, server)
  const scenes = page.getByRole('complementary', { name: 'Scenes', exact: true }).getByRole('listitem')
  const before = await scenes.count()
  await find(page, 'duplicate this scene')
  await page.keyboard.press('Enter')
  await expect(scenes).toHaveCount(before + 1)
  await find(page, 'rename this scene')
  await page.keyboard.press('Enter')
  await page.getByRole('textbox', { name: 'Rename' }).fill('Second welcome')
  await page.keyboard.press('Enter')
  await expect(scenes.nth(1)).toContainText('Second welcome')
  await find(page, 'move this scene up')
  await page.keyboard.press('Enter')
  await expect(scenes.first()).toContainText('Second welcome')
  await find(page, 'move this scene up')
  await expect(page.getByRole('option', { name: 'Move this scene up' })).toContainText('it is the first scene')
})
