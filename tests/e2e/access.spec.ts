// axe-core on every view, dialog and menu, in both themes: nothing serious. And what a checker cannot see: keys and focus.
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Page } from '@playwright/test'
import { expect, openBench, openStudio, test } from './studio.ts'

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

interface Finding {
  readonly id: string
  readonly impact: string
  readonly nodes: readonly { readonly html: string; readonly failureSummary: string }[]
}

/** The serious and critical findings of the page as it is. The list boxes' focus guards are left out: they hand the focus on, and nothing is said. */
async function seriousOn(page: Page): Promise<string[]> {
  const found = await page.evaluate<Finding[]>(`(async () => {
    if (window.axe === undefined) { ${axe} }
    const { violations } = await window.axe.run({ exclude: ['[data-headlessui-focus-guard]'] }, { resultTypes: ['violations'] })
    return violations.filter(({ impact }) => impact === 'serious' || impact === 'critical')
  })()`)
  return found.flatMap(({ id, nodes }) => nodes.map((node) => `${id}: ${node.html.slice(0, 160)} — ${node.failureSummary.replace(/\s+/g, ' ').slice(0, 160)}`))
}

const THEMES = ['paper', 'blackout'] as const

async function useTheme(page: Page, theme: (typeof THEMES)[number]): Promise<void> {
  await page.addInitScript((name) => localStorage.setItem('green-room:theme', name), theme)
}

for (const theme of THEMES) {
  test(`axe-core finds nothing serious in Build and Shows, ${theme}`, async ({ page, server }) => {
    await useTheme(page, theme)
    await openStudio(page, server)
    const check = async (what: string) => expect(await seriousOn(page), what).toEqual([])
    await check('build')
    for (const layer of ['Desk camera', 'Class title', 'Apiary wall']) {
      await page.locator(`[data-layer="${layer}"]`).click()
      await check(`build with ${layer}`)
    }
    await page.getByRole('button', { name: 'Add', exact: true }).click()
    await check('the Add menu')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Layout', exact: true }).click()
    await check('the layouts')
    await page.getByRole('button', { name: /^What you show/ }).click()
    await check('the layouts, choosing a page')
    await page.keyboard.press('Escape')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'History' }).click()
    await check('the steps')
    await page.keyboard.press('Escape')
    await page.locator('.stage-handles').press('?')
    await expect(page.getByRole('heading', { name: 'Keyboard shortcuts', exact: true })).toBeVisible()
    await check('the keys')
    await page.keyboard.press('Escape')
    await page.locator('.stage-handles').click({ button: 'right', position: { x: 300, y: 480 } })
    await check('the menu on the stage')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'More for Welcome' }).click()
    await check('the menu of a scene')
    await page.keyboard.press('Escape')
    await page.locator('[data-layer="Desk camera"]').click()
    await page.getByTestId('device').getByRole('button').click()
    await check('a list box')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Settings' }).click()
    await check('the settings')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Hide the inspector' }).click()
    await page.getByRole('button', { name: 'New scene', exact: true }).click()
    await check('an empty scene')
    await page.getByRole('button', { name: 'Start feed' }).click()
    await check('on air')
    await page.getByRole('button', { name: 'Show: Reading a brood frame' }).click()
    await check('the menu of the show')
    await page.getByRole('menuitem', { name: 'Earlier versions' }).click()
    await expect(page.getByRole('heading', { name: 'Earlier versions' })).toBeVisible()
    await check('earlier versions')
    await page.keyboard.press('Escape')
    await page.getByRole('link', { name: 'Green Room' }).click()
    await expect(page.getByRole('heading', { name: 'Your shows' })).toBeVisible()
    await check('shows')
    await page.getByRole('button', { name: 'More for Reading a brood frame' }).click()
    await check('the menu of a show')
  })

  test(`axe-core finds nothing serious on the devices page and in the output window, ${theme}`, async ({ page, server }) => {
    await useTheme(page, theme)
    await page.goto(`${server.studioUrl}/devices`)
    await expect(page.getByTestId('microphone-panel').getByText('This microphone is in use.', { exact: false })).toBeVisible()
    const check = async (what: string) => expect(await seriousOn(page), what).toEqual([])
    await check('devices')
    await page.getByRole('button', { name: 'Start feed' }).click()
    await page.keyboard.press('m')
    await check('muted, on air')
    await page.getByTestId('microphone-menu').getByRole('button').click()
    await check('the list of microphones')
    await page.keyboard.press('Escape')
    const opened = page.waitForEvent('popup')
    await page.getByRole('button', { name: 'Open output window' }).click()
    expect(await seriousOn(await opened), 'output').toEqual([])
  })

  test(`axe-core finds nothing serious on the bench, ${theme}`, async ({ page, server }) => {
    await useTheme(page, theme)
    await openBench(page, server, 'cloth')
    const check = async (what: string) => expect(await seriousOn(page), what).toEqual([])
    await check('bench')
    for (const kind of ['crop', 'tone', 'look']) {
      await page.getByTestId(`step-${kind}`).getByRole('button').first().click()
      await check(`bench with ${kind}`)
    }
    await page.getByRole('button', { name: 'Add step' }).click()
    await check('the menu of steps')
    await page.keyboard.press('Escape')
    await page.getByLabel('Scopes').getByTestId('figure-veil').getByRole('button').click()
    await check('a figure explained')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Presets' }).click()
    await check('the menu of presets')
    await page.getByRole('menuitem', { name: 'Save as preset' }).click()
    await expect(page.getByRole('heading', { name: 'Save as preset' })).toBeVisible()
    await check('saving a preset')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'Add camera' }).click()
    await check('which camera')
    await page.keyboard.press('Escape')
    await page.getByRole('button', { name: 'More for Desk camera' }).click()
    await page.getByRole('menuitem', { name: 'Remove' }).click()
    await expect(page.getByRole('dialog')).toContainText('It is used in Welcome, Just me, Key points.')
    await check('removing an input')
  })
}

