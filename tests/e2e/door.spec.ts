// The extension's door: who may have our devices, judged where they are opened, and how they answer once they are. By frames, popups
// and pages that try every way in.
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { BrowserContext, Frame, Page } from '@playwright/test'
import { expect, FULL_RATE, openStudio, test } from './studio.ts'
import { joinPlainMeeting, withExtension } from './with-extension.ts'

test.use({ frameRate: FULL_RATE })

/** Serves pages on an address of their own while something is tried. */
async function withSite(
  pages: Readonly<Record<string, string>>,
  run: (origin: string) => Promise<void>,
  headers: Readonly<Record<string, string>> = {},
): Promise<void> {
  const site: Server = createServer((request, response) => {
    for (const [name, value] of Object.entries(headers)) response.setHeader(name, value)
    response.setHeader('content-type', 'text/html').end(`<!doctype html><title>A site</title>${pages[request.url ?? '/'] ?? ''}`)
  })
  await new Promise<void>((resolve) => site.listen(0, '127.0.0.1', resolve))
  try {
    await run(`http://127.0.0.1:${(site.address() as AddressInfo).port}`)
  } finally {
    site.closeAllConnections()
    site.close()
  }
}

async function onAir(context: BrowserContext, server: Parameters<typeof openStudio>[1]): Promise<Page> {
  const studio = await context.newPage()
  await openStudio(studio, server)
  await studio.getByRole('button', { name: 'Start feed' }).click()
  return studio
}

/** Takes the line that the shim asks the bridge by, and asks it without the shim: what is opened, or null. */
const askBridge = (frame: Frame | Page, type: 'camera' | 'microphone') =>
  frame.evaluate(async (asked) => {
    const native = EventTarget.prototype.dispatchEvent
    const lines = new Set<EventTarget>([document])
    EventTarget.prototype.dispatchEvent = function (event) {
      if (event.type === 'green-room:ask') lines.add(this)
      return native.call(this, event)
    }
    await navigator.mediaDevices?.enumerateDevices()
    await navigator.mediaDevices?.getUserMedia({ video: true, audio: true }).catch(() => null)
    EventTarget.prototype.dispatchEvent = native
    const opened: string[] = []
    for (const line of lines) {
      const element = document.createElement('video')
      element.dataset['question'] = JSON.stringify({ type: asked, wish: {} })
      native.call(line, new MouseEvent('green-room:ask', { relatedTarget: element }))
      for (const track of (element.srcObject as MediaStream | null)?.getTracks() ?? []) opened.push(track.kind)
    }
    return { lines: lines.size - 1, opened }
  }, type)

test('the bridge itself refuses a frame without the right, and a site that the person blocked; nothing is opened, and nobody is asked', async ({ server }) => {
  await withExtension(server, async (context) => {
    const studio = await onAir(context, server)
    await withSite({}, async (inner) => {
      await withSite(
        { '/without': `<iframe src="${inner}/"></iframe>`, '/with': `<iframe allow="camera; microphone" src="${inner}/"></iframe>` },
        async (outer) => {
          const page = await context.newPage()
          await page.goto(`${outer}/without`)
          for (const kind of ['camera', 'microphone'] as const) expect((await askBridge(page.frames()[1]!, kind)).opened).toEqual([])
          await expect(studio.getByTestId('site-ask')).toHaveCount(0)
          // The same question where the frame has the right: the line is the right one.
          await page.goto(`${outer}/with`)
          expect(await askBridge(page.frames()[1]!, 'camera')).toEqual({ lines: 1, opened: ['video'] })
          await expect(studio.getByTestId('site-ask')).toContainText(inner)

          // Blocked in the browser, at the top of its own page.
          await page.goto('about:blank')
          const session = await context.newCDPSession(page)
          for (const name of ['camera', 'microphone']) await session.send('Browser.setPermission', { permission: { name }, setting: 'denied', origin: outer })
          await page.goto(`${outer}/`)
          for (const kind of ['camera', 'microphone'] as const) expect((await askBridge(page, kind)).opened).toEqual([])
          await expect(studio.getByTestId('site-ask')).toHaveCount(0)

          // Taken away while it holds a track: the track ends.
          for (const name of ['camera', 'microphone']) await session.send('Browser.setPermission', { permission: { name }, setting: 'granted', origin: outer })
          await page.goto(`${outer}/`)
          await page.evaluate(async () => Object.assign(window, { held: (await navigator.mediaDevices.getUserMedia({ video: true })).getVideoTracks()[0] }))
          await session.send('Browser.setPermission', { permission: { name: 'camera' }, setting: 'denied', origin: outer })
          await expect.poll(() => page.evaluate(() => (window as unknown as { held: MediaStreamTrack }).held.readyState)).toBe('ended')
        },
      )
    })
  })
})

