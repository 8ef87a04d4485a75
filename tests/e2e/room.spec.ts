// The person is found without a cloth, on this machine alone.
import { chromium, type Browser, type Page } from '@playwright/test'
import sharp from 'sharp'
import '../../app/engine/diagnostics.ts'
import type { I420Picture } from '../../core/picture/picture.ts'
import { standinCameras } from '../../core/show/show.ts'
import { inputFile } from '../references/cases.ts'
import { CHROMIUM, CHROMIUM_FLAGS } from '../support/chromium.ts'
import { rgbaToI420 } from '../support/i420.ts'
import { writeStillY4m } from '../support/y4m.ts'
import { addStep, benchPixels, expect, FULL_RATE, openBench, switchStep, test } from './studio.ts'
import { nodeCamera } from '../../standins/camera/node-camera.ts'

test.use({ frameRate: FULL_RATE })

const untidyRoom = () => nodeCamera({ standin: 'untidyRoom' })

/** Hides the room and shows the matte. */
async function hideRoom(page: Page): Promise<void> {
  for (const kind of ['crop', 'chromaKey']) await switchStep(page, kind)
  await addStep(page, 'Behind you')
  await page.getByRole('button', { name: /^Room/ }).click()
  await page.getByRole('option', { name: 'Hidden' }).click()
  await page.getByText('Matte', { exact: true }).first().click()
  // The model has answered once the middle of the picture is opaque and a corner is not.
  const isFound = async () => {
    const matte = await benchPixels(page)
    return matte[250 * 640 + 320]! > 250 && matte[20 * 640 + 20]! < 10
  }
  await expect.poll(isFound, { timeout: 40_000 }).toBe(true)
}

test('the person in an untidy room is found: overlap with the true matte at least 0.92; nothing leaves the machine', async ({ page, server }) => {
  const foreign: string[] = []
  page.context().on('request', (request) => {
    const { hostname, protocol } = new URL(request.url())
    if (protocol.startsWith('http') && hostname !== 'localhost' && hostname !== '127.0.0.1') foreign.push(request.url())
  })
  await openBench(page, server, 'untidyRoom')
  await hideRoom(page)
  const camera = await untidyRoom()
  const overlaps: Overlap[] = []
  // The hand is up for three seconds in every eleven (standins/camera/drawn-camera.ts): one picture in four, as often as a watcher meets it.
  for (const isHandUp of [false, true, false, false]) {
    // Figures come twice a second.
    await expect
      .poll(
        async () => {
          const frameNumber = await frameNumberOf(page)
          const phase = (frameNumber / 30 + 4) % 11
          if (frameNumber < 0) return false
          return isHandUp ? phase > 0.7 && phase < 1.6 : phase > 3.2 && phase < 9.5
        },
        { timeout: 30_000, intervals: [150] },
      )
      .toBe(true)
    await page.getByRole('button', { name: 'Freeze' }).click()
    // The picture is held once its number no longer changes; its mask follows sooner.
    let held = -1
    const isHeld = async () => {
      const before = held
      held = await frameNumberOf(page)
      return held >= 0 && held === before
    }
    await expect.poll(isHeld, { intervals: [1100] }).toBe(true)
    overlaps.push(overlapOf(await benchPixels(page), camera.matte(((held + 0.5) * 1000) / 30)))
    await page.getByRole('button', { name: 'Frozen' }).click()
    await expect.poll(() => frameNumberOf(page)).not.toBe(held)
  }
  const figures = overlaps.map(({ both, either }) => (both / either).toFixed(3)).join(' ')
  const sum = (of: (overlap: Overlap) => number) => overlaps.reduce((total, overlap) => total + of(overlap), 0)
  // Over all four pictures, as segmentation is scored. A waving hand is found less well than a head: 0.861 to 0.947, by where it is in its wave.
  expect(sum(({ both }) => both) / sum(({ either }) => either), figures).toBeGreaterThanOrEqual(0.92)
  const handDown = [overlaps[0]!, ...overlaps.slice(2)]
  for (const { both, either } of handDown) expect(both / either, figures).toBeGreaterThanOrEqual(0.92)
  expect(foreign).toEqual([])
})

