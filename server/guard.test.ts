import { createServer, request } from 'node:http'
import type { AddressInfo } from 'node:net'
import { networkInterfaces } from 'node:os'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { WebSocket } from 'ws'
import { callJson, startTestServer, type TestServer } from '../tests/support/test-server.ts'
import { listenLocally } from './listen-locally.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

/** A request with a Host header of our choosing, which fetch does not allow. */
function withHost(host: string): Promise<{ status: number; text: string }> {
  const { port } = new URL(server.studioUrl)
  return new Promise((resolve, reject) => {
    request({ host: '127.0.0.1', port, path: '/api/shows', headers: { host } }, (response) => {
      let text = ''
      response.on('data', (chunk) => (text += chunk)).on('end', () => resolve({ status: response.statusCode ?? 0, text }))
    })
      .on('error', reject)
      .end()
  })
}

describe('the guard', () => {
  it('answers under the names of this machine only', async () => {
    expect((await withHost('localhost:1')).status).toBe(200)
    const foreign = await withHost('green-room.example')
    expect(foreign.status).toBe(403)
    expect(JSON.parse(foreign.text).error).toMatchObject({ code: 'foreign-host', message: expect.stringContaining('green-room.example') })
  })

  it('refuses pages of another origin, even to write without reading', async () => {
    const { status, body } = await callJson(`${server.studioUrl}/api/shows`, 'POST', {}, { origin: 'https://elsewhere.example' })
    expect(status).toBe(403)
    expect(body.error).toMatchObject({ code: 'foreign-origin', message: expect.stringContaining('https://elsewhere.example') })
    expect((await callJson(`${server.studioUrl}/api/shows`, 'GET', undefined, { origin: server.meetingUrl })).status).toBe(403)
    expect((await callJson(`${server.studioUrl}/api/shows`, 'GET', undefined, { origin: server.studioUrl })).status).toBe(200)
  })

  it('says where nothing is', async () => {
    const { status, body } = await callJson(`${server.studioUrl}/api/nothing`)
    expect(status).toBe(404)
    expect(body.error.message).toContain('/api/nothing')
  })
})

describe('signalling', () => {
  const signalUrl = (role: string) => `${server.studioUrl.replace('http', 'ws')}/signal?role=${role}`
  const open = (role: string, origin: string) =>
    new Promise<WebSocket>((resolve, reject) => {
      const socket = new WebSocket(signalUrl(role), { origin })
      // Messages may come with the opening itself; keep them until somebody asks.
      const queue: unknown[] = []
      socket.on('message', (data) => queue.push(JSON.parse(String(data))))
      Object.assign(socket, { queue })
      socket.once('open', () => resolve(socket)).once('error', reject)
    })
  const next = async (socket: WebSocket): Promise<unknown> => {
    const { queue } = socket as WebSocket & { queue: unknown[] }
    while (queue.length === 0) await new Promise((resolve) => socket.once('message', resolve))
    return queue.shift()
  }

  it('lets only our own origins in, each in its role', async () => {
    await expect(open('studio', 'https://elsewhere.example')).rejects.toThrow('403')
    await expect(open('studio', server.meetingUrl)).rejects.toThrow('403')
    await expect(open('meeting', server.studioUrl)).rejects.toThrow('403')
  })

  it('tells a meeting of the studio and carries its wish with the true origin', async () => {
    const meeting = await open('meeting', server.meetingUrl)
    expect(await next(meeting)).toEqual({ type: 'studio', isOpen: false, isFeedOn: false })
    const studio = await open('studio', server.studioUrl)
    expect(await next(meeting)).toEqual({ type: 'studio', isOpen: true, isFeedOn: false })
    studio.send(JSON.stringify({ type: 'feed', isOn: true, isAgain: false }))
    expect(await next(meeting)).toEqual({ type: 'studio', isOpen: true, isFeedOn: true })
    meeting.send(JSON.stringify({ type: 'want', session: 's1' }))
    const wish = (await next(studio)) as { message: { session: string } }
    expect(wish).toMatchObject({ type: 'meeting', origin: server.meetingUrl, message: { type: 'want', session: expect.stringMatching(/^\d+:s1$/) } })
    const { session } = wish.message
    studio.send(JSON.stringify({ type: 'description', session, description: { type: 'offer', sdp: 'v=0' } }))
    expect(await next(meeting)).toMatchObject({ type: 'description', session: 's1' })
    meeting.close()
    expect(await next(studio)).toMatchObject({ message: { type: 'bye', session } })
    studio.close()
  })

  it('lets one tab edit a show: the second is told, may take over, and gets it when the first leaves', async () => {
    const [first, second] = [await open('studio', server.studioUrl), await open('studio', server.studioUrl)]
    const ask = (socket: WebSocket, takeOver: boolean) => socket.send(JSON.stringify({ type: 'edit', showId: 'show-1', takeOver, isAgain: false }))
    ask(first, false)
    expect(await next(first)).toEqual({ type: 'editor', showId: 'show-1', isEditor: true })
    ask(second, false)
    expect(await next(second)).toEqual({ type: 'editor', showId: 'show-1', isEditor: false })
    ask(second, true)
    expect(await next(first)).toEqual({ type: 'editor', showId: 'show-1', isEditor: false })
    first.send(JSON.stringify({ type: 'yield', showId: 'show-1' }))
    expect(await next(second)).toEqual({ type: 'editor', showId: 'show-1', isEditor: true })
    second.close()
    expect(await next(first)).toEqual({ type: 'editor', showId: 'show-1', isEditor: true })
    first.close()
  })

  it('ends a connection that talks nonsense', async () => {
    const meeting = await open('meeting', server.meetingUrl)
    const ended = new Promise((resolve) => meeting.once('close', resolve))
    meeting.send('{"type":"dance"}')
    expect(await ended).toBe(1008)
  })
})

