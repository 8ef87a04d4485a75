import { readFileSync } from 'node:fs'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { renameShow } from '../../core/show/edits.ts'
import { testShow } from '../../tests/support/shows.ts'
import { callJson, startTestServer, type TestServer } from '../../tests/support/test-server.ts'

const show = testShow()
let server: TestServer
let shows: string
beforeAll(async () => {
  server = await startTestServer()
  shows = `${server.studioUrl}/api/shows`
})
afterAll(() => server.close())

async function create(): Promise<string> {
  const { status, body } = await callJson(shows, 'POST', { show })
  expect(status).toBe(201)
  return body.id as string
}

describe('/api/shows', () => {
  it('keeps what is saved, under a revision that grows by one', async () => {
    const id = await create()
    const saved = await callJson(`${shows}/${id}`, 'PUT', { baseRevision: 1, show: renameShow(show, 'Second') })
    expect(saved.body).toMatchObject({ id, revision: 2 })
    expect((await callJson(`${shows}/${id}`)).body).toMatchObject({ revision: 2, show: { name: 'Second' } })
    expect((await callJson(shows)).body.shows.find((each: { id: string }) => each.id === id)).toMatchObject({ name: 'Second', sceneCount: 4 })
  })

  it('refuses to save over what another tab saved, and changes nothing', async () => {
    const id = await create()
    await callJson(`${shows}/${id}`, 'PUT', { baseRevision: 1, show: renameShow(show, 'Theirs') })
    const mine = await callJson(`${shows}/${id}`, 'PUT', { baseRevision: 1, show: renameShow(show, 'Mine') })
    expect(mine.status).toBe(409)
    expect(mine.body.error).toMatchObject({ code: 'stale' })
    expect((await callJson(`${shows}/${id}`)).body.show.name).toBe('Theirs')
  })

  it('stores a save that is sent twice, because its answer was lost, once; another on the same revision is refused', async () => {
    const id = await create()
    const save = { baseRevision: 1, show: renameShow(show, 'Sent twice'), saveId: '0d3c0a5e-5f0b-4d5b-9d0e-6b1f4a4c7d11' }
    for (let i = 0; i < 2; i += 1) {
      const answer = await callJson(`${shows}/${id}`, 'PUT', save)
      expect(answer.status).toBe(200)
      expect(answer.body).toMatchObject({ id, revision: 2 })
    }
    expect((await callJson(`${shows}/${id}/versions`)).body.versions).toHaveLength(2)
    const other = { ...save, saveId: 'a6a1c8de-4f3e-4f0f-8f55-0e2f9a3b7c22' }
    expect((await callJson(`${shows}/${id}`, 'PUT', other)).status).toBe(409)
  })

  it('takes a save of a tab that was opened before the program was renewed; one from the future it refuses', async () => {
    const id = await create()
    const old: unknown = JSON.parse(readFileSync(new URL('../../tests/fixtures/show-v4.json', import.meta.url), 'utf8'))
    expect((await callJson(`${shows}/${id}`, 'PUT', { baseRevision: 1, show: old })).status).toBe(200)
    expect((await callJson(`${shows}/${id}`)).body).toMatchObject({ revision: 2, show: { version: 10, presenter: { name: '' } } })
    const newer = await callJson(`${shows}/${id}`, 'PUT', { baseRevision: 2, show: { ...show, version: 99 } })
    expect(newer.status).toBe(400)
    expect(JSON.stringify(newer.body)).toContain('version')
  })

  it('keeps the versions of the last minutes, each with what was changed, and can go back to any of them', async () => {
    const id = await create()
    for (let revision = 1; revision <= 55; revision += 1) {
      await callJson(`${shows}/${id}`, 'PUT', { baseRevision: revision, show: renameShow(show, `Name ${revision + 1}`), label: `Rename to ${revision + 1}` })
    }
    const { versions } = (await callJson(`${shows}/${id}/versions`)).body
    expect(versions).toHaveLength(56)
    expect(versions[0]).toMatchObject({ revision: 56, label: 'Rename to 56' })
    expect(versions.at(-1)).toMatchObject({ revision: 1, label: null })
    expect((await callJson(`${shows}/${id}/versions/2`)).body.show.name).toBe('Name 2')
    expect((await callJson(`${shows}/${id}/versions/99`)).body.error.code).toBe('version-not-found')
    expect((await callJson(`${shows}/${id}/versions/first`)).status).toBe(400)
    const restored = await callJson(`${shows}/${id}/restore`, 'POST', { revision: 2 })
    expect(restored.body).toMatchObject({ revision: 57, show: { name: 'Name 2' } })
    const gone = await callJson(`${shows}/${id}/restore`, 'POST', { revision: 99 })
    expect(gone.status).toBe(404)
    expect(gone.body.error.message).toContain('Every version of the last ten minutes is kept')
    // A day later, as the database has it: one of that hour is left, beside the newest.
    await server.database.sequelize.query('UPDATE show_versions SET savedAt = ? WHERE showId = ?', { replacements: ['2026-01-05 10:20:00.000 +00:00', id] })
    await callJson(`${shows}/${id}`, 'PUT', { baseRevision: 57, show: renameShow(show, 'Much later') })
    expect((await callJson(`${shows}/${id}/versions`)).body.versions.map((each: { revision: number }) => each.revision)).toEqual([58])
  })

  it('lists what was deleted for thirty days, from where it can be brought back, and then it is gone', async () => {
    const [id, old] = [await create(), await create()]
    for (const each of [id, old]) await callJson(`${shows}/${each}`, 'DELETE')
    const listed = (await callJson(`${shows}/deleted`)).body.shows as { id: string; deletedAt: string; keptUntil: string }[]
    const entry = listed.find((each) => each.id === id)!
    expect(new Date(entry.keptUntil).getTime() - new Date(entry.deletedAt).getTime()).toBe(30 * 86_400_000)
    const longAgo = new Date(Date.now() - 31 * 86_400_000)
    await server.database.sequelize.query('UPDATE shows SET deletedAt = ? WHERE id = ?', { replacements: [longAgo, old] })
    expect((await callJson(`${shows}/deleted`)).body.shows.map((each: { id: string }) => each.id)).not.toContain(old)
    expect((await callJson(`${shows}/${old}/undelete`, 'POST')).status).toBe(404)
    expect((await callJson(`${shows}/${id}/undelete`, 'POST')).status).toBe(204)
    expect((await callJson(`${shows}/deleted`)).body.shows.map((each: { id: string }) => each.id)).not.toContain(id)
  })

  it('deletes, and brings back', async () => {
    const id = await create()
    expect((await callJson(`${shows}/${id}`, 'DELETE')).status).toBe(204)
    expect((await callJson(`${shows}/${id}`)).status).toBe(404)
    expect((await callJson(`${shows}/${id}/undelete`, 'POST')).status).toBe(204)
    expect((await callJson(`${shows}/${id}`)).body).toMatchObject({ id, show: { name: show.name } })
  })

  it('names field, rule and value of a number out of range, and saves nothing', async () => {
    const id = await create()
    const bad = structuredClone(show) as unknown as { canvas: { widthPx: number } }
    bad.canvas.widthPx = 100_000
    const { status, body } = await callJson(`${shows}/${id}`, 'PUT', { baseRevision: 1, show: bad })
    expect(status).toBe(400)
    expect(body.error.message).toContain('show.canvas.widthPx: must be a number between 160 and 3840, got 100000')
    expect((await callJson(`${shows}/${id}`)).body.revision).toBe(1)
  })

  it('says that an unknown show is unknown', async () => {
    const { status, body } = await callJson(`${shows}/no-such-show`)
    expect(status).toBe(404)
    expect(body.error).toMatchObject({ code: 'show-not-found', message: expect.stringContaining('"no-such-show"') })
  })

  it.each([
    ['not JSON', '{"show":', 400, 'bad-json'],
    ['nine megabytes', JSON.stringify({ show: 'x'.repeat(9_000_000) }), 413, 'too-large'],
  ])('refuses a body that is %s', async (_name, body, status, code) => {
    const response = await fetch(shows, { method: 'POST', headers: { 'content-type': 'application/json' }, body })
    expect(response.status).toBe(status)
    expect(((await response.json()) as { error: { code: string } }).error.code).toBe(code)
  })
})

