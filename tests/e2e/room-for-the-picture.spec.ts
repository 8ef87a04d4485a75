// The picture has the room: how much of the window it takes, what happens with thirty scenes and long names, in small windows and
// at 200 %, and that nothing lies over what is being judged.
import { newTextLayer } from '../../core/layers/text.ts'
import type { Locator, Page } from '@playwright/test'
import { copyScene } from '../../core/show/create.ts'
import type { TestServer } from '../support/test-server.ts'
import { faultsOf } from './faults-of.ts'
import { expect, openBench, openStudio, test, turnTheme } from './studio.ts'

/** The picture on the stage, or something else, as a share of the window. */
async function shareOf(page: Page, target: Locator = page.getByTestId('stage')): Promise<number> {
  const box = (await target.boundingBox())!
  const { width, height } = page.viewportSize()!
  return (box.width * box.height) / (width * height)
}

/** Thirty scenes and 25 layers in the first, all with names of eighty letters. */
async function crowd(server: TestServer): Promise<void> {
  const { show, revision, id } = await server.shows.get('demo-brood-frame')
  let count = 0
  const makeId = () => `crowd-${(count += 1)}`
  const long = (n: number) => `Number ${n}, the scene of the evening with the longest name that anybody could think of`.slice(0, 80)
  const first = show.scenes[0]!
  const texts = Array.from({ length: 21 }, (_, i) => {
    const { layer, contents } = newTextLayer(long(i), 'a', show.canvas, makeId)
    return { contents, layer: { ...layer, placement: { ...layer.placement, x: 60 * i, y: 20, width: 40, height: 40 } } }
  })
  const scenes = Array.from({ length: 29 }, (_, i) => copyScene(show.scenes[i % 4]!, long(i + 2), makeId))
  const layers = [...first.layers, ...texts.map(({ layer }) => layer)]
  const contents = [...show.contents, ...texts.flatMap((text) => text.contents)]
  await server.shows.save(id, revision, { ...show, name: long(0), contents, scenes: [{ ...first, layers }, ...scenes] })
}

test('the stage takes at least 55 % of 1280×800 beside the inspector, and its picture 70 % without it', async ({ page, server }) => {
  await openStudio(page, server)
  const stage = page.getByRole('region', { name: 'Stage', exact: true })
  expect(await shareOf(page, stage)).toBeGreaterThanOrEqual(0.55)
  // Between a list of scenes and an inspector that can be read, a wide picture is as wide as what is left.
  const [stageBox, pictureBox] = [(await stage.boundingBox())!, (await page.getByTestId('stage').boundingBox())!]
  expect(stageBox.width - pictureBox.width).toBeLessThanOrEqual(20)
  await page.locator('[data-layer="Class title"]').click()
  expect(await page.getByTestId('stage').boundingBox()).toEqual(pictureBox)
  await page.getByRole('button', { name: 'Hide the inspector' }).click()
  await expect.poll(() => shareOf(page)).toBeGreaterThanOrEqual(0.7)
  await page.reload()
  await expect(page.getByTestId('stage')).toBeVisible()
  await expect.poll(() => shareOf(page), { message: 'folded still after a reload' }).toBeGreaterThanOrEqual(0.7)
})

test('at 1024×700 the inspector lies over the stage, opens and closes by button and Escape, and moves nothing', async ({ page, server }) => {
  await page.setViewportSize({ width: 1024, height: 700 })
  await openStudio(page, server)
  const before = await page.getByTestId('stage').boundingBox()
  await page.locator('[data-layer="Class title"]').click()
  await page.getByRole('button', { name: 'Show the inspector' }).click()
  const line = page.getByRole('textbox', { name: 'Line 1' })
  await expect(line).toBeVisible()
  expect(await page.getByTestId('stage').boundingBox()).toEqual(before)
  await line.focus()
  await page.keyboard.press('Escape')
  await expect(line).toHaveCount(0)
})

