import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { patchOf } from '../../core/patch/patch.ts'
import { renameShow, updateScene } from '../../core/show/edits.ts'
import type { Show } from '../../core/show/show.ts'
import { testShow } from '../../tests/support/shows.ts'
import { callJson, startTestServer, type TestServer } from '../../tests/support/test-server.ts'

let server: TestServer
let shows: string
beforeAll(async () => {
  server = await startTestServer()
  shows = `${server.studioUrl}/api/shows`
})
afterAll(() => server.close())

/** A new show as the server gives it: its address, and its newest state. */
async function create() {
  const { body } = await callJson(shows, 'POST', { show: testShow() })
  return { url: `${shows}/${body.id as string}`, show: body.show as Show }
}

describe('PATCH /api/shows/:id', () => {
  it('saves what was changed, one revision after the other', async () => {
    const { url, show } = await create()
    const named = renameShow(show, 'Renamed')
    const noted = updateScene(named, named.scenes[1]!.id, (scene) => ({ ...scene, notes: 'Breathe.' }))
    const first = await callJson(url, 'PATCH', { baseRevision: 1, patch: patchOf(show, named), label: 'Rename' })
    expect(first.body).toMatchObject({ revision: 2 })
    expect((await callJson(url, 'PATCH', { baseRevision: 2, patch: patchOf(named, noted) })).body).toMatchObject({ revision: 3 })
    expect((await callJson(url)).body.show).toEqual(noted)
    expect((await callJson(`${url}/versions/2`)).body.show).toEqual(named)
    expect((await callJson(`${url}/versions`)).body.versions[1]).toMatchObject({ revision: 2, label: 'Rename' })
  })

  it('goes on top of what a whole save, or a restore, put there in between', async () => {
    const { url, show } = await create()
    const whole = renameShow(show, 'Whole')
    await callJson(url, 'PATCH', { baseRevision: 1, patch: patchOf(show, renameShow(show, 'Patched')) })
    await callJson(url, 'PUT', { baseRevision: 2, show: whole })
    const noted = updateScene(whole, whole.scenes[0]!.id, (scene) => ({ ...scene, notes: 'One' }))
    await callJson(url, 'PATCH', { baseRevision: 3, patch: patchOf(whole, noted) })
    expect((await callJson(url)).body.show).toEqual(noted)
    await callJson(`${url}/restore`, 'POST', { revision: 2 })
    await callJson(url, 'PATCH', { baseRevision: 5, patch: [{ op: 'replace', path: '/scenes/0/notes', value: 'Two' }] })
    expect((await callJson(url)).body.show).toMatchObject({ name: 'Patched', scenes: [{ notes: 'Two' }, {}, {}, {}] })
  })

  it('is stored once when its answer was lost, and refused where another tab saved', async () => {
    const { url, show } = await create()
    const patch = patchOf(show, renameShow(show, 'Once'))
    for (let i = 0; i < 2; i += 1) expect((await callJson(url, 'PATCH', { baseRevision: 1, patch, saveId: 'once' })).body).toMatchObject({ revision: 2 })
    const late = await callJson(url, 'PATCH', { baseRevision: 1, patch, saveId: 'other' })
    expect(late.status).toBe(409)
    expect(late.body.error.code).toBe('stale')
  })

  it('answers what does not fit, or breaks a rule of shows, by name, and changes nothing; the next one goes on top of the good state', async () => {
    const { url, show } = await create()
    const send = (patch: unknown) => callJson(url, 'PATCH', { baseRevision: 1, patch })
    const missing = await send([{ op: 'replace', path: '/scenes/99/name', value: 'x' }])
    expect(missing.status).toBe(409)
    expect(missing.body.error).toMatchObject({ code: 'patch-does-not-fit' })
    expect(missing.body.error.message).toContain('/scenes/99/name')
    for (const [patch, said] of [
      [[{ op: 'replace', path: '/canvas/widthPx', value: 0 }], 'show.canvas.widthPx'],
      [[{ op: 'add', path: '/extra', value: 1 }], 'extra'],
      [[{ op: 'remove', path: '/scenes' }], 'show.scenes'],
      [[{ op: 'replace', path: '', value: null }], 'show'],
      [[{ op: 'copy', from: '/scenes', path: '/contents' }], 'patch.0.op'],
      [[{ op: 'test', path: '/name', value: 'x' }], 'patch.0.op'],
      [Array.from({ length: 5001 }, () => ({ op: 'replace', path: '/name', value: 'x' })), 'at most 5000 operations'],
      [[{ op: 'add', path: `/${'x'.repeat(2000)}`, value: 1 }], 'JSON Pointer'],
    ] as const) {
      const answer = await send(patch)
      expect(answer.status, said).toBe(400)
      expect(JSON.stringify(answer.body)).toContain(said)
    }
    expect((await callJson(url)).body).toMatchObject({ revision: 1, show })
    expect((await send(patchOf(show, renameShow(show, 'Good')))).body).toMatchObject({ revision: 2 })
  })

  it.each(['/__proto__/polluted', '/scenes/0/__proto__/polluted', '/constructor/prototype/polluted'])('leaves the server as it was: %s', async (path) => {
    const { url, show } = await create()
    const answer = await callJson(url, 'PATCH', { baseRevision: 1, patch: [{ op: 'add', path, value: true }] })
    expect(answer.status).toBeGreaterThanOrEqual(200)
    expect(({} as Record<string, unknown>)['polluted']).toBeUndefined()
    expect((await callJson(url)).body.show).toEqual(show)
  })
})
