// How scenes follow each other at the meeting: as the show has it, interrupted too, and never by way of anything else.
import type { Page } from '@playwright/test'
import { newInputLayer } from '../../core/layers/input.ts'
import { newScene } from '../../core/show/create.ts'
import { setSceneTransition, setUsualTransition } from '../../core/show/show-transitions.ts'
import type { Input, Show } from '../../core/show/show.ts'
import { usualTransitions, type Transition } from '../../core/transitions/index.ts'
import type { TestServer } from '../support/test-server.ts'
import { colourAt, expect, joinMeeting, openStudio, test } from './studio.ts'

const SHOW_ID = 'demo-brood-frame'

/** Red, blue and yellow, each a scene, and how they follow each other. */
async function withColours(server: TestServer, usual: Transition, change: (show: Show) => Show = (show) => show): Promise<void> {
  const { revision, show } = await server.shows.get(SHOW_ID)
  let count = 0
  const makeId = () => `colour-${(count += 1)}`
  const inputs = (['#c02020', '#2020c0', '#e0d020'] as const).map((colour): Input => ({ id: makeId(), kind: 'colour', name: colour, colour, treatment: [] }))
  const scenes = inputs.map((input, index) => ({
    ...newScene(['Red', 'Blue', 'Yellow'][index]!, makeId),
    id: `scene-${index}`,
    layers: [newInputLayer(input, show.canvas, makeId)],
  }))
  await server.shows.save(SHOW_ID, revision, change(setUsualTransition({ ...show, inputs, contents: [], scenes }, usual)))
}

async function onAir(page: Page, server: TestServer): Promise<Page> {
  await openStudio(page, server)
  await page.getByRole('button', { name: 'Start feed' }).click()
  const meeting = await joinMeeting(page.context(), server)
  await expect.poll(() => nameAt(meeting, 640), { timeout: 40_000 }).toBe('red')
  return meeting
}

/** Which of the scenes is seen at a column, in the middle of the height; their mixtures and all else are "between". */
async function nameAt(meeting: Page, x: number): Promise<string> {
  const [red, green, blue] = await colourAt(meeting, x, 360)
  if (red > 150 && green < 80 && blue < 80) return 'red'
  if (blue > 150 && red < 80 && green < 80) return 'blue'
  return red > 180 && green > 160 && blue < 90 ? 'yellow' : 'between'
}

test('a slow wipe is seen on its way: the next scene to the left, the one before to the right', async ({ page, server }) => {
  await withColours(server, { ...usualTransitions.wipe, durationMs: 8000, softness: 0.02 })
  const meeting = await onAir(page, server)
  await page.locator('main').press('2')
  await expect.poll(async () => `${await nameAt(meeting, 40)} ${await nameAt(meeting, 1240)}`).toBe('blue red')
  await expect.poll(() => nameAt(meeting, 1240), { timeout: 30_000 }).toBe('blue')
})

test('a scene comes by its own transition, the others by the default; interrupted, the picture goes on from where it was', async ({ page, server }) => {
  const slow = { ...usualTransitions.push, durationMs: 12_000 }
  await withColours(server, usualTransitions.cut, (show) => setSceneTransition(show, 'scene-1', slow))
  const meeting = await onAir(page, server)
  await page.locator('main').press('2')
  // Blue pushes red out to the left.
  await expect.poll(async () => `${await nameAt(meeting, 40)} ${await nameAt(meeting, 1240)}`, { timeout: 30_000 }).toBe('red blue')
  // The default is a cut.
  await page.locator('main').press('3')
  await expect.poll(async () => `${await nameAt(meeting, 40)} ${await nameAt(meeting, 1240)}`).toBe('yellow yellow')
  await page.locator('main').press('2')
  await expect.poll(async () => `${await nameAt(meeting, 40)} ${await nameAt(meeting, 1240)}`, { timeout: 30_000 }).toBe('yellow blue')
  await page.locator('main').press('1')
  await expect.poll(async () => `${await nameAt(meeting, 40)} ${await nameAt(meeting, 1240)}`).toBe('red red')
})

test('a transition is chosen in the inspector, plays on the stage alone, and is taken back by one step', async ({ page, server }) => {
  await withColours(server, usualTransitions.cut)
  const meeting = await onAir(page, server)
  await page.locator('[data-scene-id="scene-1"] [data-scene-button]').click()
  const own = page.getByRole('group', { name: 'Into this scene' })
  await own.getByRole('button', { name: /^Into this scene/ }).click()
  await page.getByRole('option', { name: 'Dissolve' }).click()
  await own.getByRole('slider', { name: 'Duration' }).fill('4')
  await expect.poll(async () => (await server.shows.get(SHOW_ID)).show.scenes[1]!.transition).toMatchObject({ kind: 'dissolve', durationMs: 4000 })
  await own.getByRole('button', { name: /^Play on the stage/ }).click()
  // On the stage red dissolves into blue; the meeting still has red.
  const stage = () =>
    page.evaluate(() => {
      const pen = new OffscreenCanvas(8, 8).getContext('2d', { willReadFrequently: true })!
      pen.drawImage(document.querySelector<HTMLCanvasElement>('[data-testid="stage"] canvas')!, 0, 0, 8, 8)
      return [...pen.getImageData(4, 4, 1, 1).data]
    })
  await expect
    .poll(async () => {
      const [red, , blue] = await stage()
      return red! > 60 && red! < 170 && blue! > 50 && blue! < 170
    })
    .toBe(true)
  expect(await nameAt(meeting, 640)).toBe('red')
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await server.shows.get(SHOW_ID)).show.scenes[1]!.transition).toBeNull()
})
