// Nothing clips or overlaps on the bench and in the header, at every size and in both themes, with long names; everything works from the keyboard.
import { faultsOf } from './faults-of.ts'
import { expect, openBench, openStudio, test, turnTheme } from './studio.ts'

const SIZES = [
  [1024, 700],
  [1280, 800],
  [1920, 1080],
] as const

test('nothing clips or collides on the bench at any size, in both themes, with long names', async ({ page, server }) => {
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
    await turnTheme(page)
    expect(await faultsOf(page), `the other theme at ${width}×${height}`).toEqual([])
  }
})

test('nothing clips or collides on the devices page at any size, in both themes, with long names', async ({ page, server }) => {
  const { show, revision, id } = await server.shows.get('demo-brood-frame')
  const long = 'The very old camera above the second desk by the window'
  const device = { type: 'device' as const, deviceId: 'gone', label: 'An interface with a very long name, made by nobody we know' }
  const inputs = [{ ...show.inputs[0]!, name: long }, ...show.inputs.slice(1)]
  await server.shows.save(id, revision, { ...show, inputs, microphone: { ...show.microphone, device } })
  await page.goto(`${server.studioUrl}/devices`)
  await expect(page.getByTestId('microphone-panel').getByRole('alert')).toBeVisible()
  for (const [width, height] of SIZES) {
    await page.setViewportSize({ width, height })
    expect(await faultsOf(page), `at ${width}×${height}`).toEqual([])
    await turnTheme(page)
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
  await expect(header.getByText('Offline: saved in this browser', { exact: true })).toHaveCount(1)
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
  await page.getByTestId('step-tone').getByRole('button', { name: 'Move up' }).focus()
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
