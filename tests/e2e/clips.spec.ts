// Clips against ffprobe (when each picture begins) and ffmpeg (its pixels; libvips for WebP): tests/fixtures/clips/facts.json, written by
// scripts/make-clip-fixtures.mjs. The clip's own thread is asked, as the engine would.
import { createHash } from 'node:crypto'
import { readdirSync, readFileSync, truncateSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import type { Page } from '@playwright/test'
import sharp from 'sharp'
import type { ClipWish, FromClip, ToClip } from '../../engine/clip/clip-protocol.ts'
import type { PortFrame } from '../../engine/protocol.ts'
import facts from '../fixtures/clips/facts.json' with { type: 'json' }
import type { TestServer } from '../support/test-server.ts'
import { expect, FULL_RATE, openStudio, test } from './studio.ts'

test.use({ frameRate: FULL_RATE })

const root = path.resolve(path.dirname(new URL(import.meta.url).pathname), '../..')
const folder = path.join(root, 'tests/fixtures/clips')
const workerUrl = `/assets/${readdirSync(path.join(root, 'dist/app/assets')).find((name) => name.startsWith('clip.worker'))!}`
const WHOLE: ClipWish = { fromUs: 0, toUs: null, rate: 1, loops: true }

interface Seen {
  readonly mediaUs: number
  readonly widthPx: number
  readonly heightPx: number
  readonly md5: string
  readonly data: Buffer
}

/** The first pictures that a clip posts, and why it stopped if it did. */
async function played(
  page: Page,
  server: TestServer,
  name: string,
  wish: ClipWish,
  count: number,
  /** Whether it is told to play with the first word, or a moment later, while its file is still being opened. */
  playsAtOnce = true,
): Promise<{ readonly seen: readonly Seen[]; readonly failure: string | null; readonly skipped: number }> {
  const { hash } = await server.assets.add(fileOf(name), name)
  const answer = await page.evaluate(
    ({ url, file, wanted, most, atOnce }) =>
      new Promise<{ frames: { mediaUs: number; widthPx: number; heightPx: number; base64: string }[]; failure: string | null; skipped: number }>((resolve) => {
        const worker = new Worker(url, { type: 'module' })
        const { port1, port2 } = new MessageChannel()
        const frames: { mediaUs: number; widthPx: number; heightPx: number; base64: string }[] = []
        let skipped = 0
        const end = (failure: string | null) => {
          worker.terminate()
          resolve({ frames: frames.slice(0, most), failure, skipped })
        }
        port2.onmessage = ({ data }: MessageEvent<PortFrame>) => {
          let text = ''
          for (const byte of data.data) text += String.fromCharCode(byte)
          frames.push({ mediaUs: data.mediaUs!, widthPx: data.widthPx, heightPx: data.heightPx, base64: btoa(text) })
          port2.postMessage({ type: 'return', data: data.data }, [data.data.buffer])
          // What was let go until then is told with the answer to this.
          if (frames.length === most) worker.postMessage({ type: 'pause' } satisfies ToClip)
        }
        worker.onmessage = ({ data }: MessageEvent<FromClip>) => {
          if (data.type === 'failed') end(data.reason)
          else {
            skipped = data.report.skipped
            if (data.report.isOver) setTimeout(() => end(null))
            else if (frames.length >= most && !data.report.isPlaying) end(null)
          }
        }
        const message: ToClip = { type: 'start', url: file, port: port1, wish: wanted, plays: atOnce }
        worker.postMessage(message, [port1])
        if (!atOnce) worker.postMessage({ type: 'play' } satisfies ToClip)
      }),
    { url: workerUrl, file: `${server.studioUrl}/api/assets/${hash}`, wanted: wish, most: count, atOnce: playsAtOnce },
  )
  const seen = answer.frames.map(({ base64, ...rest }) => {
    const data = Buffer.from(base64, 'base64')
    return { ...rest, data, md5: createHash('md5').update(data).digest('hex') }
  })
  return { seen, failure: answer.failure, skipped: answer.skipped }
}

const fileOf = (name: string) => readFileSync(path.join(folder, name))

/** As `played`, but again when a busy machine let more than a fifth go by: what comes then tells little. */
async function playedMostly(...[page, server, name, wish, count]: Parameters<typeof played>): ReturnType<typeof played> {
  for (let round = 1; ; round += 1) {
    const answer = await played(page, server, name, wish, count)
    if (round === 4 || answer.skipped <= count * 0.2) return answer
  }
}

/** Places follow each other, lap after lap; at most as many are missing as the clip's thread says that it let go. */
function expectInTurn(name: string, places: readonly number[], count: number, skipped: number): void {
  const missing = places.reduce((sum, place, i) => sum + ((place - (places[i - 1] ?? -1) - 1 + 2 * count) % count), 0)
  expect(missing, `${name}: ${places.join(' ')}`).toBeLessThanOrEqual(skipped)
}

test('every picture of a clip comes at its time with its pixels, lap after lap, and none comes twice at the seam', async ({ page, server }) => {
  await openStudio(page, server)
  for (const [name, { startsUs, ...rest }] of Object.entries(facts)) {
    if (!('md5' in rest) || rest.md5 === undefined) continue
    const { md5 } = rest
    const count = startsUs.length
    const { seen, failure, skipped } = await playedMostly(page, server, name, WHOLE, Math.ceil(count * 2.5))
    expect(failure, name).toBeNull()
    const places = seen.map(({ mediaUs }) => startsUs.findIndex((start) => Math.abs(start - mediaUs) <= 1000))
    expect(places, `${name}: every time is one that ffprobe names`).not.toContain(-1)
    places.forEach((place, i) => expect(seen[i]!.md5, `${name}, picture ${place} at ${seen[i]!.mediaUs} µs`).toBe(md5[place]))
    // A machine that is busy may let pictures go by; what comes must be right, and hardly one may be missing.
    expect(skipped, name).toBeLessThanOrEqual(seen.length * 0.2)
    expectInTurn(name, places, count, skipped)
  }
})

test('a part of a clip begins with the picture that is seen there, also between keys, and ends before its end; once is once', async ({ page, server }) => {
  await openStudio(page, server)
  const { startsUs, md5 } = facts['h264-bframes.mp4']
  const part = { fromUs: 450_000, toUs: 700_000, rate: 0.5, loops: true }
  const inside = startsUs.map((_, i) => i).filter((i) => startsUs[i]! < part.toUs && (startsUs[i + 1] ?? Infinity) > part.fromUs)
  const looped = await playedMostly(page, server, 'h264-bframes.mp4', part, inside.length * 2)
  const order = looped.seen.map((one) => md5.indexOf(one.md5))
  const places = order.map((place) => inside.indexOf(place))
  expect(places).not.toContain(-1)
  expectInTurn('the part', places, inside.length, looped.skipped)
  expect(looped.seen[0]!.mediaUs).toBe(part.fromUs)
  const once = await played(page, server, 'h264-bframes.mp4', { ...part, loops: false }, 1000)
  expect(once.seen.at(-1)!.md5).toBe(md5[inside.at(-1)!])
  expect(once.seen.length).toBeLessThanOrEqual(inside.length)
  const late = await played(page, server, 'h264-bframes.mp4', part, inside.length, false)
  expect(late.seen).toHaveLength(inside.length)
})

test('turned clips stand upright, see-through ones are see-through', async ({ page, server }) => {
  await openStudio(page, server)
  const turned = await played(page, server, 'turned.mp4', WHOLE, 1)
  expect([turned.seen[0]!.widthPx, turned.seen[0]!.heightPx]).toEqual([64, 96])
  // Made with an opacity of eight codes more in each column, coded without loss.
  const { seen, failure, skipped } = await playedMostly(page, server, 'alpha.webm', WHOLE, 12)
  expect(failure).toBeNull()
  const { data, widthPx } = seen[0]!
  for (let x = 0; x < widthPx; x += 1) expect(Math.abs(data[(5 * widthPx + x) * 4 + 3]! - 8 * x), `column ${x}`).toBeLessThanOrEqual(1)
  const places = seen.map(({ mediaUs }) => Math.round(mediaUs / 50_000) % 6)
  expectInTurn('alpha.webm', places, 6, skipped)
})

/** The height of the demo's clip. */
async function clipHeight(server: TestServer): Promise<number> {
  const clip = (await server.shows.get('demo-brood-frame')).show.inputs.find(({ kind }) => kind === 'clip')
  return clip?.kind === 'clip' ? (await server.assets.get(clip.asset)).asset.heightPx : 0
}

test('a file that takes long to send says how much is sent; cancelled, nothing is added, and the next goes in', async ({ page, server }) => {
  await openStudio(page, server)
  const layers = page.getByTestId('depth').getByRole('listitem')
  const before = await layers.count()
  const wire = await page.context().newCDPSession(page)
  await wire.send('Network.enable')
  const slow = (uploadThroughput: number) =>
    wire.send('Network.emulateNetworkConditions', { offline: false, latency: 0, downloadThroughput: -1, uploadThroughput })
  await slow(500_000)
  const film = fileOf('h264-bframes.mp4')
  const long = (name: string) => ({ name, mimeType: 'video/mp4', buffer: Buffer.concat([film, Buffer.alloc(6_000_000)]) })
  await page.getByTestId('picture-file').setInputFiles([long('long.mp4'), long('longer.mp4')])
  await expect(page.getByText('Adding long.mp4')).toBeVisible()
  await expect(page.getByText(/^[1-9]\d? % uploaded$/)).toBeVisible()
  await page.getByRole('button', { name: 'Cancel', exact: true }).click()
  await expect(page.getByText('Adding long.mp4')).toHaveCount(0)
  await slow(-1)
  await page.getByTestId('picture-file').setInputFiles({ name: 'short.mp4', mimeType: 'video/mp4', buffer: film })
  await expect(page.getByRole('button', { name: /^short, Clip/ })).toBeVisible()
  await expect(layers).toHaveCount(before + 1)
  await expect(page.getByText('Adding longer.mp4')).toHaveCount(0)
})

test('a file that arrives late comes into the scene that it was meant for; into no scene when that has gone', async ({ page, server }) => {
  await openStudio(page, server)
  const wire = await page.context().newCDPSession(page)
  await wire.send('Network.enable')
  const slow = (uploadThroughput: number) =>
    wire.send('Network.emulateNetworkConditions', { offline: false, latency: 0, downloadThroughput: -1, uploadThroughput })
  const noise = await sharp({ create: { width: 900, height: 900, channels: 3, background: '#888', noise: { type: 'gaussian', mean: 128, sigma: 60 } } })
    .png()
    .toBuffer()
  const begin = async (name: string, ...behind: string[]) => {
    await slow(200_000)
    await page.getByTestId('picture-file').setInputFiles([name, ...behind].map((one) => ({ name: `${one}.png`, mimeType: 'image/png', buffer: noise })))
    await expect(page.getByText(/^[1-9]\d? % uploaded$/)).toBeVisible()
  }
  await begin('Poster')
  await page.getByRole('button', { name: 'Just me', exact: true }).click()
  await slow(-1)
  await expect(page.getByText('Poster added to Welcome')).toBeVisible()
  const names = async (index: number) => (await server.shows.get('demo-brood-frame')).show.scenes[index]!.layers.map(({ name }) => name)
  await expect.poll(() => names(0)).toContain('Poster')
  expect(await names(1)).toEqual(['Apiary wall', 'Desk camera'])
  await expect(page.getByRole('button', { name: 'Just me', exact: true })).toHaveAttribute('aria-current', /./)
  await begin('Notice', 'Map')
  await page.getByRole('button', { name: 'More for Just me' }).click()
  await page.getByRole('menuitem', { name: 'Delete', exact: true }).click()
  await slow(-1)
  for (const name of ['Notice', 'Map']) await expect(page.getByText(`${name}.png was not added: Just me was deleted`)).toBeVisible()
  const { show } = await server.shows.get('demo-brood-frame')
  expect(show.inputs.filter(({ name }) => ['Notice', 'Map'].includes(name))).toEqual([])
})

test('a clip that takes much of the machine is copied smaller by one press, in its place', async ({ page, server }) => {
  await openStudio(page, server)
  await page.getByTestId('picture-file').setInputFiles({ name: 'large.mp4', mimeType: 'video/mp4', buffer: fileOf('large.mp4') })
  await expect(page.getByText('2560×1440 is heavy for this computer')).toBeVisible()
  // Given up while it is made: nothing changes. Its file is held back for that.
  const asset = /\/api\/assets\/[0-9a-f]{64}$/
  await page.route(asset, () => undefined)
  await page.getByRole('button', { name: 'Make a smaller copy' }).click()
  await expect(page.getByRole('progressbar', { name: 'Making a smaller copy' })).toBeVisible()
  await page.getByRole('button', { name: 'Cancel', exact: true }).click()
  await expect(page.getByRole('progressbar')).toHaveCount(0)
  await page.unroute(asset)
  expect(await clipHeight(server)).toBe(1440)
  await page.getByRole('button', { name: 'Make a smaller copy' }).click()
  await expect(page.getByText('is heavy for this computer')).toHaveCount(0, { timeout: 30_000 })
  await expect.poll(() => clipHeight(server)).toBe(720)
  await expect(page.getByTestId('clip-place')).toHaveText(/of 0\.8 s/)
})

test('what cannot be played says so in words, and the scene goes on', async ({ page, server }) => {
  await openStudio(page, server)
  const film = fileOf('h264-bframes.mp4')
  // Nothing of it is on the disk but its length.
  const huge = path.join(server.dataDir, 'harvest.mp4')
  writeFileSync(huge, '')
  truncateSync(huge, 300.5 * 1024 * 1024)
  const cases: readonly (readonly [file: Buffer | string, name: string, words: RegExp])[] = [
    [fileOf('hevc.mp4'), 'phone.mp4', /HEVC \(H\.265\), which browsers do not play\. Export it as H\.264/],
    [film.subarray(0, 600), 'half.mp4', /"half\.mp4" is damaged or cut off/],
    [Buffer.concat([film.subarray(0, 32), Buffer.alloc(3000)]), 'noise.mp4', /"noise\.mp4" is damaged or cut off/],
    [huge, 'harvest.mp4', /harvest\.mp4 is 301 MB\. The limit is 256 MB/],
    [Buffer.from('not a film at all'), 'notes.mp4', /"notes\.mp4" is not a picture/],
  ]
  for (const [buffer, name, words] of cases) {
    await page.getByTestId('picture-file').setInputFiles(typeof buffer === 'string' ? buffer : { name, mimeType: 'video/mp4', buffer })
    await expect(page.getByText(words).first()).toBeVisible()
  }
  await expect(page.getByRole('listitem').filter({ has: page.getByRole('button', { name: /^phone/ }) })).toHaveCount(0)
  // A good one lands, behind the presenter, and plays.
  await page.getByTestId('picture-file').setInputFiles({ name: 'loop.mp4', mimeType: 'video/mp4', buffer: film })
  await expect(page.getByRole('button', { name: /^loop, Clip/ })).toBeVisible()
  const place = page.getByTestId('clip-place')
  await expect(place).toHaveText(/of 0\.8 s/)
  await page.getByRole('button', { name: 'Pause', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Pause', exact: true })).toBeVisible()
})

/** The first part of a file. */
function cutOff(name: string, share: number): Buffer {
  const whole = fileOf(name)
  return whole.subarray(0, Math.floor(whole.length * share))
}

/** A file whose bytes are noise from a share of it on. */
function spoilt(name: string, share: number): Buffer {
  const whole = Buffer.from(fileOf(name))
  return whole.fill(0xa5, Math.floor(whole.length * share))
}

test('a clip that is cut off or damaged after its first pictures is met when it is added; its good part plays if that is wanted', async ({ page, server }) => {
  await openStudio(page, server)
  const add = (name: string, mimeType: string, buffer: Buffer) => page.getByTestId('picture-file').setInputFiles({ name, mimeType, buffer })
  const clips = async () => (await server.shows.get('demo-brood-frame')).show.inputs.filter(({ kind }) => kind === 'clip')
  const before = (await clips()).length
  // The table of web.mp4 comes first, as in films that are made for the web: what is missing is met late.
  const cases: readonly (readonly [name: string, type: string, file: Buffer])[] = [
    ['cut.gif', 'image/gif', cutOff('moving.gif', 0.6)],
    ['cut.mp4', 'video/mp4', cutOff('web.mp4', 0.7)],
    ['noise.mp4', 'video/mp4', spoilt('web.mp4', 0.5)],
  ]
  for (const [name, type, file] of cases) {
    await add(name, type, file)
    const words = page.getByText(new RegExp(`^${name} is damaged after \\d\\.\\d seconds`))
    await expect(words, name).toBeVisible()
    await page.getByRole('button', { name: 'Do not add' }).click()
    await expect(words).toHaveCount(0)
  }
  // One whose only cluster is not whole holds nothing that could be played.
  await add('torn.webm', 'video/webm', cutOff('vp8.webm', 0.6))
  await expect(page.getByText('"torn.webm" is damaged or cut off')).toBeVisible()
  expect(await clips()).toHaveLength(before)

  await add('cut-again.mp4', 'video/mp4', cutOff('web.mp4', 0.7))
  await page.getByRole('button', { name: /^Add the first \d\.\d s$/ }).click()
  await expect(page.getByRole('button', { name: /^cut-again, Clip/ })).toBeVisible()
  const place = page.getByTestId('clip-place')
  await expect(place).toHaveText(/of 0\.\d s/)
  await expect.poll(async () => (await clips()).length).toBe(before + 1)
  const clip = (await clips()).at(-1)!
  const wholeMs = 800
  expect(clip.kind === 'clip' && clip.toMs !== null && clip.toMs >= 100 && clip.toMs < wholeMs).toBe(true)
  await expect(page.getByText(/cannot play/)).toHaveCount(0)
})

test('a damaged clip that a show holds already plays as far as it is good, and says so', async ({ page, server }) => {
  const cut = cutOff('web.mp4', 0.7)
  const { hash } = await server.assets.add(cut, 'cut.mp4')
  await openStudio(page, server)
  const { frames, damage, failure } = await page.evaluate(
    ({ url, file }) =>
      new Promise<{ frames: number[]; damage: { fromUs: number } | null; failure: string | null }>((resolve) => {
        const worker = new Worker(url, { type: 'module' })
        const { port1, port2 } = new MessageChannel()
        const times: number[] = []
        let harm: { fromUs: number } | null = null
        port2.onmessage = ({ data }: MessageEvent<PortFrame>) => {
          times.push(data.mediaUs!)
          port2.postMessage({ type: 'return', data: data.data }, [data.data.buffer])
          if (times.length === 60) resolve({ frames: times, damage: harm, failure: null })
        }
        worker.onmessage = ({ data }: MessageEvent<FromClip>) => {
          if (data.type === 'failed') resolve({ frames: times, damage: harm, failure: data.reason })
          else harm = data.report.damage
        }
        worker.postMessage({ type: 'start', url: file, port: port1, wish: { fromUs: 0, toUs: null, rate: 1, loops: true }, plays: true } satisfies ToClip, [
          port1,
        ])
      }),
    { url: workerUrl, file: `${server.studioUrl}/api/assets/${hash}` },
  )
  expect(failure).toBeNull()
  expect(damage!.fromUs).toBeGreaterThan(0)
  expect(Math.max(...frames)).toBeLessThan(damage!.fromUs)
  // It has gone round more than once.
  expect(frames.filter((time) => time === 0).length).toBeGreaterThan(1)
})

test('a clip that cannot be played is named in every scene that shows it, also while that is on air', async ({ page, server }) => {
  const { hash } = await server.assets.add(fileOf('web.mp4'), 'intro.mp4')
  const { show, revision } = await server.shows.get('demo-brood-frame')
  const clip = { id: 'intro', kind: 'clip', name: 'Intro', asset: hash, fromMs: 0, toMs: null, rate: 1, loops: true, moving: null, treatment: [] } as const
  const scenes = show.scenes.map((scene, index) => {
    const like = show.scenes.flatMap(({ layers }) => layers).find((layer) => layer.kind === 'input')!
    return index > 2 ? scene : { ...scene, layers: [...scene.layers, { ...like, id: `intro-${index}`, name: 'Intro', inputId: 'intro' }] }
  })
  await server.shows.save('demo-brood-frame', revision, { ...show, inputs: [...show.inputs, clip], scenes } as typeof show)
  await page.route(`**/api/assets/${hash}`, (route) => route.fulfill({ status: 404, body: '' }))
  await openStudio(page, server)
  const trouble = page.getByTestId('stage-trouble')
  for (const scene of scenes.slice(0, 3)) {
    await page.getByRole('button', { name: scene.name, exact: true }).click()
    await expect(trouble).toContainText('Intro cannot play: the file could not be read (404)')
  }
  await page.getByRole('button', { name: scenes[3]!.name, exact: true }).click()
  await expect(trouble).toHaveCount(0)
  await page.getByRole('button', { name: scenes[1]!.name, exact: true }).click()
  await page.getByRole('button', { name: 'Start feed' }).click()
  await expect(trouble).toContainText('Intro cannot play')
})
