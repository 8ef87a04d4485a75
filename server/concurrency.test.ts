// Fifty at once: every request is answered for what it is, and nothing is written twice or half.
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { renameShow } from '../core/show/edits.ts'
import { testShow } from '../tests/support/shows.ts'
import { callJson, startTestServer, type TestServer } from '../tests/support/test-server.ts'

const show = testShow()
const AT_ONCE = 50
let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

const api = (path: string) => `${server.studioUrl}/api${path}`
const atOnce = <T>(count: number, run: (index: number) => Promise<T>): Promise<T[]> => Promise.all(Array.from({ length: count }, (_, i) => run(i)))
const counted = (answers: readonly { status: number }[]) => {
  const counts: Record<number, number> = {}
  for (const { status } of answers) counts[status] = (counts[status] ?? 0) + 1
  return counts
}

describe('requests at once', () => {
  it('lets one of fifty saves on the same revision win and tells the others so', async () => {
    const { id } = (await callJson(api('/shows'), 'POST', { show })).body as { id: string }
    const answers = await atOnce(AT_ONCE, (i) => callJson(api(`/shows/${id}`), 'PUT', { baseRevision: 1, show: renameShow(show, `Edit ${i}`) }))
    expect(counted(answers)).toEqual({ 200: 1, 409: AT_ONCE - 1 })
    const winner = answers.findIndex(({ status }) => status === 200)
    const { body } = await callJson(api(`/shows/${id}`))
    expect(body).toMatchObject({ revision: 2, show: { name: `Edit ${winner}` } })
    expect((await callJson(api(`/shows/${id}/versions`))).body.versions).toHaveLength(2)
  })

  it('makes twenty shows', async () => {
    const answers = await atOnce(20, (i) => callJson(api('/shows'), 'POST', { show: renameShow(show, `Show ${i}`) }))
    expect(counted(answers)).toEqual({ 201: 20 })
    expect(new Set(answers.map(({ body }) => body.id)).size).toBe(20)
  })

  it('keeps one preset of one name', async () => {
    const chain = { format: 'green-room-chain', version: 2, steps: [] }
    const answers = await atOnce(20, () => callJson(api('/presets'), 'POST', { name: 'Evening', chain }))
    expect(counted(answers)).toEqual({ 201: 20 })
    expect((await callJson(api('/presets'))).body.presets.filter((each: { name: string }) => each.name === 'Evening')).toHaveLength(1)
  })

  it('saves edits one after the other while shows are made, restored, deleted and read', async () => {
    const { id } = (await callJson(api('/shows'), 'POST', { show })).body as { id: string }
    const { id: doomed } = (await callJson(api('/shows'), 'POST', { show })).body as { id: string }
    const edits = async () => {
      const statuses: number[] = []
      for (let revision = 1; revision <= 20; revision += 1) {
        statuses.push((await callJson(api(`/shows/${id}`), 'PUT', { baseRevision: revision, show: renameShow(show, `Edit ${revision}`) })).status)
      }
      return statuses
    }
    const picture = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#a87823' } })
      .png()
      .toBuffer()
    const others = atOnce(40, async (i) => {
      if (i % 4 === 3) return fetch(api(`/assets?name=${i}.png`), { method: 'POST', body: Buffer.concat([picture, Buffer.from(`${i}`)]) })
      if (i % 3 === 0) return callJson(api('/shows'), 'POST', { show })
      if (i % 3 === 1) return callJson(api(`/shows/${doomed}`), 'DELETE').then(() => callJson(api(`/shows/${doomed}/undelete`), 'POST'))
      return callJson(api('/shows'))
    })
    const [saved, answers] = await Promise.all([edits(), others])
    expect(saved).toEqual(saved.map(() => 200))
    // A show that is deleted already is not there to be deleted; nothing may fail for any other reason.
    expect(answers.filter(({ status }) => status >= 500)).toEqual([])
  })

  it('is durable on every connection, transactions included', async () => {
    const modeOf = async (transaction?: Parameters<Parameters<typeof server.database.write>[0]>[0]) => {
      const [rows] = await server.database.sequelize.query('PRAGMA synchronous', transaction === undefined ? {} : { transaction })
      return (rows as { synchronous: number }[])[0]!.synchronous
    }
    // 2 is FULL: https://www.sqlite.org/pragma.html#pragma_synchronous
    await server.database.sequelize.query('PRAGMA synchronous')
    expect(await modeOf()).toBe(2)
    expect(await server.database.write((transaction) => modeOf(transaction))).toBe(2)
  })
})
