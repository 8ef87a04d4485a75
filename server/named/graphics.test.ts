import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { graphicWordsForTests } from '../../tests/support/graphic-words.ts'
import { callJson, startTestServer, type TestServer } from '../../tests/support/test-server.ts'
import { testShow } from '../../tests/support/shows.ts'
import { makeGraphic } from '../../core/graphics/make-graphic.ts'
import { addContents } from '../../core/show/contents.ts'
import { addScene } from '../../core/show/edits.ts'
import { keepGraphic } from '../../core/show/kept-graphic.ts'

let server: TestServer
let graphics: string
beforeAll(async () => {
  server = await startTestServer()
  graphics = `${server.studioUrl}/api/graphics`
})
afterAll(() => server.close())

let count = 0
const base = testShow()
const made = makeGraphic({ kind: 'nameStrip', family: 'ruled' }, graphicWordsForTests, base.canvas, () => `g${(count += 1)}`)
const graphic = keepGraphic(addContents(addScene(base, made.graphic), made.contents), made.graphic.id, 'anything')

describe('/api/graphics', () => {
  it('keeps a graphic under a name, in place of one that had it, and deletes it once', async () => {
    expect((await callJson(graphics)).body).toEqual({ graphics: [], unreadable: [] })
    const saved = await callJson(graphics, 'POST', { name: ' Strip ', graphic })
    expect(saved.status).toBe(201)
    expect(saved.body).toMatchObject({ name: 'Strip', graphic: { name: 'Strip' } })
    const again = await callJson(graphics, 'POST', { name: 'Strip', graphic: { ...graphic, canvas: { widthPx: 640, heightPx: 360, frameRate: 30 } } })
    expect(again.body.id).toBe(saved.body.id)
    const listed = (await callJson(graphics)).body.graphics
    expect(listed).toHaveLength(1)
    expect(listed[0].graphic.canvas.widthPx).toBe(640)
    expect((await callJson(`${graphics}/${saved.body.id}`, 'DELETE')).status).toBe(204)
    const gone = await callJson(`${graphics}/${saved.body.id}`, 'DELETE')
    expect([gone.status, gone.body.error.code]).toEqual([404, 'graphic-not-found'])
  })

  it.each([
    ['no name', { name: ' ', graphic }, 'name'],
    ['a whole show', { name: 'Bad', graphic: base }, 'one graphic'],
    ['a graphic from the future', { name: 'Bad', graphic: { ...graphic, version: 99 } }, 'newer Green Room'],
    ['something that is no show', { name: 'Bad', graphic: [1] }, 'expected'],
    ['a chain', { name: 'Bad', chain: {} }, 'chain'],
  ])('refuses %s and says what is wrong', async (_what, body, part) => {
    const answer = await callJson(graphics, 'POST', body)
    expect(answer.status).toBe(400)
    expect(answer.body.error.message.toLowerCase()).toContain(part.toLowerCase())
    expect((await callJson(graphics)).body.graphics).toEqual([])
  })

  it('keeps 200 and no more, and says what to do then', async () => {
    const insert = `INSERT INTO graphics (id, name, document, createdAt) VALUES ${Array.from({ length: 200 }, (_, i) => `('f${i}', 'Full ${i}', '{}', '2026-01-01')`).join()}`
    await server.database.sequelize.query(insert)
    const answer = await callJson(graphics, 'POST', { name: 'One more', graphic })
    expect([answer.status, answer.body.error.code]).toEqual([409, 'graphics-full'])
    expect(answer.body.error.message).toContain('Delete one')
    // Those that cannot be read are told apart.
    expect((await callJson(graphics)).body.unreadable).toHaveLength(200)
    await server.database.sequelize.query('DELETE FROM graphics')
  })

  it('counts the files of saved graphics as used', async () => {
    const picture = base.inputs.find(({ kind }) => kind === 'picture')!
    const strip = makeGraphic({ kind: 'portrait', family: 'ruled' }, graphicWordsForTests, base.canvas, () => `g${(count += 1)}`, picture)
    const withPhoto = keepGraphic(addContents(addScene(base, strip.graphic), strip.contents), strip.graphic.id, 'x')
    await callJson(graphics, 'POST', { name: 'With photo', graphic: withPhoto })
    const { asset } = picture as { asset: string }
    await server.database.sequelize.query(
      `INSERT INTO assets (hash, mimeType, byteLength, widthPx, heightPx, fileName, createdAt, isMoving) VALUES ('${asset}', 'image/png', 1, 1, 1, 'a.png', '2020-01-01', 0)`,
    )
    const unused = async () => ((await callJson(`${server.studioUrl}/api/unused-files`)).body.files as { hash: string }[]).map(({ hash }) => hash)
    expect(await unused()).not.toContain(asset)
    const { body } = await callJson(graphics)
    await callJson(`${graphics}/${body.graphics[0].id}`, 'DELETE')
    expect(await unused()).toContain(asset)
  })
})
