import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { callJson, startTestServer, type TestServer } from '../../tests/support/test-server.ts'

describe('/api/sites', () => {
  let server: TestServer
  let url: string
  beforeAll(async () => {
    server = await startTestServer()
    url = `${server.studioUrl}/api/sites`
  })
  afterAll(() => server.close())

  const decided = async () => (await callJson(url)).body.map(({ origin, decision }: { origin: string; decision: string }) => [origin, decision])

  it('keeps one decision a site, changes it, and takes it back', async () => {
    expect(await decided()).toEqual([])
    await callJson(url, 'PUT', { origin: 'https://meet.example.org', decision: 'always' })
    await callJson(url, 'PUT', { origin: 'http://localhost:8080', decision: 'never' })
    await callJson(url, 'PUT', { origin: 'https://meet.example.org', decision: 'never' })
    expect(await decided()).toEqual([
      ['http://localhost:8080', 'never'],
      ['https://meet.example.org', 'never'],
    ])
    await callJson(url, 'DELETE', { origin: 'https://meet.example.org' })
    expect(await decided()).toEqual([['http://localhost:8080', 'never']])
  })

  it('keeps one row for fifty decisions at once', async () => {
    const answers = await Promise.all(Array.from({ length: 50 }, () => callJson(url, 'PUT', { origin: 'https://busy.example.org', decision: 'always' })))
    expect(answers.map(({ status }) => status)).toEqual(Array(50).fill(200))
    expect((await decided()).filter(([origin]: [string]) => origin === 'https://busy.example.org')).toHaveLength(1)
  })

  it.each([['https://meet.example.org/room'], ['meet.example.org'], ['null'], ['javascript:alert(1)'], ['https://meet.example.org:443'], ['']])(
    'refuses %s, which is no origin, and says how one looks',
    async (origin) => {
      const { status, body } = await callJson(url, 'PUT', { origin, decision: 'always' })
      expect(status).toBe(400)
      expect(body.error.message).toContain('must be the origin of a web page')
    },
  )

  it('answers no page of another origin', async () => {
    const { status } = await callJson(url, 'PUT', { origin: 'https://evil.example.org', decision: 'always' }, { origin: 'https://evil.example.org' })
    expect(status).toBe(403)
  })
})
