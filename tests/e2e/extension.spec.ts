// The extension, by what meeting pages without a line of ours see.
// One file, though long: its tests share one browser with the extension in it, which takes long to start.
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { BrowserContext, Page } from '@playwright/test'
import type { TestServer } from '../support/test-server.ts'
import { colourAt, expect, FULL_RATE, LEAST_LIVE_FPS, openStudio, test } from './studio.ts'
import { joinPlainMeeting, withExtension } from './with-extension.ts'

test.use({ frameRate: FULL_RATE })

/** Opens the studio and starts its feed. */
async function onAir(context: BrowserContext, server: TestServer): Promise<Page> {
  const studio = await context.newPage()
  await openStudio(studio, server)
  await studio.getByRole('button', { name: 'Start feed' }).click()
  return studio
}

/** Answers the question that stands in the studio. */
async function answer(studio: Page, words: string): Promise<void> {
  await studio.bringToFront()
  await studio.getByTestId('site-ask').getByRole('button', { name: words, exact: true }).click()
}

/** The wall of the demo's scene is light where the holding card is dark. */
async function shows(meeting: Page): Promise<'scene' | 'card'> {
  await meeting.bringToFront()
  const [red, green, blue] = await colourAt(meeting, 100, 100)
  return red + green + blue > 450 ? 'scene' : 'card'
}

const expectShows = (meeting: Page, what: 'scene' | 'card') => expect.poll(() => shows(meeting), { timeout: 25_000 }).toBe(what)

/** Counts, from now on, the frames of the meeting's track and those of them that are black. */
async function countBlack(meeting: Page): Promise<() => Promise<{ frames: number; black: number; ended: boolean }>> {
  await meeting.evaluate(() => {
    const video = document.querySelector<HTMLVideoElement>('#others')!
    const track = (video.srcObject as MediaStream).getVideoTracks()[0]!.clone() as MediaStreamVideoTrack
    const count = { frames: 0, black: 0, ended: false }
    Object.assign(window, { blackCount: count })
    const reader = new MediaStreamTrackProcessor({ track }).readable.getReader()
    const sheet = new OffscreenCanvas(16, 9).getContext('2d', { willReadFrequently: true })!
    const next = async (): Promise<void> => {
      const { done, value } = await reader.read()
      if (done || value === undefined) return void (count.ended = true)
      sheet.drawImage(value, 0, 0, 16, 9)
      value.close()
      const { data } = sheet.getImageData(0, 0, 16, 9)
      let brightest = 0
      for (let at = 0; at < data.length; at += 1) if (at % 4 !== 3) brightest = Math.max(brightest, data[at]!)
      count.frames += 1
      if (brightest < 20) count.black += 1
      return next()
    }
    void next()
  })
  return () => meeting.evaluate(() => (window as unknown as { blackCount: { frames: number; black: number; ended: boolean } }).blackCount)
}

const devicesOf = (page: Page) =>
  page.evaluate(async () => (await navigator.mediaDevices.enumerateDevices()).map(({ kind, label, deviceId }) => ({ kind, label, deviceId })))

