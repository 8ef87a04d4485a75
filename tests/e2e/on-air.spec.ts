// What the audience gets changes only when the presenter says so, and the studio always tells what it is.
import { newInputLayer } from '../../core/layers/input.ts'
import type { Page } from '@playwright/test'
import { BARE_SCENE } from '../../core/show/create.ts'
import type { Show } from '../../core/show/show.ts'
import type { TestServer } from '../support/test-server.ts'
import { choose, colourAt, expect, FULL_RATE, joinMeeting, openStudio, test } from './studio.ts'

/** A show whose only scene is plain red. */
function redShow(show: Show): Show {
  const red = { id: 'red', kind: 'colour', name: 'Red', colour: '#d01818', treatment: [] } as const
  const layer = newInputLayer(red, show.canvas, () => 'red-layer')
  return { ...show, name: 'Another evening', inputs: [red], scenes: [{ ...BARE_SCENE, id: 'red-scene', name: 'All red', layers: [layer] }] }
}

async function addRedShow(server: TestServer): Promise<void> {
  await server.shows.create(redShow((await server.shows.get('demo-brood-frame')).show), 'another')
}

const isRed = async (meeting: Page) => {
  const [red, green] = await colourAt(meeting, 640, 60)
  return red - green > 100
}

/** The meeting goes on for a while without a picture of the other show. */
async function expectStays(meeting: Page): Promise<void> {
  for (let i = 0; i < 3; i += 1) {
    await meeting.evaluate(
      () =>
        new Promise<void>((resolve) => {
          let frames = 0
          const video = document.querySelector<HTMLVideoElement>('#others')!
          const count = () => void ((frames += 1) < 4 ? video.requestVideoFrameCallback(count) : resolve())
          video.requestVideoFrameCallback(count)
        }),
    )
    expect(await isRed(meeting)).toBe(false)
  }
}

test('the sign, the control and the tab’s title tell what is on air, on every page', async ({ page, server }) => {
  await openStudio(page, server)
  await expect(page).toHaveTitle('Reading a brood frame · Build · Green Room')
  await page.getByRole('button', { name: 'Start feed' }).click()
  await expect(page.getByRole('button', { name: 'Stop feed' })).toBeFocused()
  await expect(page.getByTestId('notice')).toContainText('In your meeting, choose Green Room Camera')
  for (const go of [
    () => page.getByRole('link', { name: 'Bench', exact: true }).click(),
    () => page.getByRole('link', { name: 'Green Room' }).click(),
    () => page.getByRole('link', { name: 'Open: Reading a brood frame' }).click(),
  ]) {
    await go()
    await expect(page.getByTestId('on-air-sign')).toContainText('Welcome')
    await expect(page).toHaveTitle('● On air: Welcome')
    expect(await page.locator('link[rel=icon]').getAttribute('href')).toBe('/favicon-on-air.svg')
  }
  await page.getByRole('link', { name: 'Green Room' }).click()
  await page.getByRole('button', { name: 'Stop feed' }).click()
  await expect(page).toHaveTitle('Your shows · Green Room')
  expect(await page.locator('link[rel=icon]').getAttribute('href')).toBe('/favicon.svg')
  await expect(page.getByTestId('on-air-sign')).toHaveCount(0)
})

test('opening another show leaves the old scene on air until another is taken; a reload too', async ({ page, context, server }) => {
  await addRedShow(server)
  await openStudio(page, server)
  await page.getByRole('button', { name: 'Start feed' }).click()
  const meeting = await joinMeeting(context, server)
  await expect.poll(async () => (await colourAt(meeting, 640, 60)).every((value) => value > 80), { timeout: 30_000 }).toBe(true)
  await page.bringToFront()
  await page.getByRole('link', { name: 'Green Room' }).click()
  await expectStays(meeting)
  await page.getByRole('link', { name: 'Open: Another evening' }).click()
  await expect(page.getByTestId('notice')).toContainText('Welcome from Reading a brood frame is still on air')
  await expect(page).toHaveTitle('● On air: Welcome')
  await expectStays(meeting)
  await page.reload()
  await expect(page.getByTestId('on-air-sign')).toContainText('Welcome')
  await expect(meeting.locator('#status')).toHaveText(/^In the meeting with Green Room Camera/)
  await expectStays(meeting)
  await page.getByRole('button', { name: 'Put on air' }).click()
  await expect.poll(() => isRed(meeting), { timeout: 20_000 }).toBe(true)
  await expect(page).toHaveTitle('● On air: All red')
})

