import { request } from 'node:http'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { WebSocket } from 'ws'
import { callJson, startTestServer, type TestServer } from '../tests/support/test-server.ts'

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
    studio.send(JSON.stringify({ type: 'feed', isOn: true }))
    expect(await next(meeting)).toEqual({ type: 'studio', isOpen: true, isFeedOn: true })
    meeting.send(JSON.stringify({ type: 'want', session: 's1' }))
    expect(await next(studio)).toEqual({ type: 'meeting', origin: server.meetingUrl, message: { type: 'want', session: 's1' } })
    studio.send(JSON.stringify({ type: 'description', session: 's1', description: { type: 'offer', sdp: 'v=0' } }))
    expect(await next(meeting)).toMatchObject({ type: 'description', session: 's1' })
    meeting.close()
    expect(await next(studio)).toMatchObject({ message: { type: 'bye', session: 's1' } })
    studio.close()
  })

  it('lets one tab edit a show: the second is told, may take over, and gets it when the first leaves', async () => {
    const [first, second] = [await open('studio', server.studioUrl), await open('studio', server.studioUrl)]
    const ask = (socket: WebSocket, takeOver: boolean) => socket.send(JSON.stringify({ type: 'edit', showId: 'show-1', takeOver }))
    ask(first, false)
    expect(await next(first)).toEqual({ type: 'editor', showId: 'show-1', isEditor: true })
    ask(second, false)
    expect(await next(second)).toEqual({ type: 'editor', showId: 'show-1', isEditor: false })
    ask(second, true)
    expect(await next(second)).toEqual({ type: 'editor', showId: 'show-1', isEditor: true })
    expect(await next(first)).toEqual({ type: 'editor', showId: 'show-1', isEditor: false })
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