test('a frame of an opaque origin gets nothing; blank and written frames, and popups, are as the page that made them', async ({ server }) => {
  await withExtension(server, async (context) => {
    const studio = await onAir(context, server)
    const allow = 'allow="camera *; microphone *"'
    const pages = {
      '/sandbox': `<iframe sandbox="allow-scripts" ${allow} src="/inner"></iframe>`,
      '/srcdoc': `<iframe ${allow} srcdoc="<p>Written"></iframe>`,
      '/blank': `<iframe ${allow}></iframe>`,
      '/popup': '<p>Opens a window</p>',
    }
    await withSite(pages, async (origin) => {
      const page = await context.newPage()
      const tryIn = (frame: Frame | Page) =>
        frame.evaluate(async () => {
          const kinds = (await navigator.mediaDevices.enumerateDevices()).map(({ kind }) => kind)
          const answer = await navigator.mediaDevices.getUserMedia({ video: true }).then(
            (stream) => stream.getVideoTracks()[0]!.label,
            (error: DOMException) => error.name,
          )
          return { kinds, answer }
        })
      await page.goto(`${origin}/sandbox`)
      expect(await tryIn(page.frames()[1]!)).toEqual({ kinds: [], answer: 'SecurityError' })
      expect((await askBridge(page.frames()[1]!, 'camera')).opened).toEqual([])
      await expect(studio.getByTestId('site-ask')).toHaveCount(0)
      const ours = { kinds: ['audioinput', 'videoinput'], answer: 'Green Room Camera' }
      for (const path of ['/srcdoc', '/blank']) {
        await page.goto(`${origin}${path}`)
        expect(await tryIn(page.frames()[1]!), path).toEqual(ours)
        await expect(studio.getByTestId('site-ask')).toContainText(origin.replace('http://', ''))
      }
      await page.goto(`${origin}/popup`)
      const [popup] = await Promise.all([context.waitForEvent('page'), page.evaluate(() => void window.open('about:blank', 'second'))])
      expect(await tryIn(popup)).toEqual(ours)
      await popup.close()
      await page.close()
      // Asked for by pages that are closed now: withdrawn.
      await expect(studio.getByTestId('site-ask')).toHaveCount(0)
    })
  })
})

test('a page that writes itself anew keeps its devices, and one that was never allowed keeps no mark', async ({ server }) => {
  await withExtension(server, async (context) => {
    await onAir(context, server)
    await withSite({}, async (origin) => {
      const page = await context.newPage()
      await page.goto(`${origin}/`)
      const kinds = () => page.evaluate(async () => (await navigator.mediaDevices.enumerateDevices()).map(({ kind }) => kind))
      expect(await kinds()).toEqual(['audioinput', 'videoinput'])
      expect(await page.evaluate(() => Object.keys(localStorage))).toEqual([])
      await page.evaluate(() => {
        document.open()
        document.write('<!doctype html><title>Written anew</title><p>Hello')
        document.close()
      })
      const label = () => page.evaluate(async () => (await navigator.mediaDevices.getUserMedia({ video: true })).getVideoTracks()[0]!.label)
      expect(await label()).toBe('Green Room Camera')
      expect(await page.evaluate(() => Object.keys(localStorage))).toEqual(['green-room-mark'])
    })
  })
})

test('our tracks and entries answer as a device’s do, by whichever way they are asked', async ({ server }) => {
  await withExtension(server, async (context) => {
    await onAir(context, server)
    const meeting = await joinPlainMeeting(context, server)
    const seen = await meeting.evaluate(async () => {
      const devices = await MediaDevices.prototype.enumerateDevices.call(navigator.mediaDevices)
      const camera = devices.find(({ label }) => label === 'Green Room Camera') as InputDeviceInfo
      const stream = await navigator.mediaDevices.getUserMedia({ video: { deviceId: { exact: camera.deviceId } }, audio: { channelCount: { exact: 1 } } })
      const copied = stream.clone()
      const [track] = copied.getVideoTracks()
      const settings = MediaStreamTrack.prototype.getSettings.call(track!)
      const [sound] = copied.getAudioTracks()
      const reader = new MediaStreamTrackProcessor({ track: sound!.clone() as MediaStreamAudioTrack }).readable.getReader()
      const { value: heard } = await reader.read()
      const channels = heard!.numberOfChannels
      heard!.close()
      await reader.cancel()
      const capture = new ImageCapture(track!)
      const photo = await createImageBitmap(await capture.takePhoto())
      const original = stream.getVideoTracks()[0]!
      original.stop()
      const wrapped = [MediaDevices.prototype.getUserMedia, MediaStreamTrack.prototype.getSettings, MediaStream.prototype.clone]
      return {
        labels: copied.getTracks().map(({ label }) => label),
        id: settings.deviceId === camera.deviceId,
        capabilities: Object.keys(camera.getCapabilities()).filter((name) => ['width', 'height', 'frameRate', 'facingMode'].includes(name)).length,
        channels,
        channelCount: sound!.getSettings().channelCount,
        photo: `${photo.width}×${photo.height}`,
        late: await original.applyConstraints({ width: 320 }).catch((error: DOMException) => error.name),
        texts: wrapped.map((each) => each.toString()),
        listed: Object.getOwnPropertyDescriptor(MediaDevices.prototype, 'getUserMedia')!.enumerable,
        own: Object.getOwnPropertyNames(track!),
      }
    })
    expect(seen).toEqual({
      labels: ['Green Room Microphone', 'Green Room Camera'],
      id: true,
      capabilities: 4,
      channels: 1,
      channelCount: 1,
      photo: '1280×720',
      late: 'InvalidStateError',
      texts: ['getUserMedia', 'getSettings', 'clone'].map((name) => `function ${name}() { [native code] }`),
      listed: true,
      own: [],
    })
  })
})

