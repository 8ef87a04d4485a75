// The interface in German, in texts 40 % longer, and from right to left: nothing clips, collides or stays English, and axe-core finds nothing.
import { textFamilies } from '../../core/text/text-content.ts'
import type { Page } from '@playwright/test'
import { commandWords } from '../../app/locales/de/commands.ts'
import { showsWords } from '../../app/locales/de/shows.ts'
import { findingsOf } from './axe.ts'
import { faultsOf } from './faults-of.ts'
import { expect, test } from './studio.ts'
import type { TestServer } from '../support/test-server.ts'

const SIZES = [
  [1280, 800],
  [1024, 700],
] as const
const THEMES = ['paper', 'blackout'] as const
/** Each with the theme in which it is measured. */
const LANGUAGES = [
  ['de', 'paper'],
  ['en-XA', 'blackout'],
  ['ar-XB', 'blackout'],
] as const

async function use(page: Page, language: string, theme = 'paper'): Promise<void> {
  await page.addInitScript(
    ([tag, name]) => {
      localStorage.setItem('green-room:language', tag!)
      localStorage.setItem('green-room:theme', name!)
    },
    [language, theme],
  )
}

/** The studio, by what has no words. */
async function openBuild(page: Page, server: TestServer): Promise<void> {
  await page.goto(server.studioUrl)
  await expect.poll(() => page.evaluate(() => window.greenRoom?.hasPicture())).toBe(true)
}

/** Words that end in dots where no one can read the rest: no title, no tooltip, no name of the presenter's. */
function cutWords(page: Page): Promise<string[]> {
  return page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>('body *')]
      .filter((element) => getComputedStyle(element).textOverflow === 'ellipsis' && element.checkVisibility() && element.scrollWidth > element.clientWidth + 1)
      .filter((element) => element.closest('[title], [data-tip], [dir=auto]') === null)
      .map((element) => element.textContent!.trim().slice(0, 60))
      .filter((words) => words !== ''),
  )
}

/** Every view, menu and dialog, one after the other. */
async function walk(page: Page, server: TestServer, check: (what: string) => Promise<void>): Promise<void> {
  const header = page.locator('header')
  const depth = page.locator('.build-depth')
  await openBuild(page, server)
  await check('build')
  await page.locator('[data-layer="Desk camera"]').click()
  await check('a camera')
  await page.locator('[data-layer="Class title"]').click()
  await check('a text')
  await page.locator('.stage-handles').click({ button: 'right', position: { x: 300, y: 300 } })
  await expect(page.getByRole('menu')).toBeVisible()
  await check('the menu on the stage')
  await page.keyboard.press('Escape')
  await page.locator('[data-scene-id] button:has(.lucide-ellipsis)').first().click()
  await expect(page.getByRole('menu')).toBeVisible()
  await check('the menu of a scene')
  await page.keyboard.press('Escape')
  await header.locator('button:has(.lucide-chevron-down)').first().click()
  await check('the menu of the show')
  await page.getByRole('menuitem').last().click()
  await expect(page.getByRole('dialog').locator('li').first()).toBeVisible()
  await check('earlier versions')
  await page.keyboard.press('Escape')
  await depth.locator('button:has(.lucide-plus)').first().click()
  await check('Add')
  await page.keyboard.press('Escape')
  await depth.locator('button:has(.lucide-layout-panel-left)').click()
  await expect(page.getByTestId('layouts')).toBeVisible()
  await check('layouts')
  await page.keyboard.press('Escape')
  await header.locator('button:has(.lucide-settings-2)').click()
  await expect(page.getByTestId('settings')).toBeVisible()
  await check('settings')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+k')
  await expect(page.getByRole('dialog').locator('input, h2').first()).toBeVisible()
  await check('the palette')
  await page.keyboard.press('Escape')
  await page.locator('.stage-handles').press('?')
  await expect(page.getByRole('dialog').locator('input, h2').first()).toBeVisible()
  await check('the keys')
  await page.keyboard.press('Escape')
  await page.locator('.build-scenes button:has(.lucide-plus)').first().click()
  await expect(page.locator('[data-layer]')).toHaveCount(0)
  await check('an empty scene')
  await page.keyboard.press('Control+z')
  await page.locator('.build-scenes button:has(.lucide-plus)').last().click()
  await expect(page.getByTestId('graphic-gallery').locator('canvas')).toHaveCount(11)
  await check('the gallery of graphics')
  await page.getByTestId('graphic-gallery').locator('button:has(canvas)').nth(3).click()
  await expect(page.getByTestId('graphic-form')).toBeVisible()
  await check('the form of a graphic')
  await page.keyboard.press('Control+z')
  await page.locator('.build-inspector button:has(.lucide-wallpaper)').click()
  await expect(page.getByTestId('background-gallery').locator('canvas').first()).toBeVisible()
  await check('the gallery of backgrounds')
  await page.keyboard.press('Escape')
  await expect(page.getByTestId('background-gallery')).toBeHidden()
  await header.locator('button:has(.lucide-video)').click()
  await expect(page.locator('header .lucide-video')).toHaveCount(0)
  await check('on air')
  await page.locator('nav a').nth(1).click()
  await expect(page.getByTestId('step-chromaKey')).toBeVisible()
  await page.getByTestId('step-chromaKey').getByRole('button').first().click()
  await check('bench')
  await page.locator('.bench-chain button:has(.lucide-plus)').click()
  await expect(page.getByRole('menu')).toBeVisible()
  await check('the menu of steps')
  await page.keyboard.press('Escape')
  await page.locator('nav a').nth(0).click()
  await expect(page.getByTestId('microphone-panel')).toBeVisible()
  await check('devices')
  await page.goto(`${server.studioUrl}/shows`)
  await expect(page.locator('main li').first()).toBeVisible()
  await check('shows')
  await page.locator('main button:has(.lucide-plus)').click()
  await expect(page.getByTestId('new-show')).toBeVisible()
  await check('a new show')
  await page.keyboard.press('Escape')
}

