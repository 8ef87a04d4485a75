// What a foreign page, a broken client or plain noise may do to signalling: nothing.
import { connect } from 'node:net'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { WebSocket } from 'ws'
import { seededRandom } from '../../core/random/seeded.ts'
import { startTestServer, type TestServer } from '../../tests/support/test-server.ts'

let server: TestServer
beforeEach(async () => {
  server = await startTestServer()
})
afterEach(() => server.close())

const origin = () => server.meetingUrl
const portOf = (url: string) => Number(new URL(url).port)
const socketUrl = (role: string) => `${server.studioUrl.replace('http', 'ws')}/signal?role=${role}`

/** Sends bytes on a bare connection and waits until it is over; `reset` drops it at once. */
function raw(bytes: string | Buffer, { reset = false, port = portOf(server.studioUrl), host = '127.0.0.1' } = {}): Promise<string> {
  return new Promise((resolve) => {
    const socket = connect(port, host, () => {
      socket.write(bytes, () => {
        if (reset) socket.resetAndDestroy()
        else socket.end()
      })
    })
    let text = ''
    socket.on('data', (chunk) => (text += chunk.toString('latin1')))
    socket.on('error', () => undefined)
    socket.on('close', () => resolve(text))
  })
}

function upgrade(path: string, { from = origin(), host = 'localhost' } = {}): string {
  return [
    `GET ${path} HTTP/1.1`,
    `Host: ${host}`,
    'Connection: Upgrade',
    'Upgrade: websocket',
    `Origin: ${from}`,
    'Sec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==',
    'Sec-WebSocket-Version: 13',
    '',
    '',
  ].join('\r\n')
}

/** A frame as a client sends it (RFC 6455 §5.2), masked with zeros. */
function frame(firstByte: number, payload: Buffer): Buffer {
  const isLong = payload.length > 65_535
  const head = Buffer.alloc(isLong ? 14 : payload.length > 125 ? 8 : 6)
  head[0] = firstByte
  if (isLong) {
    head[1] = 0x80 | 127
    head.writeBigUInt64BE(BigInt(payload.length), 2)
  } else if (payload.length > 125) {
    head[1] = 0x80 | 126
    head.writeUInt16BE(payload.length, 2)
  } else head[1] = 0x80 | payload.length
  return Buffer.concat([head, payload])
}

async function isAlive(): Promise<boolean> {
  return ((await (await fetch(`${server.studioUrl}/api/health`)).json()) as { ok: boolean }).ok
}

/** An honest client that keeps what it hears. */
async function client(
  role: 'studio' | 'meeting',
): Promise<{ socket: WebSocket; heard: unknown[]; say: (message: unknown) => void; hears: (test: (message: unknown) => boolean) => Promise<unknown> }> {
  const socket = new WebSocket(socketUrl(role), { origin: role === 'studio' ? server.studioUrl : server.meetingUrl })
  const heard: unknown[] = []
  socket.on('message', (data) => heard.push(JSON.parse(String(data))))
  await new Promise((resolve, reject) => socket.once('open', resolve).once('error', reject))
  const hears = async (test: (message: unknown) => boolean) => {
    for (;;) {
      const found = heard.find(test)
      if (found !== undefined) return found
      await new Promise((resolve) => socket.once('message', resolve))
    }
  }
  return { socket, heard, say: (message) => socket.send(JSON.stringify(message)), hears }
}

describe('a foreign page', () => {
  it.each(['//', '/signal?role=meeting', '/signal', 'http://', '///signal?role=studio', '/%', '/signal?role=%E0%A4%A', '*'])(
    'is refused at %s',
    async (path) => {
      const answer = await raw(upgrade(path, { from: 'https://elsewhere.example' }))
      expect(answer).toMatch(/^HTTP\/1\.1 4\d\d /)
      expect(await isAlive()).toBe(true)
    },
  )

  it('is refused although it goes away in the middle', async () => {
    await Promise.all(Array.from({ length: 50 }, () => raw(upgrade('//', { from: 'https://elsewhere.example' }), { reset: true })))
    await Promise.all(Array.from({ length: 50 }, () => raw(upgrade('/signal?role=meeting'), { reset: true })))
    expect(await isAlive()).toBe(true)
  })

  it('is refused at the meeting, under a foreign name and for an upgrade', async () => {
    const port = portOf(server.meetingUrl)
    expect(await raw('GET / HTTP/1.1\r\nHost: elsewhere.example\r\nConnection: close\r\n\r\n', { port })).toMatch(/^HTTP\/1\.1 403/)
    await raw(upgrade('//'), { port, reset: true })
    expect((await fetch(`${server.meetingUrl}/nothing-here`)).status).toBe(404)
  })
})

