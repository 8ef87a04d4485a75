// Working inside a group: by the pointer on the stage, by keys in the strip, by numbers; and out of it again.
import type { Locator, Page } from '@playwright/test'
import { LIMITS } from '../../core/schema/limits.ts'
import type { GroupLayer, Show } from '../../core/show/show.ts'
import type { TestServer } from '../support/test-server.ts'
import { expect, openStudio, setNumber, test } from './studio.ts'

const inspectorOf = (page: Page): Locator => page.getByRole('complementary', { name: 'Selected layer' })
const paneOf = (page: Page, name: string): Locator => page.getByTestId('depth').locator(`[data-layer="${name}"] button`)
/** A message may lie over the lower part of the first panes for a while. */
const pressTop = (page: Page, name: string) => paneOf(page, name).click({ position: { x: 50, y: 8 } })
const names = (page: Page) =>
  page
    .getByTestId('depth')
    .getByRole('listitem')
    .evaluateAll((panes) => panes.map((pane) => (pane as HTMLElement).dataset['layer']))

/** A point of the canvas on the screen. */
async function at(page: Page, x: number, y: number): Promise<readonly [number, number]> {
  const box = (await page.getByTestId('stage').boundingBox())!
  return [box.x + (x * box.width) / 1280, box.y + (y * box.width) / 1280]
}

/** What is saved of the group, once it says something. */
async function expectGroup(server: TestServer, holds: (group: GroupLayer | undefined, show: Show) => unknown, message: string): Promise<void> {
  await expect
    .poll(
      async () => {
        const { show } = await server.shows.get('demo-brood-frame')
        return holds(
          show.scenes[0]!.layers.find((layer) => layer.kind === 'group'),
          show,
        )
      },
      { message },
    )
    .toBeTruthy()
}

/** Title and mark in a group that is shown at half size, its corner at 320, 180. */
async function withGroup(page: Page): Promise<void> {
  await paneOf(page, 'Class title').click()
  await paneOf(page, 'Society mark').click({ modifiers: ['Shift'] })
  await inspectorOf(page).getByRole('button', { name: 'Group' }).click()
  await expect(inspectorOf(page).getByText('2 layers as a group')).toBeVisible()
  for (const [label, value] of [
    ['Width', '640'],
    ['Height', '360'],
    ['X', '320'],
    ['Y', '180'],
  ] as const)
    await setNumber(page, label, value)
}

const titleIn = (group: GroupLayer | undefined) => group?.layers.find(({ name }) => name === 'Class title')
const isNear = (value: number | undefined, wanted: number, within = 2) => value !== undefined && Math.abs(value - wanted) <= within
const field = (page: Page, label: string) => page.getByRole('spinbutton', { name: label, exact: true })