test('a page of another origin, with a strict policy, lists both devices, opens them by id and gets them in the form it asks for', async ({ server }) => {
  await withExtension(server, async (context) => {
    const studio = await onAir(context, server)
    const meeting = await context.newPage()
    await meeting.goto(`${server.meetingUrl}/plain`)
    // Before permission a page learns that there are devices, and not which.
    expect(await devicesOf(meeting)).toEqual([
      { kind: 'audioinput', label: '', deviceId: '' },
      { kind: 'videoinput', label: '', deviceId: '' },
    ])
    await context.grantPermissions(['camera', 'microphone'], { origin: server.meetingUrl })
    const listed = await devicesOf(meeting)
    expect(listed.map(({ kind, label }) => [kind, label])).toEqual([
      ['audioinput', 'Green Room Microphone'],
      ['videoinput', 'Green Room Camera'],
    ])
    const otherOrigin = server.meetingUrl.replace('localhost', '127.0.0.1')
    await context.grantPermissions(['camera', 'microphone'], { origin: otherOrigin })
    const other = await context.newPage()
    await other.goto(`${otherOrigin}/plain`)
    const ids = [...listed, ...(await devicesOf(other))].map(({ deviceId }) => deviceId)
    expect(new Set(ids).size).toBe(4)
    expect(ids.every((id) => /^[0-9a-f]{64}$/.test(id))).toBe(true)
    // Cleared with the site's data, as a device's ids are.
    await other.evaluate(() => localStorage.clear())
    await other.reload()
    expect(ids).not.toContain((await devicesOf(other))[0]!.deviceId)
    await other.close()

    const opened = await meeting.evaluate(
      async ([microphone, camera]) => {
        const stream = await navigator.mediaDevices.getUserMedia({ audio: { deviceId: { exact: microphone! } }, video: { deviceId: { exact: camera! } } })
        Object.assign(window, { stream })
        return stream.getTracks().map(({ kind, label, readyState }) => [kind, label, readyState])
      },
      listed.map(({ deviceId }) => deviceId),
    )
    expect(opened).toEqual([
      ['audio', 'Green Room Microphone', 'live'],
      ['video', 'Green Room Camera', 'live'],
    ])
    await answer(studio, 'Always')
    await meeting.bringToFront()
    /** Size and rate that really arrive over two seconds, once the feed runs. */
    const arriving = (wish: MediaTrackConstraints) =>
      meeting.evaluate(async (constraints) => {
        const track = (window as unknown as { stream: MediaStream }).stream.getVideoTracks()[0] as MediaStreamVideoTrack
        await track.applyConstraints(constraints)
        const reader = new MediaStreamTrackProcessor({ track: track.clone() as MediaStreamVideoTrack }).readable.getReader()
        let size = ''
        let frames = 0
        let from = performance.now()
        while (performance.now() - from < 2000) {
          const { value } = await reader.read()
          const next = `${value!.displayWidth}×${value!.displayHeight}`
          // What was under way in the old form does not count.
          if (next !== size) [from, frames] = [performance.now(), 0]
          size = next
          frames += 1
          value!.close()
        }
        await reader.cancel()
        const { width, height, frameRate, deviceId } = track.getSettings()
        return { size, rate: frames / 2, settings: `${width}×${height}×${frameRate}`, hasId: deviceId!.length === 64 }
      }, wish)
    await expect.poll(async () => (await arriving({})).rate, { timeout: 40_000 }).toBeGreaterThan(LEAST_LIVE_FPS)
    expect(await arriving({})).toMatchObject({ size: '1280×720', settings: '1280×720×30', hasId: true })
    // No more than asked for, and not the card's five a second.
    const small = { width: 640, height: 360, frameRate: 15 }
    const arrived = await arriving(small)
    expect(arrived).toMatchObject({ size: '640×360', settings: '640×360×15' })
    expect(arrived.rate).toBeLessThan(17)
    await expect.poll(async () => (await arriving(small)).rate, { timeout: 40_000 }).toBeGreaterThan(8)
    expect((await arriving({ width: { exact: 320 }, height: { exact: 320 } })).size).toBe('320×320')
    const refused = await meeting.evaluate(async () => {
      const track = (window as unknown as { stream: MediaStream }).stream.getVideoTracks()[0]!
      return track.applyConstraints({ width: { min: 5000 } }).catch((error: OverconstrainedError) => [error.name, error.constraint])
    })
    expect(refused).toEqual(['OverconstrainedError', 'width'])
  })
})

