// Meeting pages made with general WebRTC packages (webrtc-adapter 9, simple-peer 9, peer-lite 2, each as it is published), under a
// strict policy: from a page, from a frame in it, and from a window that it opens.
import { createServer } from 'node:http'
import { readFileSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import type { Frame, Page } from '@playwright/test'
import { expect, FULL_RATE, openStudio, test } from './studio.ts'
import { withExtension } from './with-extension.ts'

test.use({ frameRate: FULL_RATE })

const POLICY = "default-src 'none'; script-src 'self'; worker-src 'none'; connect-src 'none'; frame-src 'self'; media-src 'self'"

const packageFile = (file: string) => readFileSync(new URL(`../../node_modules/${file}`, import.meta.url), 'utf8')

/** The page's own script: each package sends what it opened to a second peer of its own kind; what that gets is returned. */
const SCRIPT = `
  import Peer from '/peer-lite.js'
  const wishes = { video: { width: { min: 640, ideal: 640 }, height: { min: 360, ideal: 360 } }, audio: { echoCancellation: { exact: true } } }
  const open = async () => (await navigator.mediaDevices.getUserMedia(wishes)).clone()

  const ways = {
    'webrtc-adapter': async (stream) => {
      const [near, far] = [new RTCPeerConnection(), new RTCPeerConnection()]
      near.onicecandidate = ({ candidate }) => candidate && far.addIceCandidate(candidate)
      far.onicecandidate = ({ candidate }) => candidate && near.addIceCandidate(candidate)
      const got = new Promise((resolve) => (far.ontrack = ({ streams }) => resolve(streams[0])))
      for (const track of stream.getTracks()) near.addTrack(track, stream)
      await near.setLocalDescription()
      await far.setRemoteDescription(near.localDescription)
      await far.setLocalDescription()
      await near.setRemoteDescription(far.localDescription)
      return got
    },
    'simple-peer': (stream) => {
      const [near, far] = [new SimplePeer({ initiator: true, stream }), new SimplePeer()]
      near.on('signal', (data) => far.signal(data))
      far.on('signal', (data) => near.signal(data))
      return new Promise((resolve, reject) => {
        far.on('stream', resolve)
        for (const peer of [near, far]) peer.on('error', reject)
      })
    },
    'peer-lite': (stream) => {
      const [near, far] = [new Peer(), new Peer()]
      for (const [from, to] of [[near, far], [far, near]]) {
        from.on('signal', (description) => to.signal(description))
        from.on('onicecandidates', (candidates) => Promise.all(candidates.map((candidate) => to.addIceCandidate(candidate))))
      }
      const got = new Promise((resolve) => far.on('streamRemote', resolve))
      near.addStream(stream)
      near.start()
      return got
    },
  }

  /** Brightness of a corner of a stream's next picture, as the far side gets it. */
  window.call = async (name) => {
    const stream = await open()
    const far = await ways[name](stream)
    const video = document.createElement('video')
    Object.assign(video, { muted: true, srcObject: far })
    document.body.append(video)
    await video.play()
    window.far = video
    return { labels: stream.getTracks().map(({ label }) => label), kinds: far.getTracks().map(({ kind }) => kind).sort(), width: stream.getVideoTracks()[0].getSettings().width }
  }
  window.look = () => {
    const sheet = document.createElement('canvas')
    Object.assign(sheet, { width: 16, height: 9 })
    const pen = sheet.getContext('2d')
    pen.drawImage(window.far, 0, 0, 16, 9)
    const [red, green, blue] = pen.getImageData(1, 1, 1, 1).data
    return red + green + blue
  }
`

const HEAD =
  '<!doctype html><title>A meeting</title><script src="/adapter.js"></script><script src="/simple-peer.js"></script><script type="module" src="/page.js"></script><body>'

const FILES: Readonly<Record<string, readonly [string, string]>> = {
  '/': ['text/html', HEAD],
  '/outer': ['text/html', `<!doctype html><title>Outer</title><iframe src="/"></iframe>`],
  '/adapter.js': ['text/javascript', packageFile('webrtc-adapter/out/adapter.js')],
  '/simple-peer.js': ['text/javascript', packageFile('simple-peer/simplepeer.min.js')],
  '/peer-lite.js': ['text/javascript', packageFile('peer-lite/dist/index.es.js')],
  '/page.js': ['text/javascript', SCRIPT],
}

type Calls = { call(name: string): Promise<{ labels: string[]; kinds: string[]; width: number }>; look(): number; far?: HTMLVideoElement }

for (const name of ['webrtc-adapter', 'simple-peer', 'peer-lite'])
  test(`${name}: our picture and sound reach the far side, from a page, a frame and a popup of a strict site`, async ({ server }) => {
    const site = createServer((request, response) => {
      const [type, text] = FILES[request.url ?? ''] ?? ['text/plain', '']
      response.setHeader('content-security-policy', POLICY).setHeader('content-type', type).end(text)
    })
    await new Promise<void>((resolve) => site.listen(0, '127.0.0.1', resolve))
    const origin = `http://127.0.0.1:${(site.address() as AddressInfo).port}`
    try {
      await withExtension(server, async (context) => {
        const studio = await context.newPage()
        await openStudio(studio, server)
        await studio.getByRole('button', { name: 'Start feed' }).click()
        const warnings: string[] = []
        const callFrom = async (page: Page | Frame) => {
          await page.waitForFunction(() => 'call' in window)
          const called = await page.evaluate((way) => (window as unknown as Calls).call(way), name)
          expect(called).toEqual({ labels: ['Green Room Microphone', 'Green Room Camera'], kinds: ['audio', 'video'], width: 640 })
        }
        const isLive = (page: Page | Frame) =>
          expect.poll(() => page.evaluate(() => (window as unknown as Calls).look()), { timeout: 40_000 }).toBeGreaterThan(450)
        const note = (page: Page) => page.on('console', (message) => warnings.push(message.text()))

        const page = await context.newPage()
        note(page)
        await page.goto(`${origin}/`)
        await callFrom(page)
        await studio.bringToFront()
        await studio.getByTestId('site-ask').getByRole('button', { name: 'Always', exact: true }).click()
        await page.bringToFront()
        await isLive(page)

        const [popup] = await Promise.all([context.waitForEvent('page'), page.evaluate((url) => void window.open(url, 'second'), `${origin}/`)])
        note(popup)
        await callFrom(popup)
        await isLive(popup)
        await popup.close()

        await page.goto(`${origin}/outer`)
        await callFrom(page.frames()[1]!)
        await isLive(page.frames()[1]!)
        // Frames of ours that nobody closed would be told of here.
        const session = await context.newCDPSession(page)
        await session.send('HeapProfiler.collectGarbage')
        expect(warnings.filter((text) => /garbage collected/.test(text))).toEqual([])
      })
    } finally {
      site.closeAllConnections()
      site.close()
    }
  })
