// Forty large files at once: a few are read, the others wait unread, and whoever gives up leaves the place to the next.
import type { Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import express from 'express'
import { afterEach, describe, expect, it, vi } from 'vitest'
import type { AssetStore } from './asset-store.ts'
import { assetRoutes, UPLOADS_AT_ONCE } from './routes.ts'

let site: Server
afterEach(() => {
  site.closeAllConnections()
  site.close()
})

async function setUp() {
  const held: (() => void)[] = []
  let most = 0
  let now = 0
  const store = {
    receive: async (body: AsyncIterable<Buffer>) => {
      let byteLength = 0
      for await (const chunk of body) byteLength += chunk.length
      now += 1
      most = Math.max(most, now)
      await new Promise<void>((resolve) => held.push(resolve))
      now -= 1
      return { hash: String(byteLength) }
    },
  }
  const app = express()
  app.use('/assets', assetRoutes(store as unknown as AssetStore))
  app.get('/other', (_request, response) => void response.send('here'))
  site = app.listen(0, '127.0.0.1')
  await new Promise((resolve) => site.once('listening', resolve))
  const url = `http://127.0.0.1:${(site.address() as AddressInfo).port}`
  const send = (signal?: AbortSignal) =>
    fetch(`${url}/assets?name=a.png`, { method: 'POST', body: new Uint8Array(2_000_000), ...(signal === undefined ? {} : { signal }) })
  return { held, send, url, most: () => most }
}

describe('uploads', () => {
  it('are taken a few at a time, all of them in the end, and hold nobody else up', async () => {
    const { held, send, url, most } = await setUp()
    const all = Array.from({ length: 20 }, () => send())
    await vi.waitFor(() => expect(held).toHaveLength(UPLOADS_AT_ONCE))
    // Meanwhile everything else is answered, and no fourth one has come in.
    for (let i = 0; i < 5; i += 1) expect((await fetch(`${url}/other`)).status).toBe(200)
    expect(held).toHaveLength(UPLOADS_AT_ONCE)
    for (let done = 0; done < 20; done += 1) {
      await vi.waitFor(() => expect(held.length).toBeGreaterThan(done))
      held[done]!()
    }
    expect((await Promise.all(all)).map(({ status }) => status)).toEqual(Array(20).fill(201))
    expect(most()).toBe(UPLOADS_AT_ONCE)
  })

  it('that are given up while they wait or are read leave their place', async () => {
    const { held, send } = await setUp()
    const leaving = new AbortController()
    const gone = Array.from({ length: UPLOADS_AT_ONCE + 2 }, () => send(leaving.signal).catch(() => 'given up'))
    await vi.waitFor(() => expect(held).toHaveLength(UPLOADS_AT_ONCE))
    leaving.abort()
    expect(await Promise.all(gone)).toEqual(Array(UPLOADS_AT_ONCE + 2).fill('given up'))
    const next = send()
    await vi.waitFor(() => expect(held.length).toBeGreaterThan(UPLOADS_AT_ONCE))
    for (const release of held) release()
    expect((await next).status).toBe(201)
  })
})