test('the scene list and the inspector are made wider by dragging and by keys, within bounds, and stay so', async ({ page, server }) => {
  await openStudio(page, server)
  const scenes = page.getByRole('separator', { name: 'Width of the scene list' })
  const inspector = page.getByRole('separator', { name: 'Width of the inspector' })
  await expect(scenes).toHaveAttribute('aria-valuenow', '120')
  await expect(inspector).toHaveAttribute('aria-valuenow', '240')
  const edge = (await inspector.boundingBox())!
  await page.mouse.move(edge.x + 4, edge.y + 300)
  await page.mouse.down()
  await page.mouse.move(edge.x - 46, edge.y + 300, { steps: 4 })
  await page.mouse.up()
  await expect(inspector).toHaveAttribute('aria-valuenow', '290')
  await scenes.press('ArrowRight')
  await expect(scenes).toHaveAttribute('aria-valuenow', '136')
  await scenes.press('End')
  await expect(scenes).toHaveAttribute('aria-valuenow', '280')
  await scenes.press('ArrowRight')
  await expect(scenes).toHaveAttribute('aria-valuenow', '280')
  const list = page.getByRole('complementary', { name: 'Scenes' })
  await expect.poll(async () => (await list.boundingBox())!.width).toBe(280)
  await page.reload()
  await expect(scenes).toHaveAttribute('aria-valuenow', '280')
  await expect(inspector).toHaveAttribute('aria-valuenow', '290')
  await scenes.dblclick()
  await inspector.dblclick()
  await expect(scenes).toHaveAttribute('aria-valuenow', '120')
  await expect(inspector).toHaveAttribute('aria-valuenow', '240')
})

test('scene names of 20 letters are whole, and thumbnails at least 96 px wide', async ({ page, server }) => {
  const { show, revision, id } = await server.shows.get('demo-brood-frame')
  const name = 'Questions at the end'
  expect(name).toHaveLength(20)
  await server.shows.save(id, revision, { ...show, scenes: show.scenes.map((scene, i) => (i === 0 ? { ...scene, name } : scene)) })
  await openStudio(page, server)
  const row = page.locator('[data-scene-id]').first()
  const words = row.getByText(name, { exact: true })
  expect(await words.evaluate((element) => [element.scrollHeight <= element.clientHeight, element.scrollWidth <= element.clientWidth])).toEqual([true, true])
  expect((await row.locator('canvas').boundingBox())!.width).toBeGreaterThanOrEqual(96)
})

for (const [width, height] of [
  [1024, 700],
  [1280, 800],
  [1920, 1080],
] as const) {
  test(`Build and Shows at ${width}×${height}: nothing clips or collides, with 30 scenes, 25 layers and names of 80 letters, in both themes`, async ({
    page,
    server,
  }) => {
    await crowd(server)
    await page.setViewportSize({ width, height })
    await openStudio(page, server)
    for (const layer of ['Desk camera', 'Class title']) {
      await page.locator(`[data-layer="${layer}"] button`).click()
      expect(await faultsOf(page), `${layer}`).toEqual([])
    }
    // What is beyond the edges is counted.
    await expect(page.locator('aside[aria-label="Scenes"]').getByText(/^\+\d+$/)).toBeVisible()
    await expect(page.getByLabel('Depth').getByText(/^\+\d+$/)).toBeVisible()
    await turnTheme(page)
    await page.getByRole('button', { name: 'Start feed' }).click()
    await expect(page.getByTestId('on-air-sign')).toBeVisible()
    expect(await faultsOf(page), 'on air, the other theme').toEqual([])
    await page.getByRole('link', { name: 'Green Room' }).click()
    await expect(page.getByRole('heading', { name: /^Number 0, the scene/ })).toBeVisible()
    expect(await faultsOf(page), 'shows').toEqual([])
  })
}

test('at 200 % everything stands under each other, nothing is cut off, and all of it can be reached', async ({ page, server }) => {
  // A window of 1280×800 enlarged twice is one of 640×400 to a page.
  await page.setViewportSize({ width: 640, height: 400 })
  await openStudio(page, server)
  await page.locator('[data-layer="Class title"]').click()
  const sideways = () => page.evaluate(() => document.documentElement.scrollWidth - innerWidth)
  expect(await sideways()).toBeLessThanOrEqual(0)
  for (const target of [
    page.getByTestId('stage'),
    page.getByRole('textbox', { name: 'Line 1' }),
    page.getByRole('button', { name: 'Closing card', exact: true }),
  ]) {
    await target.scrollIntoViewIfNeeded()
    await expect(target).toBeInViewport()
  }
  await page.getByRole('link', { name: 'Bench', exact: true }).click()
  expect(await sideways()).toBeLessThanOrEqual(0)
  for (const target of [page.getByTestId('bench-picture'), page.getByTestId('find-key'), page.getByTestId('histogram')]) {
    await target.scrollIntoViewIfNeeded()
    await expect(target).toBeInViewport()
  }
  await page.getByRole('link', { name: 'Green Room' }).click()
  await expect(page.getByRole('heading', { name: 'Your shows' })).toBeVisible()
  expect(await sideways()).toBeLessThanOrEqual(0)
})

