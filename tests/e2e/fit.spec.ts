// Nothing clips or overlaps on the bench and in the header, at every size and in both themes, with long names; everything works from the keyboard.
import type { Page } from '@playwright/test'
import { expect, openBench, openStudio, test } from './studio.ts'

const SIZES = [
  [1024, 700],
  [1280, 800],
  [1920, 1080],
] as const

/** Text that is cut off without saying so, controls beyond their panel, and pairs of controls that cover each other. */
function faultsOf(page: Page, part = 'body'): Promise<string[]> {
  return page.evaluate((part) => {
    const faults: string[] = []
    const nameOf = (element: Element) =>
      `${element.tagName.toLowerCase()} "${(element.getAttribute('aria-label') ?? element.textContent ?? '').trim().slice(0, 40)}"`
    const isShown = (element: Element) => {
      const { width, height } = element.getBoundingClientRect()
      return width > 1 && height > 1 && getComputedStyle(element).visibility !== 'hidden'
    }
    if (document.documentElement.scrollWidth > innerWidth) faults.push('the page scrolls sideways')
    if (document.documentElement.scrollHeight > innerHeight) faults.push('the page scrolls')
    const controls = [...document.querySelector(part)!.querySelectorAll('button, a, input:not([type=file]), select, header [role=status]')].filter(isShown)
    for (const control of controls) {
      const box = control.getBoundingClientRect()
      if (box.left < -1 || box.right > innerWidth + 1) faults.push(`${nameOf(control)} reaches beyond the window`)
      const panel = control.closest('aside, section, header')!.getBoundingClientRect()
      if (box.right > panel.right + 1 || box.left < panel.left - 1) faults.push(`${nameOf(control)} reaches beyond its panel`)
      if (control.tagName === 'SELECT' && box.width < 60) faults.push(`${nameOf(control)} is too narrow for its words`)
      const style = getComputedStyle(control)
      if (control.tagName === 'BUTTON' && control.scrollWidth > control.clientWidth + 1 && style.overflow !== 'hidden')
        faults.push(`${nameOf(control)} is too narrow for its words`)
    }
    for (const [i, first] of controls.entries()) {
      for (const second of controls.slice(i + 1)) {
        if (first.contains(second) || second.contains(first) || (first.closest('label') === second.closest('label') && first.closest('label') !== null))
          continue
        const a = first.getBoundingClientRect()
        const b = second.getBoundingClientRect()
        const across = Math.min(a.right, b.right) - Math.max(a.left, b.left)
        const down = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top)
        // Only what lies in one panel can collide; a panel that scrolls hides the rest.
        if (across > 2 && down > 2 && first.closest('header, aside, section, main') === second.closest('header, aside, section, main')) {
          faults.push(`${nameOf(first)} covers ${nameOf(second)}`)
        }
      }
    }
    return faults
  }, part)
}

test('nothing clips or collides on the bench at any size, in both themes, with long names', async ({ page, server }) => {
  test.setTimeout(120_000)
  const { show, revision, id } = await server.shows.get('demo-brood-frame')
  const long = 'The very old camera above the second desk by the window'
  await server.shows.save(id, revision, { ...show, name: long, inputs: [{ ...show.inputs[0]!, name: long }, ...show.inputs.slice(1)] })
  await openBench(page, server, 'cloth')
  const open = async (kind: string) => {
    const button = page.getByTestId(`step-${kind}`).getByRole('button').first()
    if ((await button.getAttribute('aria-expanded')) !== 'true') await button.click()
  }
  for (const [width, height] of SIZES) {
    await page.setViewportSize({ width, height })
    for (const kind of ['crop', 'chromaKey', 'look']) {
      await open(kind)
      expect(await faultsOf(page), `${kind} at ${width}×${height}`).toEqual([])
    }
    await page.getByRole('button', { name: /theme/ }).click()
    expect(await faultsOf(page), `the other theme at ${width}×${height}`).toEqual([])
  }
})

test('the header has room for a long name, a running feed and changes that cannot be saved', async ({ page, server }) => {
  const { show, revision, id } = await server.shows.get('demo-brood-frame')
  await server.shows.save(id, revision, { ...show, name: 'The very long evening above the second desk by the window' })
  await openStudio(page, server)
  await page.getByRole('button', { name: 'Start feed' }).click()
  await expect(page.getByText(/no meeting yet/)).toBeVisible()
  await page.route('**/api/shows/**', (route) => route.abort('connectionrefused'))
  await page.locator('[data-layer="Class title"]').click()
  await page.getByRole('textbox', { name: 'Line 1' }).fill('Waiting words')
  const header = page.locator('header')
  await expect(header.getByText('Kept here', { exact: true })).toHaveCount(1)
  for (const [width, height] of SIZES) {
    await page.setViewportSize({ width, height })
    expect(await faultsOf(page, 'header'), `at ${width}×${height}`).toEqual([])
  }
})

test('a step is reached, opened, changed, moved and switched off by keyboard alone', async ({ page, server }) => {
  await openBench(page, server, 'cloth')
  const stepsOf = async () => {
    const { show } = await server.shows.get('demo-brood-frame')
    return show.inputs[0]!.treatment.map((step) => `${step.kind}${step.on ? '' : ' off'}`)
  }
  const before = await stepsOf()
  await page.getByTestId('step-tone').getByRole('button').first().focus()
  await page.keyboard.press('Enter')
  const exposure = page.getByRole('slider', { name: 'Exposure', exact: true })
  await expect(exposure).toBeVisible()
  // From the step's head over its switch into its values.
  for (let i = 0; i < 6 && !(await exposure.evaluate((slider) => slider === document.activeElement)); i += 1) await page.keyboard.press('Tab')
  await expect(exposure).toBeFocused()
  const was = Number(await exposure.inputValue())
  await page.keyboard.press('ArrowRight')
  await expect.poll(async () => Number(await exposure.inputValue())).toBeGreaterThan(was)
  await page.getByTestId('step-tone').getByRole('button', { name: 'Earlier' }).focus()
  await page.keyboard.press('Space')
  await expect.poll(stepsOf).toEqual(swapped(before, before.indexOf('tone')))
  await page.getByTestId('step-tone').getByRole('switch').first().focus()
  await page.keyboard.press('Space')
  await expect.poll(stepsOf).toContain('tone off')
  for (let i = 0; i < 3; i += 1) await page.keyboard.press('Control+z')
  await expect.poll(stepsOf).toEqual(before)
})

function swapped(list: readonly string[], index: number): string[] {
  const out = [...list]
  out.splice(index - 1, 2, list[index]!, list[index - 1]!)
  return out
}