/** The number of the newest picture; -1 while there is none, as after the engine of a stalled machine was started again. */
const frameNumberOf = (page: Page) => page.evaluate(() => Object.values(window.greenRoom?.stats()?.inputs ?? {})[0]?.frameNumber ?? -1)

interface Overlap {
  readonly both: number
  readonly either: number
}

/** Pixels in both and in either (intersection and union) of what is more than half opaque; the matte has twice the size. */
function overlapOf(found: readonly number[], truth: Uint8Array): Overlap {
  let both = 0
  let either = 0
  for (let y = 0; y < 360; y += 1) {
    for (let x = 0; x < 640; x += 1) {
      const isFound = found[y * 640 + x]! > 127
      const isTrue = truth[2 * y * 1280 + 2 * x]! > 127
      if (isFound && isTrue) both += 1
      if (isFound || isTrue) either += 1
    }
  }
  return { both, either }
}

/** A browser whose only camera shows a file, and that can reach no other machine. */
async function withCameraFile(file: string, studioUrl: string, run: (page: Page) => Promise<void>): Promise<void> {
  const browser: Browser = await chromium.launch({
    executablePath: CHROMIUM,
    args: [
      ...CHROMIUM_FLAGS,
      '--use-fake-ui-for-media-stream',
      '--use-fake-device-for-media-stream=fps=30',
      `--use-file-for-fake-video-capture=${file}`,
      '--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE localhost, EXCLUDE 127.0.0.1',
    ],
  })
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    await page.goto(`${studioUrl}/show/demo-brood-frame/bench`)
    await page.getByTestId('device-card').getByRole('button').first().click()
    const device = page.getByTestId('device')
    await device.getByRole('button').click()
    await expect(page.getByRole('option')).toHaveCount(standinCameras.length + 1)
    await page.getByRole('option').first().click()
    await expect(page.getByText(/^Live · \d+×\d+$/)).toBeVisible()
    await page.getByTestId('device-card').getByRole('button').first().click()
    await run(page)
  } finally {
    await browser.close()
  }
}

test('edges don’t crawl: on still frames with grain the matte changes by at most one percent', async ({ server }) => {
  const still = (await untidyRoom()).picture(3000)
  await withCameraFile(writeStillY4m(still, 24, 1.6), server.studioUrl, async (page) => {
    await hideRoom(page)
    // Settled: a dozen masks later.
    const start = await page.evaluate(() => performance.now())
    await page.waitForFunction((from) => performance.now() - from > 1500, start)
    let before = await benchPixels(page)
    const changes: number[] = []
    for (let round = 0; round < 6; round += 1) {
      const now = await benchPixels(page)
      changes.push(now.reduce((sum, value, i) => sum + Math.abs(value - before[i]!), 0) / now.length / 255)
      before = now
    }
    const mean = changes.reduce((sum, change) => sum + change, 0) / changes.length
    expect(mean, changes.join(' ')).toBeLessThanOrEqual(0.01)
  })
})

test('the person on a photograph is found (NASA portrait of an astronaut, public domain, as scikit-image 0.19 ships it)', async ({ server }) => {
  await withCameraFile(writeStillY4m(await photograph(), 8, 0.8), server.studioUrl, async (page) => {
    await hideRoom(page)
    const matte = await benchPixels(page)
    const at = (x: number, y: number) => matte[y * 640 + x]!
    // Face, both shoulders and the chest are hers; wall, model and what is beside the picture are not. (The flag that touches her
    // hair is partly taken for her: nothing is claimed about it.)
    for (const [x, y] of [
      [298, 84],
      [217, 232],
      [350, 210],
      [285, 215],
    ] as const)
      expect(at(x, y), `${x},${y}`).toBeGreaterThan(230)
    for (const [x, y] of [
      [372, 42],
      [600, 180],
      [40, 180],
    ] as const)
      expect(at(x, y), `${x},${y}`).toBeLessThan(25)
  })
})

/** The square portrait in the middle of a wide grey picture, as a camera would frame it. */
async function photograph(): Promise<I420Picture> {
  const { data } = await sharp(inputFile('astronaut.png'))
    .resize(720, 720)
    .extend({ left: 280, right: 280, background: '#8a8a88' })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
  return rgbaToI420({ format: 'rgba', widthPx: 1280, heightPx: 720, data: new Uint8Array(data) })
}