test('the scene on air cannot be deleted; one that vanishes by an undo stays on air, and comes back', async ({ page, context, server }) => {
  await openStudio(page, server)
  await page.getByRole('button', { name: 'More for Just me' }).click()
  await page.getByRole('menuitem', { name: 'Duplicate' }).click()
  const copy = page.getByRole('button', { name: 'Just me, copy', exact: true })
  await expect(copy).toHaveAttribute('aria-current', 'true')
  await page.getByRole('button', { name: 'Start with this scene' }).click()
  await page.getByRole('button', { name: 'Start feed' }).click()
  const meeting = await joinMeeting(context, server)
  await page.bringToFront()
  await page.getByRole('button', { name: 'More for Just me, copy' }).click()
  await expect(page.getByRole('menuitem', { name: /^Delete.*put another scene on air first/ })).toBeDisabled()
  await page.keyboard.press('Escape')
  // Undo takes the copy back; the audience notices nothing.
  await page.keyboard.press('Control+z')
  await expect(copy).toHaveCount(0)
  await expect(page.getByTestId('notice')).toContainText('Just me, copy is still on air, although it was deleted')
  await expect(page).toHaveTitle('● On air: Just me, copy')
  await expect.poll(() => page.evaluate(() => window.greenRoom!.stats()?.feed.showsCard)).toBe(false)
  expect(await meeting.locator('#status').textContent()).toContain('In the meeting')
  await page.keyboard.press('Control+Shift+z')
  await expect(copy).toHaveAccessibleDescription('On air')
  await expect(page.getByText('although it was deleted')).toHaveCount(0)
})