test('messages never lie over the picture or the scopes', async ({ page, server }) => {
  const overlaps = async (selector: string) =>
    page.evaluate((what) => {
      const toasts = [...document.querySelectorAll('[data-sonner-toast]')].map((toast) => toast.getBoundingClientRect())
      const box = document.querySelector(what)!.getBoundingClientRect()
      return toasts.length === 0
        ? null
        : toasts.some((toast) => toast.left < box.right && toast.right > box.left && toast.top < box.bottom && toast.bottom > box.top)
    }, selector)
  await openStudio(page, server)
  await page.locator('[data-layer="Society mark"] button').click()
  await page.keyboard.press('Delete')
  await expect.poll(() => overlaps('[data-testid="stage"]')).toBe(false)
  await openBench(page, server, 'cloth')
  await page.getByRole('button', { name: 'Copy Coloured cloth' }).click()
  await page.getByRole('menuitem', { name: 'Apiary wall' }).click()
  // A message stays while the pointer is over it.
  await page.locator('[data-sonner-toast][data-front="true"]').hover()
  for (const [width, height] of [
    [1280, 800],
    [1024, 700],
  ] as const) {
    await page.setViewportSize({ width, height })
    await expect.poll(() => overlaps('[data-testid="bench-picture"]')).toBe(false)
    await expect.poll(() => overlaps('section[aria-label="Scopes"]')).toBe(false)
  }
})

test('inputs are renamed and removed on the bench, with where they are used; adding a camera asks which', async ({ page, server }) => {
  const { revision, show } = await server.shows.get('demo-brood-frame')
  await server.shows.save('demo-brood-frame', revision, { ...show, scenes: show.scenes.map((scene, i) => ({ ...scene, locked: i === 3 })) })
  await openBench(page, server, 'cloth')
  const showOf = async () => (await server.shows.get('demo-brood-frame')).show
  await page.getByRole('button', { name: 'More for Society mark' }).click()
  await page.getByRole('menuitem', { name: 'Rename' }).click()
  await page.keyboard.type('Drop of honey')
  await page.keyboard.press('Enter')
  await expect.poll(async () => (await showOf()).inputs[2]!.name).toBe('Drop of honey')
  await page.getByRole('button', { name: 'More for Drop of honey' }).click()
  await page.getByRole('menuitem', { name: 'Remove' }).click()
  await expect(page.getByText('It is used in Welcome, Closing card.')).toBeVisible()
  await page.getByRole('dialog').getByRole('button', { name: 'Remove' }).click()
  // A scene that uses it is locked: nothing was removed, and nothing says so.
  await expect(page.getByText('Closing card is locked. Unlock it to make changes.')).toBeVisible()
  expect(await page.getByText('Drop of honey removed').count()).toBe(0)
  await page.getByRole('button', { name: 'Unlock' }).click()
  await page.getByRole('button', { name: 'More for Drop of honey' }).click()
  await page.getByRole('menuitem', { name: 'Remove' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Remove' }).click()
  await expect(page.getByText('Drop of honey removed')).toBeVisible()
  await expect.poll(async () => (await showOf()).inputs.map((input) => input.name)).not.toContain('Drop of honey')
  expect((await showOf()).scenes.flatMap((scene) => scene.layers).some((layer) => layer.name === 'Society mark')).toBe(false)
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await showOf()).inputs.map((input) => input.name)).toContain('Drop of honey')
  await page.getByRole('button', { name: 'Add camera' }).click()
  await page.getByRole('menuitem', { name: 'Untidy room' }).click()
  await expect.poll(async () => (await showOf()).inputs.at(-1)).toMatchObject({ kind: 'camera', device: { type: 'standin', standin: 'untidyRoom' } })
  await expect(page.getByRole('link', { name: /^Camera 2/ })).toHaveAttribute('aria-current', 'true')
})

test('a scene’s picture in Shows opens the show at that scene', async ({ page, server }) => {
  await page.goto(`${server.studioUrl}/shows`)
  // Each is drawn, and shows something: the lightest and the darkest of its pixels are far apart.
  const ranges = () =>
    page.evaluate(() =>
      [...document.querySelectorAll<HTMLCanvasElement>('main canvas')].map((cover) => {
        const { data } = cover.getContext('2d')!.getImageData(0, 0, cover.width, cover.height)
        let [least, most] = [255, 0]
        for (let i = 1; i < data.length; i += 4) [least, most] = [Math.min(least, data[i]!), Math.max(most, data[i]!)]
        return most - least
      }),
    )
  await expect.poll(async () => (await ranges()).filter((range) => range > 60).length).toBeGreaterThanOrEqual(5)
  expect((await ranges()).every((range) => range > 60)).toBe(true)
  await page.getByRole('link', { name: 'Key points' }).click()
  await expect(page.getByRole('button', { name: 'Key points', exact: true })).toHaveAttribute('aria-current', 'true')
  await page.getByRole('link', { name: 'Green Room' }).click()
  await expect(page.getByText(/changed today \d+:\d\d/)).toBeVisible()
})