for (const [language, theme] of LANGUAGES) {
  for (const [width, height] of SIZES) {
    test(`${language}: nothing clips or collides in any view at ${width}×${height}`, async ({ page, server }) => {
      await use(page, language, theme)
      await page.setViewportSize({ width, height })
      await walk(page, server, async (what) => {
        expect(await faultsOf(page), what).toEqual([])
        expect(await cutWords(page), what).toEqual([])
      })
    })
  }
}

for (const language of ['de', 'ar-XB']) {
  for (const theme of THEMES) {
    test(`${language}: axe-core finds nothing serious or moderate in any view, ${theme}`, async ({ page, server }) => {
      await use(page, language, theme)
      await walk(page, server, async (what) => expect(await findingsOf(page, ['moderate', 'serious', 'critical']), what).toEqual([]))
    })
  }
}

for (const language of ['en', 'de', 'en-XA', 'ar-XB']) {
  // WCAG 2.2, 1.4.10 "Reflow": at 400 % a window of 1280 is one of 320 to a page, and nothing scrolls in two directions.
  test(`${language}: at 200 % and 400 % no view scrolls sideways`, async ({ page, server }) => {
    await use(page, language)
    const sideways = () => page.evaluate(() => document.documentElement.scrollWidth - innerWidth)
    for (const [width, height] of [
      [640, 400],
      [320, 256],
    ] as const) {
      await page.setViewportSize({ width, height })
      for (const view of ['show/demo-brood-frame/build', 'show/demo-brood-frame/bench', 'show/demo-brood-frame/devices', 'shows']) {
        await page.goto(`${server.studioUrl}/${view}`)
        await expect(page.locator('main h1').first()).toBeAttached()
        expect(await sideways(), `${view} at ${width}`).toBeLessThanOrEqual(0)
      }
      await page.locator('main button:has(.lucide-plus)').click()
      await expect(page.getByTestId('new-show')).toBeVisible()
      expect(await sideways(), `a new show at ${width}`).toBeLessThanOrEqual(0)
      await page.getByTestId('new-show').getByRole('button').last().scrollIntoViewIfNeeded()
      await expect(page.getByTestId('new-show').getByRole('button').last()).toBeInViewport()
    }
  })
}

