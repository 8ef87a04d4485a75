import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { callJson, startTestServer, type TestServer } from '../../tests/support/test-server.ts'
import { restartTestServer } from '../../tests/support/test-server.ts'

let server: TestServer
let presets: string
beforeAll(async () => {
  server = await startTestServer()
  presets = `${server.studioUrl}/api/presets`
})
afterAll(() => server.close())

const chain = {
  format: 'green-room-chain',
  version: 2,
  name: 'anything',
  steps: [
    { id: 'a', kind: 'crop', on: true, params: { left: 13, top: 0, right: 10, bottom: 0, feather: 0 } },
    { id: 'b', kind: 'look', on: false, params: { look: 'beeswax', amount: 0.5 } },
  ],
}

describe('/api/presets', () => {
  it('keeps a chain under a name and lists by name', async () => {
    expect((await callJson(presets)).body).toEqual({ presets: [], unreadable: [] })
    const saved = await callJson(presets, 'POST', { name: '  Evening class ', chain })
    expect(saved.status).toBe(201)
    expect(saved.body).toMatchObject({ name: 'Evening class', chain: { name: 'Evening class', steps: chain.steps } })
    await callJson(presets, 'POST', { name: 'Attic', chain })
    expect((await callJson(presets)).body.presets.map((each: { name: string }) => each.name)).toEqual(['Attic', 'Evening class'])
  })

  it('replaces a preset of the same name', async () => {
    const first = await callJson(presets, 'POST', { name: 'Twice', chain })
    const second = await callJson(presets, 'POST', { name: 'Twice', chain: { ...chain, steps: [] } })
    expect(second.body.id).toBe(first.body.id)
    const listed = (await callJson(presets)).body.presets.filter((each: { name: string }) => each.name === 'Twice')
    expect(listed).toHaveLength(1)
    expect(listed[0].chain.steps).toEqual([])
  })

  it('brings a chain of the first version up to date', async () => {
    const old = {
      format: 'green-room-chain',
      version: 1,
      name: 'old',
      steps: [{ id: 'a', kind: 'tone', on: true, params: { exposure: 0.5, contrast: 1, gamma: 1, saturation: 1.2 } }],
    }
    const { status, body } = await callJson(presets, 'POST', { name: 'Old', chain: old })
    expect(status).toBe(201)
    expect(body.chain.version).toBe(2)
    expect(body.chain.steps.map((step: { kind: string }) => step.kind)).toEqual(['tone', 'colour'])
    expect(body.chain.steps[1].params.saturation).toBe(1.2)
  })

  it.each([
    ['a name of nothing but spaces', { name: '  ', chain }, 'name'],
    ['a name that is too long', { name: 'x'.repeat(81), chain }, 'at most 80'],
    ['something that is no chain', { name: 'Bad', chain: { hello: 1 } }, 'format'],
    ['a value out of bounds', { name: 'Bad', chain: { ...chain, steps: [{ ...chain.steps[1], params: { look: 'beeswax', amount: 3 } }] } }, 'between 0 and 1'],
    ['a step that is nothing, of either version', { name: 'Bad', chain: { ...chain, version: 1, steps: [null] } }, 'steps.0'],
    ['a list of steps that is none', { name: 'Bad', chain: { ...chain, version: 1, steps: { 0: 1 } } }, 'steps'],
    ['a chain from the future', { name: 'Bad', chain: { ...chain, version: 99 } }, 'saved by a newer Green Room'],
    ['an unknown step', { name: 'Bad', chain: { ...chain, steps: [{ id: 'a', kind: 'sparkle', on: true, params: {} }] } }, 'kind'],
    ['a field that is not known', { name: 'Bad', chain, colour: 'red' }, 'colour'],
  ])('refuses %s and says what is wrong', async (_what, body, part) => {
    const before = (await callJson(presets)).body
    const answer = await callJson(presets, 'POST', body)
    expect(answer.status).toBe(400)
    expect(answer.body.error.message).toContain(part)
    expect((await callJson(presets)).body).toEqual(before)
  })

  it('deletes once', async () => {
    const { body } = await callJson(presets, 'POST', { name: 'Gone', chain })
    expect((await callJson(`${presets}/${body.id}`, 'DELETE')).status).toBe(204)
    const again = await callJson(`${presets}/${body.id}`, 'DELETE')
    expect(again.status).toBe(404)
    expect(again.body.error).toMatchObject({ code: 'preset-not-found' })
  })

  it('lists one that cannot be read apart from the others, and deletes it', async () => {
    const { body } = await callJson(presets, 'POST', { name: 'Broken later', chain })
    await server.database.sequelize.query(`UPDATE presets SET document = '{"format":"green-room-chain","version":1,"steps":[null]}' WHERE id = ?`, {
      replacements: [body.id],
    })
    const listed = (await callJson(presets)).body
    expect(listed.unreadable).toEqual([{ id: body.id, name: 'Broken later', reason: expect.stringContaining('steps.0') }])
    expect(listed.presets.length).toBeGreaterThan(0)
    expect((await callJson(`${presets}/${body.id}`, 'DELETE')).status).toBe(204)
  })

  it('still has them after a restart', async () => {
    await callJson(presets, 'POST', { name: 'Kept', chain })
    await restartTestServer(server, async () => undefined)
    const { body } = await callJson(`${server.studioUrl}/api/presets`)
    expect(body.presets.map((each: { name: string }) => each.name)).toContain('Kept')
  })
})

describe('looks as assets', () => {
  const upload = async (text: string, name: string) => {
    const response = await fetch(`${server.studioUrl}/api/assets?name=${name}`, {
      method: 'POST',
      body: text,
      headers: { 'content-type': 'application/octet-stream' },
    })
    return {
      status: response.status,
      body: (await response.json()) as { hash: string; mimeType: string; widthPx: number; error: { code: string; message: string } },
    }
  }
  const cube = `LUT_1D_SIZE 2\n0 0 0\n1 1 1\n`

  it('keeps a .cube and gives it back as text', async () => {
    const { status, body } = await upload(cube, 'plain.cube')
    expect(status).toBe(201)
    expect(body).toMatchObject({ mimeType: 'application/x-cube', widthPx: 2 })
    const read = await fetch(`${server.studioUrl}/api/assets/${body.hash}`)
    expect(read.headers.get('content-type')).toMatch(/^application\/x-cube/)
    expect(await read.text()).toBe(cube)
  })

  it('goes by content when the name says nothing', async () => {
    expect((await upload(`# made by hand\n${cube}`, 'notes.txt')).body.mimeType).toBe('application/x-cube')
  })

  it.each([
    ['a row too few', 'LUT_1D_SIZE 3\n0 0 0\n1 1 1\n', /rows/],
    ['a number that is none', 'LUT_1D_SIZE 2\n0 0 zero\n1 1 1\n', /line 2/],
    ['no size', 'TITLE "x"\n0 0 0\n', /SIZE/],
  ])('refuses %s with the reason', async (_what, text, reason) => {
    const { status, body } = await upload(text, 'bad.cube')
    expect(status).toBe(400)
    expect(body.error.code).toBe('look-malformed')
    expect(body.error.message).toContain('"bad.cube" is no look that can be used')
    expect(body.error.message).toMatch(reason)
  })
})