test('the track lives through everything that befalls the studio, and never shows black', async ({ server }) => {
  await withExtension(server, async (context) => {
    let studio = await onAir(context, server)
    const meeting = await joinPlainMeeting(context, server)
    await expectShows(meeting, 'card')
    const blacks = await countBlack(meeting)
    await answer(studio, 'Always')
    await expectShows(meeting, 'scene')

    // The voice arrives with the picture; muted by its key, nothing does.
    const loudness = () => meeting.evaluate(() => window.meetingFigures!.soundDb())
    await expect.poll(loudness, { timeout: 20_000 }).toBeGreaterThan(-30)
    await studio.bringToFront()
    await studio.keyboard.press('m')
    await expect(studio.getByRole('button', { name: 'You are muted' })).toBeVisible()
    await expect.poll(loudness).toBeLessThan(-90)
    await studio.keyboard.press('m')
    await expect.poll(loudness, { timeout: 20_000 }).toBeGreaterThan(-30)

    // A second meeting beside it, on another origin, asks for itself.
    const second = await joinPlainMeeting(context, { ...server, meetingUrl: server.meetingUrl.replace('localhost', '127.0.0.1') })
    await expectShows(second, 'card')
    await answer(studio, 'This time only')
    await expectShows(second, 'scene')
    await expect(studio.getByText('2 meetings')).toBeVisible()
    await expectShows(meeting, 'scene')

    // The studio is loaded anew: both go on, the one that was allowed for this time too.
    await studio.bringToFront()
    await studio.reload()
    await expectShows(meeting, 'scene')
    await expectShows(second, 'scene')
    await second.close()
    await expect(studio.getByText('1 meeting', { exact: false })).toBeVisible()

    // The worker of the extension is stopped, as browsers do: what runs goes on, and it wakes when it is needed.
    const extensionUrl = context.serviceWorkers()[0]!.url().replace('worker.js', 'manifest.json')
    const inside = await context.newPage()
    await inside.goto(extensionUrl)
    const session = await context.newCDPSession(inside)
    await session.send('ServiceWorker.enable')
    await session.send('ServiceWorker.stopAllWorkers')
    await inside.close()
    await expectShows(meeting, 'scene')

    // The studio's page dies: the card, until another is there.
    const crash = await context.newCDPSession(studio)
    void crash.send('Page.crash').catch(() => undefined)
    await expectShows(meeting, 'card')
    await studio.close()
    studio = await onAir(context, server)
    await expectShows(meeting, 'scene')

    // The studio is closed, and opened again.
    await studio.close()
    await expectShows(meeting, 'card')
    studio = await onAir(context, server)
    await expectShows(meeting, 'scene')
    const counted = await blacks()
    expect(counted).toMatchObject({ black: 0, ended: false })
    expect(counted.frames).toBeGreaterThan(100)
  })
})

test('a site gets the card until it has consent, after a no, and as soon as consent is taken back', async ({ server }) => {
  await withExtension(server, async (context) => {
    const studio = await onAir(context, server)
    const meeting = await joinPlainMeeting(context, server)
    const blacks = await countBlack(meeting)
    await answer(studio, 'Not now')
    await expectShows(meeting, 'card')
    await meeting.close()

    const again = await joinPlainMeeting(context, server)
    await answer(studio, 'Always')
    await expectShows(again, 'scene')
    await studio.bringToFront()
    await studio.goto(`${server.studioUrl}/devices`)
    await studio.getByRole('button', { name: /^Remove/ }).click()
    await expectShows(again, 'card')
    await answer(studio, 'Never')
    await expectShows(again, 'card')
    await expect(studio.getByText('never', { exact: false }).first()).toBeVisible()
    expect((await blacks().catch(() => ({ black: 0 }))).black).toBe(0)
  })
})

test('frames without the right to cameras get nothing; those with it ask for their own origin', async ({ server }) => {
  const inner = createServer((_request, response) => response.setHeader('content-type', 'text/html').end('<p>A frame of another site'))
  const outer = createServer((request, response) => {
    const allow = request.url === '/with' ? 'allow="camera; microphone"' : ''
    response.setHeader('content-type', 'text/html').end(`<iframe ${allow} src="http://127.0.0.1:${(inner.address() as AddressInfo).port}/"></iframe>`)
  })
  await Promise.all([inner, outer].map((site) => new Promise<void>((resolve) => site.listen(0, '127.0.0.1', resolve))))
  const origin = (site: typeof inner) => `http://127.0.0.1:${(site.address() as AddressInfo).port}`
  try {
    await withExtension(server, async (context) => {
      const studio = await onAir(context, server)
      const page = await context.newPage()
      const tryIn = async (path: string) => {
        await page.goto(`${origin(outer)}${path}`)
        return page.frames()[1]!.evaluate(async () => {
          const kinds = (await navigator.mediaDevices.enumerateDevices()).map(({ kind }) => kind)
          const answer = await navigator.mediaDevices.getUserMedia({ video: true }).then(
            (stream) => stream.getVideoTracks()[0]!.label,
            (error: DOMException) => error.name,
          )
          return { kinds, answer }
        })
      }
      expect(await tryIn('/without')).toEqual({ kinds: [], answer: 'NotAllowedError' })
      await expect(studio.getByTestId('site-ask')).toHaveCount(0)
      expect(await tryIn('/with')).toEqual({ kinds: ['audioinput', 'videoinput'], answer: 'Green Room Camera' })
      await expect(studio.getByTestId('site-ask')).toContainText(origin(inner))
    })
  } finally {
    for (const site of [inner, outer]) site.close()
  }
})