test('a press twice opens a group; what is in it is dragged, copied and removed where it is seen', async ({ page, server }) => {
  await openStudio(page, server)
  const before = (await server.shows.get('demo-brood-frame')).show.scenes[0]!.layers.find(({ name }) => name === 'Class title')!.placement
  await withGroup(page)
  await page.mouse.dblclick(...(await at(page, 320 + (before.x + 40) / 2, 180 + (before.y + before.height / 2) / 2)))
  await expect(inspectorOf(page).getByRole('button', { name: 'In Group' })).toBeVisible()
  await expect(page.getByTestId('open-group')).toBeVisible()
  expect(await names(page)).toEqual(['Class title', 'Society mark'])
  // Numbers are those of the scene's canvas.
  await expect(field(page, 'X')).toHaveValue(String(Math.round(320 + before.x / 2)))
  await expect(field(page, 'Width')).toHaveValue(String(Math.round(before.width / 2)))

  // Dragged by forty on the canvas it moves by eighty in a group at half size. Control: no line holds it.
  const [x, y] = [320 + (before.x + 40) / 2, 180 + (before.y + before.height / 2) / 2]
  await page.mouse.move(...(await at(page, x, y)))
  await page.mouse.down()
  await page.keyboard.down('Control')
  await page.mouse.move(...(await at(page, x + 20, y - 15)), { steps: 3 })
  await page.mouse.move(...(await at(page, x + 40, y - 30)), { steps: 3 })
  await page.mouse.up()
  await page.keyboard.up('Control')
  await expectGroup(
    server,
    (group) => isNear(titleIn(group)?.placement.x, before.x + 80) && isNear(titleIn(group)?.placement.y, before.y - 60),
    'moved by twice as much inside',
  )
  // By a key: one pixel of the canvas.
  const moved = (await server.shows.get('demo-brood-frame')).show.scenes[0]!.layers.find((layer) => layer.kind === 'group')
  await page.getByRole('application').press('ArrowRight')
  await expectGroup(server, (group) => isNear(titleIn(group)?.placement.x, titleIn(moved)!.placement.x + 2, 0.01), 'one pixel of the canvas')

  // What is added comes into the group, as large on the canvas as it would be in the scene.
  await page.getByRole('button', { name: 'Add text' }).click()
  await expect.poll(() => names(page)).toEqual(['Class title', 'Society mark', 'Text'])
  const width = Number(await field(page, 'Width').inputValue())
  await expectGroup(
    server,
    (group) => Math.abs((group?.layers.find(({ name }) => name === 'Text')?.placement.width ?? 0) - width * 2) <= 2,
    'twice as wide inside',
  )
  await page.getByRole('application').press('Control+z')
  await expect.poll(() => names(page)).toEqual(['Class title', 'Society mark'])
  await pressTop(page, 'Class title')

  // A copy stays in the group, in front of what it is a copy of.
  await page.getByRole('application').press('Control+d')
  await expect.poll(() => names(page)).toEqual(['Class title', 'Class title', 'Society mark'])
  await page.getByRole('application').press('Delete')
  await expect.poll(() => names(page)).toEqual(['Class title', 'Society mark'])
  // Nothing is selected then, and it is still the group that is worked in.
  await expect(page.getByTestId('open-group')).toBeVisible()
  await pressTop(page, 'Society mark')
  await page.getByRole('application').press('Escape')
  await expect(inspectorOf(page).getByText('2 layers as a group')).toBeVisible()
  await expect.poll(() => names(page)).toEqual(['Apiary wall', 'Desk camera', 'Group'])

  // Copied in the scene and pasted in the group it is in the group, where it was seen.
  await pressTop(page, 'Desk camera')
  await page.getByRole('application').press('Control+c')
  await paneOf(page, 'Group').dblclick()
  await page.getByRole('application').press('Control+v')
  await expect.poll(() => names(page)).toEqual(['Class title', 'Society mark', 'Desk camera'])
  await expect(field(page, 'Width')).toHaveValue('1280')
  await page.getByRole('application').press('Control+z')
  await page.getByRole('application').press('Escape')

  // By name from the inspector; a press on what is not in the group leaves it.
  await inspectorOf(page).getByRole('button', { name: 'Society mark' }).click()
  await expect(page.getByTestId('open-group')).toBeVisible()
  await page.mouse.click(...(await at(page, 640, 690)))
  await expect(page.getByTestId('open-group')).toHaveCount(0)
  await expect(inspectorOf(page).getByRole('heading', { name: 'Desk camera' })).toBeVisible()
})

test('by keys alone: into a group, along it, in another order, out again; the last of it takes the group along, undo brings it back', async ({
  page,
  server,
}) => {
  await openStudio(page, server)
  await withGroup(page)
  await paneOf(page, 'Group').focus()
  await page.keyboard.press('ArrowDown')
  await expect(paneOf(page, 'Society mark')).toBeFocused()
  await page.keyboard.press('Shift+ArrowLeft')
  await expect.poll(() => names(page)).toEqual(['Society mark', 'Class title'])
  await expect(paneOf(page, 'Society mark')).toBeFocused()
  await expectGroup(server, (group) => group?.layers.map(({ name }) => name).join() === 'Society mark,Class title', 'in another order')
  await page.keyboard.press('ArrowUp')
  await expect(paneOf(page, 'Group')).toBeFocused()
  await expect.poll(() => names(page)).toEqual(['Apiary wall', 'Desk camera', 'Group'])
  // On the stage Shift and Enter lead in.
  await page.getByRole('application').press('Shift+Enter')
  await expect.poll(() => names(page)).toEqual(['Society mark', 'Class title'])
  await page.getByRole('application').press('Control+a')
  await expect(inspectorOf(page).getByRole('heading', { name: '2 layers' })).toBeVisible()
  await page.getByRole('application').press('Delete')
  await expect.poll(() => names(page)).toEqual(['Apiary wall', 'Desk camera'])
  await expectGroup(server, (group) => group === undefined, 'the group is gone')
  await page.getByRole('application').press('Control+z')
  await expect.poll(() => names(page)).toEqual(['Apiary wall', 'Desk camera', 'Group'])
})