describe('a stored show that cannot be read', () => {
  const breakShow = (id: string, document: string) =>
    server.database.sequelize.query('UPDATE shows SET document = ? WHERE id = ?', { replacements: [document, id] })

  it.each([
    ['cut off', (text: string) => text.slice(0, 200)],
    ['a step that is null', (text: string) => text.replace(/"treatment":\[/, '"treatment":[null,')],
    ['of a version from the future', (text: string) => text.replace(/"version":\d+/, '"version":99')],
  ])('%s: is listed with the reason beside the others, exported as it is, restored and deleted', async (_what, harm) => {
    const [id, other] = [await create(), await create()]
    await callJson(`${shows}/${id}`, 'PUT', { baseRevision: 1, show: renameShow(show, 'Second state') })
    const broken = harm(JSON.stringify(show))
    await breakShow(id, broken)
    const listed = (await callJson(shows)).body.shows as { id: string; unreadable: string | null; sceneCount: number }[]
    expect(listed.find((each) => each.id === other)).toMatchObject({ unreadable: null, sceneCount: show.scenes.length })
    expect(listed.find((each) => each.id === id)?.unreadable).toEqual(expect.stringMatching(/\w{4}/))
    const opened = await callJson(`${shows}/${id}`)
    expect(opened.status).toBe(422)
    expect(opened.body.error).toMatchObject({ code: 'show-unreadable', message: expect.stringContaining('export and delete') })
    const exported = await fetch(`${shows}/${id}/document`)
    expect(exported.headers.get('content-disposition')).toContain('attachment')
    expect(await exported.text()).toBe(broken)
    expect((await callJson(`${shows}/${id}/restore`, 'POST', { revision: 1 })).body).toMatchObject({ show: { name: show.name } })
    await breakShow(id, broken)
    expect((await callJson(`${shows}/${id}`, 'DELETE')).status).toBe(204)
    expect((await callJson(`${shows}/${id}/undelete`, 'POST')).status).toBe(204)
  })

  it('keeps an unreadable version from hiding the others', async () => {
    const id = await create()
    await callJson(`${shows}/${id}`, 'PUT', { baseRevision: 1, show: renameShow(show, 'Second state') })
    await server.database.sequelize.query('UPDATE show_versions SET document = ? WHERE showId = ? AND revision = 1', { replacements: ['{', id] })
    const { versions } = (await callJson(`${shows}/${id}/versions`)).body as { versions: unknown[] }
    expect(versions).toMatchObject([
      { revision: 2, isReadable: true },
      { revision: 1, isReadable: false },
    ])
    expect((await callJson(`${shows}/${id}/restore`, 'POST', { revision: 1 })).status).toBe(422)
  })
})
