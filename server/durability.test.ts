// kill -9 between any two edits loses nothing that was acknowledged.
import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { afterAll, expect, it } from 'vitest'
import { renameShow } from '../core/show/edits.ts'
import { seededRandom } from '../core/random/seeded.ts'
import { testShow } from '../tests/support/shows.ts'
import { callJson } from '../tests/support/test-server.ts'

const rootDir = path.resolve(path.dirname(new URL(import.meta.url).pathname), '..')
const dataDir = mkdtempSync(path.join(tmpdir(), 'green-room-kill-'))
let running: ChildProcess | null = null
afterAll(() => {
  running?.kill('SIGKILL')
  rmSync(dataDir, { recursive: true, force: true })
})

/** Starts the real server process; resolves with its address once it has printed it. */
function start(): Promise<string> {
  const child = spawn(process.execPath, [path.join(rootDir, 'node_modules/tsx/dist/cli.mjs'), path.join(rootDir, 'server/main.ts')], {
    env: { ...process.env, GREEN_ROOM_PORT: '0', GREEN_ROOM_MEETING_PORT: '0', GREEN_ROOM_DATA: dataDir },
    stdio: ['ignore', 'pipe', 'pipe'],
    detached: true,
  })
  running = child
  return new Promise((resolve, reject) => {
    let text = ''
    child.stdout!.on('data', (chunk: Buffer) => {
      text += chunk.toString()
      const url = /Green Room\s+(http:\S+)/.exec(text)?.[1]
      if (url !== undefined) resolve(url)
    })
    child.stderr!.on('data', (chunk: Buffer) => (text += chunk.toString()))
    child.once('exit', (code) => reject(new Error(`the server ended with ${code}: ${text}`)))
  })
}

/** Kills the process and the one it runs in, as a power cut would: nothing gets to say goodbye. */
function killHard(): Promise<void> {
  const child = running!
  return new Promise((resolve) => {
    child.once('exit', () => resolve())
    process.kill(-child.pid!, 'SIGKILL')
  })
}

it('survives kill -9 after and amid edits (seed 9)', async () => {
  const show = testShow()
  const random = seededRandom(9)
  let url = await start()
  const { id } = (await callJson(`${url}/api/shows`, 'POST', { show })).body as { id: string }
  let acknowledged = 1
  for (let round = 0; round < 4; round += 1) {
    const edits = 3 + Math.floor(random() * 6)
    for (let i = 0; i < edits; i += 1) {
      const { status, body } = await callJson(`${url}/api/shows/${id}`, 'PUT', {
        baseRevision: acknowledged,
        show: renameShow(show, `Edit ${acknowledged + 1}`),
      })
      expect(status).toBe(200)
      acknowledged = body.revision
    }
    // One more is under way when the axe falls: it may be lost or kept, but whole.
    const underWay = callJson(`${url}/api/shows/${id}`, 'PUT', { baseRevision: acknowledged, show: renameShow(show, `Edit ${acknowledged + 1}`) }).catch(
      () => null,
    )
    await killHard()
    await underWay
    url = await start()
    const { body } = await callJson(`${url}/api/shows/${id}`)
    expect(body.revision - acknowledged === 0 || body.revision - acknowledged === 1).toBe(true)
    expect(body.show.name).toBe(`Edit ${body.revision}`)
    acknowledged = body.revision
  }
  await killHard()
  running = null
}, 120_000)