test('every word that is seen comes from the catalogue', async ({ page, server }) => {
  await use(page, 'ar-XB')
  const { show } = await server.shows.get('demo-brood-frame')
  const names = [show.name, ...show.inputs, ...show.scenes, ...show.scenes.flatMap(({ layers }) => layers)].map((one) =>
    typeof one === 'string' ? one : one.name,
  )
  // Units, names of fonts and of fields, what the person's own browser is called or has written on its buttons.
  const known = [
    'Green Room',
    'Camera',
    ...textFamilies,
    'dBFS',
    'fps',
    'px',
    'Hz',
    'dB',
    'ms',
    'name',
    'title',
    'time',
    'date',
    'countdown',
    'alt',
    'chrome',
    'extensions',
    'extension',
    'Developer',
    'mode',
    'Load',
    'unpacked',
    'Built',
    'in',
    'camera',
    'English',
    'Deutsch',
    'Escape',
    'Enter',
  ]
  await walk(page, server, async (what) => {
    const seen = await page.evaluate(() => {
      const texts: string[] = []
      const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
      while (walker.nextNode()) {
        const parent = walker.currentNode.parentElement!
        if (parent.checkVisibility() && !/^(SCRIPT|STYLE|CODE|KBD)$/.test(parent.tagName) && parent.closest('code, kbd, [data-sonner-toaster]') === null)
          texts.push(walker.currentNode.nodeValue!)
      }
      for (const element of document.querySelectorAll('[aria-label], [title], [placeholder], [data-tip]'))
        for (const name of ['aria-label', 'title', 'placeholder', 'data-tip']) texts.push(element.getAttribute(name) ?? '')
      return texts
    })
    const left = seen.flatMap((text) => {
      const own = [...names, ...known].reduce((rest, name) => rest.replaceAll(name, ''), text)
      return /[A-Za-z]{3,}/.test(own) ? [text.trim()] : []
    })
    expect([...new Set(left)], what).toEqual([])
  })
})

test('the language follows the browser until one is chosen; the choice stays, and a language that cannot be loaded changes nothing', async ({
  browser,
  server,
}) => {
  const context = await browser.newContext({ locale: 'de-AT', viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  let isCutOff = false
  // From the start: a route that is laid while workers load can wait for them for ever (Playwright 1.65.1, as observed).
  await page.route('**/assets/**', (route) => (isCutOff ? route.abort('connectionrefused') : route.continue()))
  await page.goto(`${server.studioUrl}/shows`)
  await expect(page.getByRole('heading', { name: showsWords.shows.title })).toBeVisible()
  await expect(page.locator('html')).toHaveAttribute('lang', 'de')
  // Decimals and keys are those of the language too.
  await page.getByRole('button', { name: 'Einstellungen' }).click()
  await expect(page.getByTestId('settings')).toContainText(`${commandWords.commands.keyNames.control} K`)
  await page.getByRole('radio', { name: 'English' }).click()
  await expect(page.getByRole('heading', { name: 'Your shows' })).toBeVisible()
  await page.reload()
  await expect(page.getByRole('heading', { name: 'Your shows' })).toBeVisible()
  await expect(page.locator('html')).toHaveAttribute('lang', 'en')
  await page.getByRole('button', { name: 'Settings' }).click()
  isCutOff = true
  await page.getByRole('radio', { name: 'Deutsch' }).click()
  await expect(page.getByTestId('settings').getByRole('alert')).toContainText('Could not load Deutsch.')
  await expect(page.getByRole('heading', { name: 'Your shows' })).toBeVisible()
  await context.close()
})

test('from right to left, panels grow and numbers are typed as everywhere', async ({ page, server }) => {
  await use(page, 'ar-XB')
  await openBuild(page, server)
  await expect(page.locator('html')).toHaveAttribute('dir', 'rtl')
  const [scenes, stage, inspector] = await Promise.all(
    ['.build-scenes', '.build-stage', '.build-inspector'].map(async (part) => (await page.locator(part).boundingBox())!),
  )
  expect(scenes!.x).toBeGreaterThan(stage!.x)
  expect(stage!.x).toBeGreaterThan(inspector!.x)
  const edge = page.getByRole('separator').first()
  const before = Number(await edge.getAttribute('aria-valuenow'))
  await edge.press('ArrowLeft')
  await expect(edge).toHaveAttribute('aria-valuenow', String(before + 16))
  // The picture is not mirrored: the mark stays in its upper right.
  await page.locator('[data-layer="Class title"]').click()
  const x = page.getByRole('spinbutton').nth(6)
  await x.fill('12,5')
  await page.keyboard.press('Enter')
  await expect(x).toHaveValue(/^[\d.,]+( px)?$/)
})