test('a hostile page without consent reads nothing, poses as nobody, and learns of no other site', async ({ server }) => {
  await withExtension(server, async (context) => {
    const studio = await onAir(context, server)
    const meeting = await joinPlainMeeting(context, server)
    await answer(studio, 'Always')
    await expectShows(meeting, 'scene')

    const evil = createServer((_request, response) => response.setHeader('content-type', 'text/html').end('<p>Hello'))
    await new Promise<void>((resolve) => evil.listen(0, '127.0.0.1', resolve))
    try {
      const page = await context.newPage()
      await page.goto(`http://127.0.0.1:${(evil.address() as AddressInfo).port}/`)
      const loot = await page.evaluate(async (studioUrl) => {
        const heard: string[] = []
        for (const name of ['green-room:tell', 'green-room:ask'])
          document.addEventListener(name, (event) => heard.push(((event as MouseEvent).relatedTarget as HTMLElement).outerHTML))
        window.addEventListener('message', ({ data }) => heard.push(JSON.stringify(data)))
        // Poses as the studio, and as another site.
        for (const message of [
          { to: 'worker', type: 'here', isFeedOn: true },
          { to: 'site', documentId: 'any', message: { type: 'studio', isOpen: true, isFeedOn: true } },
        ])
          window.postMessage({ type: 'green-room:to-extension', message }, '*')
        // Asks the extension's world for everything it may be asked.
        for (const question of [
          { type: 'hello' },
          { type: 'source' },
          { type: 'sites' },
          { type: 'camera', wish: {}, origin: 'https://trusted.example.org' },
        ]) {
          const element = document.createElement('video')
          element.dataset['question'] = JSON.stringify(question)
          document.dispatchEvent(new MouseEvent('green-room:ask', { relatedTarget: element }))
        }
        const stream = await navigator.mediaDevices.getUserMedia({ video: true })
        Object.assign(window, { stream })
        const reads = await Promise.all(
          ['/api/shows', '/api/sites'].map((path) =>
            fetch(studioUrl + path).then(
              async (response) => `read ${await response.text()}`,
              () => 'refused',
            ),
          ),
        )
        const runtime = (window as unknown as { chrome?: { runtime?: unknown } }).chrome?.runtime === undefined ? 'none' : 'some'
        return { heard: heard.join(' '), reads, runtime }
      }, server.studioUrl)
      expect(loot.reads).toEqual(['refused', 'refused'])
      expect(loot.runtime).toBe('none')
      for (const secret of [new URL(server.meetingUrl).port, 'localhost', 'brood', 'demo-']) expect(loot.heard).not.toContain(secret)
      // It is asked for under its own name, and what it gets is the card, however often it asks.
      await expect(studio.getByTestId('site-ask')).toContainText(String((evil.address() as AddressInfo).port))
      const brightest = await page.evaluate(async () => {
        const track = (window as unknown as { stream: MediaStream }).stream.getVideoTracks()[0] as MediaStreamVideoTrack
        const reader = new MediaStreamTrackProcessor({ track }).readable.getReader()
        const pen = new OffscreenCanvas(160, 90).getContext('2d', { willReadFrequently: true })!
        let most = 0
        for (let frames = 0; frames < 15; frames += 1) {
          const { value } = await reader.read()
          pen.drawImage(value!, 0, 0, 160, 90)
          value!.close()
          const [red, green, blue] = pen.getImageData(12, 12, 1, 1).data
          most = Math.max(most, red! + green! + blue!)
        }
        return most
      })
      expect(brightest).toBeLessThan(300)
      // The meeting that has consent is undisturbed by the one that posed.
      await expectShows(meeting, 'scene')
    } finally {
      evil.close()
    }
  })
})