describe('a broken client', () => {
  it.each([
    ['a message of 300 kB', frame(0x81, Buffer.alloc(300_000, 0x20))],
    ['reserved bits', frame(0xf1, Buffer.from('{}'))],
    ['an unknown opcode', frame(0x8b, Buffer.from('{}'))],
    ['bad UTF-8', frame(0x81, Buffer.from([0xc3, 0x28, 0xff]))],
    ['a continuation of nothing', frame(0x80, Buffer.from('{}'))],
    ['a close without sense', frame(0x88, Buffer.from([0x00]))],
    ['a ping that is too long', frame(0x89, Buffer.alloc(200))],
  ])('that sends %s is cut off and nobody else is', async (_what, bytes) => {
    const other = await client('meeting')
    await raw(Buffer.concat([Buffer.from(upgrade('/signal?role=meeting')), bytes]))
    await raw(Buffer.concat([Buffer.from(upgrade('/signal?role=meeting')), bytes]), { reset: true })
    expect(await isAlive()).toBe(true)
    expect(other.socket.readyState).toBe(WebSocket.OPEN)
    other.socket.close()
  })

  it('has room for a few tracks a page, however many it asks for', async () => {
    const [studio, meeting] = [await client('studio'), await client('meeting')]
    studio.say({ type: 'feed', isOn: true, isAgain: false })
    await meeting.hears((message) => (message as { isFeedOn?: boolean }).isFeedOn === true)
    for (let i = 0; i < 2000; i += 1) meeting.say({ type: 'want', session: `s${i}` })
    await meeting.hears((message) => (message as { session?: string }).session === 's1999')
    await studio.hears((message) => (message as { message: { session: string } }).message.session.endsWith(':s3'))
    expect(studio.heard.filter((message) => (message as { message?: { type: string } }).message?.type === 'want')).toHaveLength(4)
    for (const each of [studio, meeting]) each.socket.close()
  })

  it('cannot speak for another meeting', async () => {
    const [studio, honest, other] = [await client('studio'), await client('meeting'), await client('meeting')]
    studio.say({ type: 'feed', isOn: true, isAgain: false })
    await honest.hears((message) => (message as { isFeedOn?: boolean }).isFeedOn === true)
    honest.say({ type: 'want', session: 'same' })
    const wish = (await studio.hears((message) => (message as { type: string }).type === 'meeting')) as { message: { session: string } }
    other.say({ type: 'bye', session: 'same' })
    other.say({ type: 'want', session: 'same' })
    await studio.hears((message) => message !== wish && (message as { message?: { type: string } }).message?.type === 'want')
    expect(studio.heard).toHaveLength(2)
    studio.say({ type: 'description', session: wish.message.session, description: { type: 'offer', sdp: 'v=0' } })
    await honest.hears((message) => (message as { type: string }).type === 'description')
    expect(other.heard.some((message) => (message as { type: string }).type === 'description')).toBe(false)
    for (const each of [studio, honest, other]) each.socket.close()
  })
})

describe('who sends the feed', () => {
  it('is the last tab that started it; the other is told, and a meeting is never left with a feed that is not there', async () => {
    const [first, second, meeting] = [await client('studio'), await client('studio'), await client('meeting')]
    const isOn = (is: boolean) => (message: unknown) => (message as { isFeedOn?: boolean }).isFeedOn === is
    first.say({ type: 'feed', isOn: true, isAgain: false })
    await meeting.hears(isOn(true))
    second.say({ type: 'feed', isOn: true, isAgain: false })
    expect(await first.hears(() => true)).toEqual({ type: 'feedTaken' })
    meeting.heard.length = 0
    second.say({ type: 'feed', isOn: false, isAgain: false })
    await meeting.hears(isOn(false))
    for (const each of [first, second, meeting]) each.socket.close()
  })

  it('is not taken back by a tab that was cut off for a moment', async () => {
    const [first, second] = [await client('studio'), await client('studio')]
    second.say({ type: 'feed', isOn: true, isAgain: false })
    first.say({ type: 'feed', isOn: true, isAgain: true })
    expect(await first.hears(() => true)).toEqual({ type: 'feedTaken' })
    second.socket.close()
    await new Promise((resolve) => second.socket.once('close', resolve))
    const meeting = await client('meeting')
    await meeting.hears((message) => (message as { isFeedOn?: boolean }).isFeedOn === false)
    first.say({ type: 'feed', isOn: true, isAgain: true })
    await meeting.hears((message) => (message as { isFeedOn?: boolean }).isFeedOn === true)
    for (const each of [first, meeting]) each.socket.close()
  })
})