test('with the feed off a scene is made first on air, and marked so', async ({ page, server }) => {
  await openStudio(page, server)
  await page.getByRole('button', { name: 'Closing card', exact: true }).click()
  await page.getByRole('button', { name: 'Start with this scene' }).click()
  await expect(page.getByRole('button', { name: 'Start with this scene' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Hide the inspector' }).click()
  await expect(page.getByRole('button', { name: 'Closing card', exact: true })).toHaveAccessibleDescription('First')
  await page.getByRole('button', { name: 'Start feed' }).click()
  await expect(page.getByTestId('on-air-sign')).toContainText('Closing card')
})

test('only the tab that edits may start the feed; the other says why', async ({ page, context, server }) => {
  await openStudio(page, server)
  const second = await context.newPage()
  await openStudio(second, server)
  await expect(second.getByText('Start the feed there.')).toBeVisible()
  await expect(second.getByRole('button', { name: 'Start feed' })).toBeDisabled()
  await second.getByRole('button', { name: 'Edit here' }).click()
  await expect(second.getByRole('button', { name: 'Start feed' })).toBeEnabled()
  await expect(page.getByRole('button', { name: 'Start feed' })).toBeDisabled()
})

test('a refused camera is told on the stage and in the inspector, with what they see, and mended in place', async ({ page, server }) => {
  const { show, revision, id } = await server.shows.get('demo-brood-frame')
  const device = { type: 'device', deviceId: 'desk', label: 'Desk webcam' } as const
  await server.shows.save(id, revision, { ...show, inputs: show.inputs.map((input) => (input.kind === 'camera' ? { ...input, device } : input)) })
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () => Promise.reject(new DOMException('no', 'NotAllowedError'))
    navigator.mediaDevices.enumerateDevices = () =>
      Promise.resolve([{ kind: 'videoinput', deviceId: 'desk', label: 'Desk webcam', groupId: '', toJSON: () => ({}) } as MediaDeviceInfo])
  })
  await page.goto(server.studioUrl)
  const trouble = page.getByTestId('stage-trouble')
  await expect(trouble).toContainText('Desk camera: not allowed')
  await expect(trouble).toContainText('Allow it in the address bar')
  await expect(page.getByText('Starting the picture')).toHaveCount(0)
  await page.locator('[data-layer="Desk camera"]').click()
  await expect(page.locator('.build-inspector').getByText('Not allowed.')).toBeVisible()
  await page.getByRole('button', { name: 'Start feed' }).click()
  await expect(trouble).toContainText('The audience sees the holding card: Desk camera: not allowed')
  await expect(page.getByText('holding card ·')).toBeVisible()
  await trouble.getByRole('button', { name: 'Try again' }).click()
  await expect(trouble).toContainText('not allowed')
  await choose(page, trouble.getByTestId('device'), 'Stand-in: Presenter, green cloth')
  await expect(trouble).toHaveCount(0)
  await expect.poll(() => page.evaluate(() => window.greenRoom!.stats()?.feed.showsCard)).toBe(false)
})

test('a camera that gives fewer pictures than the show asks for is said apart from what was lost', async ({ page, server }) => {
  const { show, revision, id } = await server.shows.get('demo-brood-frame')
  const canvas = { ...show.canvas, frameRate: FULL_RATE }
  const inputs = show.inputs.map((input) => (input.kind === 'camera' ? { ...input, frameRate: 15 } : input))
  await server.shows.save(id, revision, { ...show, canvas, inputs })
  await openStudio(page, server)
  await page.getByRole('button', { name: 'Start feed' }).click()
  await expect(page.getByText(/camera sends 1\d/)).toBeVisible()
})

test('numbers take scenes on air from any page, 0 shows the card and goes back, letters in a field are only letters', async ({ page, server }) => {
  await openStudio(page, server)
  const sign = page.getByTestId('on-air-sign')
  // Nothing is on air: a number is no reason to change what will be.
  await page.keyboard.press('2')
  await expect(page.getByRole('button', { name: 'Start feed' })).toBeVisible()
  await page.getByRole('button', { name: 'Start feed' }).click()
  await expect(sign).toContainText('Welcome')
  await page.keyboard.press('2')
  await expect(sign).toContainText('Just me')
  await page.getByRole('link', { name: 'Bench' }).click()
  await page.keyboard.press('3')
  await expect(sign).toContainText('Key points')
  // A slider takes a digit for its own number.
  await page.getByTestId('step-tone').getByRole('button').first().click()
  await page.getByRole('slider', { name: 'Exposure' }).press('1')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('spinbutton', { name: 'Exposure', exact: true })).toHaveValue(/^1/)
  await expect(sign).toContainText('Key points')
  // Away from the slider, which would take the next digit too.
  await page.locator('main').focus()
  const showsCard = () => page.evaluate(() => window.greenRoom!.stats()!.feed.showsCard)
  await expect.poll(showsCard).toBe(false)
  await page.keyboard.press('0')
  await expect.poll(showsCard).toBe(true)
  // Nothing says any more that the scene is what the audience sees.
  await expect(sign).toHaveText(/^Holding card\d+:\d\d$/)
  await expect(page).toHaveTitle('● On air: holding card')
  await page.keyboard.press('0')
  await expect.poll(showsCard).toBe(false)
  await page.keyboard.press('0')
  await page.keyboard.press('1')
  await expect(sign).toContainText('Welcome')
  await expect.poll(showsCard).toBe(false)
  // Whoever speaks to the machine switches them off (WCAG 2.2, 2.1.4).
  await page.getByRole('button', { name: 'Settings' }).click()
  await page.getByRole('switch', { name: 'Single keys (M, 0, 1 to 9) work in every view' }).click()
  await page.keyboard.press('Escape')
  await page.keyboard.press('2')
  await page.keyboard.press('m')
  await expect(page.getByRole('button', { name: 'Mute your voice (M)' })).toBeVisible()
  await expect(sign).toContainText('Welcome')
})