test('everything that is pressed is at least 24 pixels high and wide (WCAG 2.2, 2.5.8)', async ({ page, server }) => {
  await openStudio(page, server)
  const small = () =>
    page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>('button, a, input, textarea, [role=slider], [role=option], [role=menuitem]')]
        .filter((element) => element.checkVisibility() && !element.closest('.sr-only') && element.tabIndex >= -1)
        .map((element) => ({ element, box: element.getBoundingClientRect() }))
        .filter(({ box }) => box.width > 1 && (box.width < 23.5 || box.height < 23.5))
        .map(({ element, box }) => `${element.outerHTML.slice(0, 110)} ${Math.round(box.width)}×${Math.round(box.height)}`),
    )
  for (const layer of ['Desk camera', 'Class title']) {
    await page.locator(`[data-layer="${layer}"]`).click()
    expect(await small(), layer).toEqual([])
  }
  await page.getByRole('link', { name: 'Bench', exact: true }).click()
  await expect(page.getByTestId('step-chromaKey')).toBeVisible()
  expect(await small(), 'bench').toEqual([])
  await page.getByRole('link', { name: 'Green Room' }).click()
  await expect(page.getByRole('heading', { name: 'Your shows' })).toBeVisible()
  expect(await small(), 'shows').toEqual([])
})