describe('noise', () => {
  const SEED = 20
  const MESSAGES = 10_000
  it(`of ${MESSAGES} messages and 500 upgrades (seed ${SEED}) leaves the server alive and the feed untouched`, async () => {
    const random = seededRandom(SEED)
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
    const [studio, meeting] = [await client('studio'), await client('meeting')]
    studio.say({ type: 'feed', isOn: true, isAgain: false })
    await meeting.hears((message) => (message as { isFeedOn?: boolean }).isFeedOn === true)
    meeting.say({ type: 'want', session: 'honest' })
    const wish = (await studio.hears((message) => (message as { type: string }).type === 'meeting')) as { message: { session: string } }

    const sessions = ['honest', '1:honest', wish.message.session, '', 'x'.repeat(70), '__proto__']
    const value = () => pick<unknown>([null, true, 0, -1, 1e308, '', 'x', [], {}, [[]], { type: 'offer', sdp: 'v=0' }, 'é\u0000\ud800'])
    const type = () => pick(['want', 'description', 'candidate', 'bye', 'feed', 'edit', 'leave', 'constructor', 7, null])
    const message = (): Buffer => {
      const whole = {
        type: type(),
        session: pick(sessions),
        description: value(),
        candidate: value(),
        isOn: value(),
        isAgain: value(),
        showId: value(),
        takeOver: value(),
      }
      const text = JSON.stringify(random() < 0.1 ? value() : whole)
      const bytes = Buffer.from(random() < 0.2 ? text.slice(0, Math.floor(random() * text.length)) : text)
      if (random() < 0.2 && bytes.length > 0) bytes[Math.floor(random() * bytes.length)] = Math.floor(random() * 256)
      return bytes
    }
    let sent = 0
    while (sent < MESSAGES) {
      // A client that talks nonsense is cut off; the next takes its place, in groups as several pages would.
      await Promise.all(
        Array.from({ length: 10 }, async () => {
          const socket = new WebSocket(socketUrl('meeting'), { origin: server.meetingUrl })
          await new Promise((resolve) => socket.once('open', resolve).once('error', resolve))
          for (let i = 0; i < 25; i += 1) {
            socket.send(message(), { binary: random() < 0.1 }, () => undefined)
            sent += 1
          }
          const over = new Promise((resolve) => socket.once('close', resolve))
          socket.on('error', () => undefined)
          socket.close()
          await over
        }),
      )
    }
    for (let i = 0; i < 500; i += 25) {
      await Promise.all(
        Array.from({ length: 25 }, () => {
          const head = upgrade(pick(['//', '/signal?role=studio', '/signal?role=meeting', '/signal?role=meeting#', '/x', '?']), {
            from: pick([server.meetingUrl, server.studioUrl, 'null', 'https://elsewhere.example', '']),
            host: pick(['localhost', 'elsewhere.example', '', '[::1]:9', '\u0001']),
          })
          const bytes = Buffer.from(random() < 0.3 ? head.slice(0, Math.floor(random() * head.length)) : head)
          return raw(bytes, { reset: random() < 0.5 })
        }),
      )
    }
    expect(await isAlive()).toBe(true)
    expect([studio.socket.readyState, meeting.socket.readyState]).toEqual([WebSocket.OPEN, WebSocket.OPEN])
    studio.say({ type: 'description', session: wish.message.session, description: { type: 'offer', sdp: 'v=0' } })
    await meeting.hears((each) => (each as { type: string }).type === 'description')
    expect(studio.heard).not.toContainEqual({ type: 'feedTaken' })
    for (const each of [studio, meeting]) each.socket.close()
  }, 120_000)
})

it('a hundred sockets of the meeting’s origin leave the studio its place, and one more meeting is told that there is no room', async () => {
  const open = (role: string, from: string) =>
    new Promise<WebSocket | null>((resolve) => {
      const socket = new WebSocket(socketUrl(role), { headers: { origin: from } })
      socket.on('open', () => resolve(socket))
      socket.on('error', () => resolve(null))
    })
  const meetings = await Promise.all(Array.from({ length: 100 }, () => open('meeting', origin())))
  expect(meetings.filter((socket) => socket !== null)).toHaveLength(60)
  const studio = await open('studio', server.studioUrl)
  expect(studio).not.toBeNull()
  for (const socket of [...meetings, studio]) socket?.terminate()
})