describe('headers', () => {
  const headersOf = async (url: string) => (await fetch(url)).headers

  // What each header does: https://www.w3.org/TR/CSP3/, https://html.spec.whatwg.org/multipage/browsers.html#coep
  it('keep other origins out of the studio, and the studio to itself', async () => {
    const headers = await headersOf(`${server.studioUrl}/api/health`)
    expect(headers.get('cross-origin-embedder-policy')).toBe('require-corp')
    expect(headers.get('cross-origin-opener-policy')).toBe('same-origin')
    expect(headers.get('cross-origin-resource-policy')).toBe('same-origin')
    const policy = headers.get('content-security-policy')
    for (const rule of ["base-uri 'none'", "form-action 'none'", "frame-ancestors 'none'", "connect-src 'self'", "object-src 'none'"])
      expect(policy).toContain(rule)
    expect(policy).not.toContain('ws://')
    expect(headers.get('x-powered-by')).toBeNull()
  })

  it('let any page load the driver, and nothing else', async () => {
    expect((await headersOf(`${server.studioUrl}/webcam/driver.js`)).get('cross-origin-resource-policy')).toBe('cross-origin')
    for (const path of ['/webcam', '/webcamera/x', '/api/shows']) {
      const { headers } = await fetch(server.studioUrl + path, { redirect: 'manual' })
      expect(headers.get('cross-origin-resource-policy'), path).toBe('same-origin')
    }
  })

  it('of the meeting let in its own script and the one driver', async () => {
    const headers = await headersOf(`${server.meetingUrl}/nothing-here`)
    expect(headers.get('x-powered-by')).toBeNull()
    expect(headers.get('content-security-policy')).toContain(`script-src 'self' ${server.studioUrl};`)
    expect(headers.get('content-security-policy')).toContain("frame-ancestors 'none'")
  })
})

describe('addresses', () => {
  it('answers on each loopback address, so that no other program can answer for it', async () => {
    const { port } = new URL(server.studioUrl)
    const hosts = [
      '127.0.0.1',
      ...(Object.values(networkInterfaces())
        .flat()
        .some((each) => each?.address === '::1')
        ? ['[::1]']
        : []),
    ]
    for (const host of hosts) expect((await fetch(`http://${host}:${port}/api/health`)).status).toBe(200)
  })

  it('refuses a port that another program holds on either address, with words', async () => {
    for (const host of ['127.0.0.1', '::1']) {
      const other = createServer()
      const isHeld = await new Promise<boolean>((resolve) => other.once('error', () => resolve(false)).listen(0, host, () => resolve(true)))
      // A machine without IPv6 has no second address to lose.
      if (!isHeld) continue
      const { port } = other.address() as AddressInfo
      await expect(listenLocally(() => createServer(), port)).rejects.toThrow(`Port ${port} is in use (${host}). Stop the other program`)
      await new Promise((resolve) => other.close(resolve))
    }
  })
})

describe('addresses that cannot be read', () => {
  it.each(['/%E0%A4%A', '/api/shows/%E0%A4%A', '/%00', '/assets/%00', '/api/assets/%00', '/webcam/%c0%ae%c0%ae/x', '/api/shows/%'])(
    '%s is a 4xx without a stack',
    async (path) => {
      for (const url of [server.studioUrl, server.meetingUrl]) {
        const { status, text } = await new Promise<{ status: number; text: string }>((resolve, reject) => {
          const { port } = new URL(url)
          request({ host: '127.0.0.1', port, path, headers: { host: 'localhost' } }, (response) => {
            let body = ''
            response.on('data', (chunk) => (body += chunk)).on('end', () => resolve({ status: response.statusCode ?? 0, text: body }))
          })
            .on('error', reject)
            .end()
        })
        // The studio's own page answers for any path that can be read; without a build there is none.
        if (path.startsWith('/api') || path.includes('%E0') || url === server.meetingUrl) expect(status).toBeGreaterThanOrEqual(400)
        expect(status).toBeLessThan(500)
        expect(text).not.toMatch(/node_modules|\bat .+:\d+/)
      }
    },
  )
})
