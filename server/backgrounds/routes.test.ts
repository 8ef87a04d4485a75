import sharp from 'sharp'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { MOVING_PICTURES, MOVING_SIZE } from '../../core/backgrounds/moving.ts'
import { startTestServer, type TestServer } from '../../tests/support/test-server.ts'

let server: TestServer
beforeAll(async () => (server = await startTestServer()))
afterAll(() => server.close())

const colours = { ground: '#101820', panel: '#f2e8d8', accent: '#c0392b' }
async function ask(body: unknown) {
  const response = await fetch(`${server.studioUrl}/api/backgrounds`, {
    method: 'POST',
    body: JSON.stringify(body),
    headers: { 'content-type': 'application/json' },
  })
  return { status: response.status, body: (await response.json()) as { hash: string; isMoving: boolean; error: { message: string } } }
}

it('draws a moving background once for the same colours, as a loop that other programs read', async () => {
  const { status, body } = await ask({ name: 'motes', colours })
  expect([status, body.isMoving]).toEqual([201, true])
  expect((await ask({ name: 'motes', colours })).body.hash).toBe(body.hash)
  const bytes = Buffer.from(await (await fetch(`${server.studioUrl}/api/assets/${body.hash}`)).arrayBuffer())
  // libwebp, by way of libvips, counts its pictures and their times.
  const { pages, pageHeight, width, delay, loop } = await sharp(bytes, { animated: true }).metadata()
  expect({ pages, pageHeight, width, loop }).toEqual({ pages: MOVING_PICTURES, pageHeight: MOVING_SIZE.heightPx, width: MOVING_SIZE.widthPx, loop: 0 })
  expect(new Set(delay)).toEqual(new Set([83]))
  expect((await ask({ name: 'motes', colours: { ...colours, accent: '#2b3ac0' } })).body.hash).not.toBe(body.hash)
})

it('names the field of what it cannot draw', async () => {
  for (const [body, field] of [
    [{ name: 'melt', colours }, 'name'],
    [{ name: 'tide', colours: { ...colours, panel: 'red' } }, 'colours.panel'],
    [{ name: 'tide', colours: { ground: '#000000' } }, 'colours.panel'],
  ] as const) {
    const answer = await ask(body)
    expect(answer.status).toBe(400)
    expect(answer.body.error.message).toContain(field)
  }
})