test('a click on the stage gives it the keys: arrows move, Delete removes, undo brings back and says what', async ({ page, server }) => {
  await openStudio(page, server)
  const stage = page.locator('.stage-handles')
  const box = (await stage.boundingBox())!
  await page.mouse.click(box.x + box.width * 0.2, box.y + box.height * 0.86)
  await expect(stage).toBeFocused()
  await expect(page.getByRole('heading', { name: 'Class title' })).toBeVisible()
  const x = page.getByRole('spinbutton', { name: 'X' })
  const before = Number(await x.inputValue())
  await page.keyboard.press('Shift+ArrowRight')
  await expect(x).toHaveValue(String(before + 10))
  await expect(page.getByRole('button', { name: 'Undo move Class title' })).toBeEnabled()
  await page.keyboard.press('Delete')
  await expect(page.locator('[data-layer="Class title"]')).toHaveCount(0)
  // In another scene, undo goes to where it undoes.
  await page.getByRole('button', { name: 'Closing card', exact: true }).click()
  await page.getByRole('button', { name: 'Undo remove Class title, in Welcome' }).click()
  await expect(page.getByRole('button', { name: 'Welcome', exact: true })).toHaveAttribute('aria-current', 'true')
  await expect(page.locator('[data-layer="Class title"]')).toHaveCount(1)
})

test('in the depth strip arrows walk, Shift and an arrow move; the focus stays and the place is said', async ({ page, server }) => {
  await openStudio(page, server)
  const pane = (name: string) => page.locator(`[data-layer="${name}"] button`)
  await pane('Class title').click()
  await page.keyboard.press('Shift+ArrowLeft')
  await expect(pane('Class title')).toBeFocused()
  await expect(page.locator('p[aria-live]')).toHaveText('Class title: 2 of 4')
  await page.keyboard.press('Shift+ArrowLeft')
  await expect(page.locator('p[aria-live]')).toHaveText('Class title: 1 of 4')
  await expect(pane('Class title')).toBeFocused()
  await page.keyboard.press('ArrowRight')
  await expect(pane('Apiary wall')).toBeFocused()
  // The browser's own key for "back" is left alone, and nothing moves by it.
  expect(page.url()).toContain('/build')
})

test('scenes: arrows walk, F2 and a double click rename, a number left as it was is no edit', async ({ page, server }) => {
  await openStudio(page, server)
  const scene = (name: string) => page.getByRole('button', { name, exact: true })
  await scene('Welcome').focus()
  await page.keyboard.press('ArrowDown')
  await expect(scene('Just me')).toBeFocused()
  await page.keyboard.press('F2')
  await page.keyboard.type('On my own')
  await page.keyboard.press('Enter')
  await expect(scene('On my own')).toBeFocused()
  await scene('Key points').dblclick()
  await page.keyboard.type('Three points')
  await page.keyboard.press('Enter')
  await expect(scene('Three points')).toBeVisible()
  await scene('Welcome').click()
  await page.locator('[data-layer="Class title"]').click()
  const size = page.getByRole('spinbutton', { name: 'Size' }).first()
  await size.click()
  await size.press('Enter')
  await expect(page.getByRole('button', { name: 'Undo rename Key points, in Three points' })).toBeEnabled()
  await size.fill('50')
  await size.press('Enter')
  await expect(page.getByRole('button', { name: 'Undo edit text of Class title' })).toBeEnabled()
  await page.keyboard.press('Control+z')
  await expect(size).toHaveValue(/42/)
})

test('a colour is picked by keys alone', async ({ page, server }) => {
  await openBench(page, server, 'cloth')
  const code = page.getByRole('textbox', { name: 'Backdrop, code' })
  const before = await code.inputValue()
  await page.getByRole('button', { name: 'Pick backdrop' }).first().focus()
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('pixel-glass')).toBeVisible()
  await expect(page.getByTestId('bench-picture')).toBeFocused()
  for (let i = 0; i < 6; i += 1) await page.keyboard.press('Shift+ArrowLeft')
  for (let i = 0; i < 4; i += 1) await page.keyboard.press('Shift+ArrowUp')
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Backdrop set to')).toBeVisible()
  const picked = await code.inputValue()
  expect(picked).not.toBe(before)
  const [red, green, blue] = [1, 3, 5].map((at) => Number.parseInt(picked.slice(at, at + 2), 16)) as [number, number, number]
  expect(green - Math.max(red, blue)).toBeGreaterThan(45)
})