/** Reads every chunk of a track on a thread of its own, when it came and what it is made of; silence left out. */
const LISTEN = `
  const source = 'onmessage = async ({ data }) => { const reader = data.getReader(); for (;;) { const { done, value } = await reader.read(); if (done) return;' +
    ' const codes = new Int16Array(value.numberOfFrames * value.numberOfChannels); value.copyTo(codes, { planeIndex: 0, format: "s16" }); value.close();' +
    ' let print = 0; for (const code of codes) print = (Math.imul(print, 31) + code) | 0;' +
    ' if (codes.some((code) => code !== 0)) postMessage([print, performance.timeOrigin + performance.now()]) } }'
  window.heard = []
  window.listen = async () => {
    const stream = await navigator.mediaDevices.getUserMedia({ audio: true, video: true })
    window.kept = stream
    const { readable } = new MediaStreamTrackProcessor({ track: stream.getAudioTracks()[0], maxBufferSize: 100 })
    const worker = new Worker(URL.createObjectURL(new Blob([source])))
    worker.onmessage = ({ data }) => window.heard.push(data)
    worker.postMessage(readable, [readable])
  }
  window.beBusy = (ms) => setInterval(() => { const from = performance.now(); while (performance.now() - from < ms); }, 1000)
`

test('the voice is heard whole in a page that is busy 400 ms of each second, as soon as in one that is not', async ({ server }) => {
  await withExtension(server, async (context) => {
    const studio = await onAir(context, server)
    await withSite({ '/': `<script>${LISTEN}</script>` }, async (origin) => {
      const pages: Page[] = []
      for (const isBusy of [true, false]) {
        const page = await context.newPage()
        await page.goto(`${origin}/`)
        await page.evaluate(() => (window as unknown as { listen(): Promise<void> }).listen())
        if (pages.length === 0) {
          await studio.bringToFront()
          await studio.getByTestId('site-ask').getByRole('button', { name: 'Always', exact: true }).click()
        }
        if (isBusy) await page.evaluate(() => void (window as unknown as { beBusy(ms: number): void }).beBusy(400))
        pages.push(page)
      }
      const heardIn = (page: Page) => page.evaluate(() => (window as unknown as { heard: [number, number][] }).heard)
      // Ten seconds of voice in the calm page, whatever the machine does beside.
      await expect.poll(async () => (await heardIn(pages[1]!)).length, { timeout: 60_000 }).toBeGreaterThan(600)
      const [busy, calm] = await Promise.all(pages.map(heardIn))
      // The stand-in's voice comes round again after some seconds: the time at which the same chunk came nearest.
      const lateness = ([print, at]: [number, number]) => busy!.flatMap(([other, when]) => (other === print && Math.abs(when - at) < 2000 ? [when - at] : []))
      // From a second after both had begun to a second before the end.
      const from = Math.max(busy![0]![1], calm![0]![1]) + 1000
      const till = calm!.at(-1)![1] - 1000
      const both = calm!.filter(([, at]) => at > from && at < till)
      const late = both.flatMap((chunk) => lateness(chunk).slice(0, 1))
      expect(late.length / both.length, `${late.length} of ${both.length} chunks`).toBeGreaterThanOrEqual(0.98)
      const sorted = late.sort((first, second) => first - second)
      expect(sorted[Math.floor(sorted.length * 0.95)]!, 'how much later, in ms, 95 in 100').toBeLessThanOrEqual(300)
    })
  })
})
