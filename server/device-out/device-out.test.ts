import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { execFileSync } from 'node:child_process'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { WebSocket } from 'ws'
import { callJson, startTestServer, type TestServer } from '../../tests/support/test-server.ts'
import { deviceOutStartSchema } from '../../webcam/device-out.ts'
import { DeviceWriter, ffmpegArguments } from './device-writer.ts'
import { findWays, outFile } from './ways.ts'

const start = { target: { type: 'file' }, widthPx: 320, heightPx: 180, frameRate: 30 } as const
const folder = mkdtempSync(path.join(tmpdir(), 'green-room-out-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))

/** A second of H.264 as a studio sends it, made by ffmpeg. */
const clip = () =>
  execFileSync('ffmpeg', [
    '-loglevel',
    'error',
    '-f',
    'lavfi',
    '-i',
    'testsrc2=s=320x180:r=30',
    '-frames:v',
    '30',
    '-c:v',
    'libx264',
    '-tune',
    'zerolatency',
    '-profile:v',
    'baseline',
    '-pix_fmt',
    'yuv420p',
    '-f',
    'h264',
    'pipe:1',
  ])

describe('the ways out', () => {
  it('names the program and every loopback device', async () => {
    const devices = path.join(folder, 'video4linux')
    for (const name of ['video9', 'video7']) mkdirSync(path.join(devices, name), { recursive: true })
    writeFileSync(path.join(devices, 'video7/name'), 'Green Room\n')
    const ways = await findWays(folder, 'ffmpeg', devices)
    expect(ways.ffmpeg).toMatch(/^ffmpeg version/)
    expect(ways.devices).toEqual([
      { path: '/dev/video7', name: 'Green Room' },
      { path: '/dev/video9', name: 'video9' },
    ])
  })

  it('says plainly that the program or the devices are not there', async () => {
    expect(await findWays(folder, 'no-such-program', path.join(folder, 'nowhere'))).toMatchObject({ ffmpeg: null, devices: [] })
  })
})

describe('what may be asked', () => {
  it.each([
    [{ ...start, target: { type: 'device', path: '/dev/video10' } }, true],
    [start, true],
    [{ ...start, target: { type: 'device', path: '/dev/video10; rm -rf /' } }, false],
    [{ ...start, target: { type: 'device', path: '/dev/sda' } }, false],
    [{ ...start, target: { type: 'device', path: '../../dev/video1' } }, false],
    [{ ...start, target: { type: 'file', path: '/etc/passwd' } }, false],
    [{ ...start, widthPx: 0 }, false],
    [{ ...start, frameRate: 1e9 }, false],
  ])('%j: %s', (message, isGood) => expect(deviceOutStartSchema.safeParse(message).success).toBe(isGood))

  it('buffers nothing on the way to a device', () => {
    const words = ffmpegArguments({ ...start, target: { type: 'device', path: '/dev/video7' } }, '').join(' ')
    expect(words).toContain('-flags low_delay -probesize 32 -analyzeduration 0 -f h264')
    expect(words).toMatch(/-f v4l2 \/dev\/video7$/)
    // It would drop the first pictures.
    expect(words).not.toContain('nobuffer')
  })
})

describe('DeviceWriter', () => {
  it('writes every frame it was given', async () => {
    const ended = new Promise<string | null>((resolve) => {
      const writer = new DeviceWriter(start, folder, { onEnd: resolve })
      writer.write(clip())
      writer.close()
    })
    expect(await ended).toBeNull()
    const file = readFileSync(outFile(folder))
    expect(file.subarray(0, 30).toString()).toMatch(/^YUV4MPEG2 W320 H180 F30:1/)
    expect((file.length - file.indexOf('\n') - 1) / (6 + 320 * 180 * 1.5)).toBe(30)
  })

  it('says what the program said when it ends by itself, and when there is no such program', async () => {
    const script = path.join(folder, 'broken')
    writeFileSync(script, '#!/bin/sh\necho "the device is held by another program" >&2\nexit 3\n', { mode: 0o755 })
    const reasonOf = (program: string) => new Promise<string | null>((resolve) => void new DeviceWriter(start, folder, { onEnd: resolve }, program))
    expect(await reasonOf(script)).toBe('the device is held by another program')
    expect(await reasonOf('no-such-program')).toContain('no-such-program could not be started')
  })
})

describe('/device-out', () => {
  let server: TestServer
  beforeAll(async () => void (server = await startTestServer()))
  afterAll(() => server.close())

  const open = (origin: string, path = '/device-out?role=studio') => {
    const socket = new WebSocket(server.studioUrl.replace('http', 'ws') + path, { origin })
    const messages: { type: string; reason?: string }[] = []
    socket.on('message', (data) => messages.push(JSON.parse(String(data))))
    const closed = new Promise<void>((resolve) => socket.on('close', () => resolve()))
    const opened = new Promise<boolean>((resolve) => socket.on('open', () => resolve(true)).on('error', () => resolve(false)))
    return { socket, messages, opened, closed }
  }

  it('answers pages of the studio alone', async () => {
    expect(await open('https://evil.example.org').opened).toBe(false)
    expect(await open(server.meetingUrl, '/device-out?role=meeting').opened).toBe(false)
    expect((await callJson(`${server.studioUrl}/api/device-out`, 'GET', undefined, { origin: 'https://evil.example.org' })).status).toBe(403)
  })

  it.each([
    ['nonsense', 'was not understood'],
    [JSON.stringify({ ...start, target: { type: 'device', path: '/dev/video250' } }), 'There is no loopback device at /dev/video250'],
  ])('refuses %s with the reason', async (text, reason) => {
    const line = open(server.studioUrl)
    await line.opened
    line.socket.send(text)
    await line.closed
    expect(line.messages[0]).toMatchObject({ type: 'ended' })
    expect(line.messages[0]!.reason).toContain(reason)
  })

  it('lets go of a studio that was gone before the program had started', async () => {
    const gone = open(server.studioUrl)
    await gone.opened
    gone.socket.send(JSON.stringify(start), () => gone.socket.terminate())
    await gone.closed
    // The program is looked for first, which takes a moment.
    await callJson(`${server.studioUrl}/api/device-out`)
    const next = open(server.studioUrl)
    await next.opened
    next.socket.send(JSON.stringify(start))
    await expect.poll(() => next.messages.length).toBe(1)
    expect(next.messages[0]).toMatchObject({ type: 'started' })
    next.socket.close()
    await next.closed
  })

  it('writes what it is sent, and serves one at a time', async () => {
    const line = open(server.studioUrl)
    await line.opened
    line.socket.send(JSON.stringify(start))
    await expect.poll(() => line.messages.length).toBe(1)
    expect(line.messages[0]).toMatchObject({ type: 'started' })
    const second = open(server.studioUrl)
    await second.opened
    second.socket.send(JSON.stringify(start))
    await second.closed
    expect(second.messages[0]!.reason).toContain('already')
    line.socket.send(clip())
    await expect.poll(() => readFileSync(outFile(server.dataDir)).length, { timeout: 20_000 }).toBeGreaterThan(25 * 320 * 180 * 1.5)
    line.socket.close()
  })
})