test('the forty-first layer is not begun: it says why and what to do, and what is there stays saved', async ({ page, server }) => {
  const { show, revision, id } = await server.shows.get('demo-brood-frame')
  const [welcome, ...rest] = show.scenes
  const mark = welcome!.layers.find(({ name }) => name === 'Society mark')!
  const many = Array.from({ length: LIMITS.layers - welcome!.layers.length }, (_, i) => ({ ...mark, id: `many${i}`, name: `Mark ${i}` }))
  await server.shows.save(id, revision, { ...show, scenes: [{ ...welcome!, layers: [...welcome!.layers, ...many] }, ...rest] })
  await openStudio(page, server)
  await expect(page.getByTestId('depth').getByRole('listitem')).toHaveCount(LIMITS.layers)
  await page.getByRole('button', { name: 'Add text' }).click()
  await expect(page.getByText('A scene or group can have 40 layers.')).toBeVisible()
  await expect(page.getByTestId('depth').getByRole('listitem')).toHaveCount(LIMITS.layers)
  // A copy too; and what was selected stays so.
  await paneOf(page, 'Mark 0').click()
  await page.getByRole('application').press('Control+d')
  await expect(page.getByText('A scene or group can have 40 layers.')).toBeVisible()
  await expect(inspectorOf(page).getByRole('heading', { name: 'Mark 0' })).toBeVisible()
  await expect(page.getByTestId('depth').getByRole('listitem')).toHaveCount(LIMITS.layers)
  // Grouped, as it says, there is room again.
  await paneOf(page, 'Mark 0').click()
  await paneOf(page, 'Mark 1').click({ modifiers: ['Control'] })
  await inspectorOf(page).getByRole('button', { name: 'Group' }).click()
  await page.getByRole('button', { name: 'Add text' }).click()
  await expect(page.getByTestId('depth').getByRole('listitem')).toHaveCount(LIMITS.layers)
  await expectGroup(server, (_, now) => now.scenes[0]!.layers.length === LIMITS.layers && now.scenes[0]!.layers.some(({ kind }) => kind === 'group'), 'saved')
})

test('a scene more than a show takes is not begun, from nothing, by a copy or from a layout; the one on the stage stays', async ({ page, server }) => {
  const { show, revision, id } = await server.shows.get('demo-brood-frame')
  const more = Array.from({ length: LIMITS.scenes - show.scenes.length }, (_, i) => ({ ...show.scenes[0]!, id: `more${i}`, name: `More ${i}`, layers: [] }))
  await server.shows.save(id, revision, { ...show, scenes: [...show.scenes, ...more] })
  await openStudio(page, server)
  for (const name of ['New scene', 'New scene from a layout']) {
    await page.getByRole('button', { name, exact: true }).click()
    await expect(page.getByText('A show can have 60 scenes.')).toBeVisible()
    expect(await names(page)).toEqual(['Apiary wall', 'Desk camera', 'Class title', 'Society mark'])
  }
  await page
    .getByRole('button', { name: /^More for / })
    .first()
    .click()
  await page.getByRole('menuitem', { name: 'Duplicate' }).click()
  await expect.poll(() => names(page)).toEqual(['Apiary wall', 'Desk camera', 'Class title', 'Society mark'])
  expect((await server.shows.get('demo-brood-frame')).show.scenes).toHaveLength(LIMITS.scenes)
})
