import { Router, json } from 'express'
import { z } from 'zod'
import { checkedShow, MOST_SHOW_BYTES } from './check-show.ts'
import type { ShowStore } from './show-store.ts'

/** With what goes round the show, and room for a form that is written wider. */
const BODY_LIMIT = 2 * MOST_SHOW_BYTES
const revision = z.coerce.number().int().min(1)
const token = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/, 'must be 1 to 40 letters, digits, - or _')
/** What an edit is called in the list of steps back. */
const label = z.string().trim().max(160, 'must be at most 160 characters')
/** A tab that was opened before the program was renewed saves as it learnt to. */
const saveBody = z.object({ baseRevision: z.int().min(1), show: z.unknown(), saveId: token.optional(), label: label.optional() })
/** Operations of RFC 6902; of those that it has, `copy` and `test` are not needed. */
const MOST_OPERATIONS = 5000
const pointer = z.string().max(1000, 'must be a JSON Pointer of at most 1000 characters')
const patch = z
  .array(
    z.discriminatedUnion('op', [
      z.strictObject({ op: z.enum(['add', 'replace']), path: pointer, value: z.unknown() }),
      z.strictObject({ op: z.literal('remove'), path: pointer }),
      z.strictObject({ op: z.literal('move'), from: pointer, path: pointer }),
    ]),
  )
  .max(MOST_OPERATIONS, `must hold at most ${MOST_OPERATIONS} operations; save the whole show with PUT`)
const patchBody = z.object({ baseRevision: z.int().min(1), patch, saveId: token.optional(), label: label.optional() })
/** The show may be of an earlier version: it may have waited in a browser for long. */
const createBody = z.object({ show: z.unknown(), id: token.optional() })
const restoreBody = z.object({ revision })

/** /api/shows: list, read, create, save, versions, restore, delete and undelete. */
export function showRoutes(store: ShowStore): Router {
  const router = Router()
  router.use(json({ limit: BODY_LIMIT }))
  router.get('/', async (_request, response) => {
    response.json({ shows: await store.list() })
  })
  router.post('/', async (request, response) => {
    const { show, id } = createBody.parse(request.body)
    response.status(201).json(await store.create(checkedShow(show), id))
  })
  router.get('/deleted', async (_request, response) => {
    response.json({ shows: await store.deleted() })
  })
  router.get('/:id', async (request, response) => {
    response.json(await store.get(request.params.id))
  })
  router.get('/:id/document', async (request, response) => {
    const { name, document } = await store.documentOf(request.params.id)
    response.attachment(`${name.replace(/[^\p{L}\p{N} ._-]/gu, '_')}.json`)
    response.type('json').send(document)
  })
  router.put('/:id', async (request, response) => {
    const { baseRevision, show, saveId, label: edit } = saveBody.parse(request.body)
    const { id, revision: saved, updatedAt } = await store.save(request.params.id, baseRevision, checkedShow(show), saveId, edit)
    response.json({ id, revision: saved, updatedAt })
  })
  router.patch('/:id', async (request, response) => {
    const { baseRevision, patch: edits, saveId, label: edit } = patchBody.parse(request.body)
    const { id, revision: saved, updatedAt } = await store.savePatch(request.params.id, baseRevision, edits, saveId, edit)
    response.json({ id, revision: saved, updatedAt })
  })
  router.get('/:id/versions', async (request, response) => {
    response.json({ versions: await store.versions(request.params.id) })
  })
  router.get('/:id/versions/:revision', async (request, response) => {
    const { revision: wanted } = restoreBody.parse({ revision: request.params.revision })
    response.json({ show: await store.version(request.params.id, wanted) })
  })
  router.post('/:id/restore', async (request, response) => {
    response.json(await store.restore(request.params.id, restoreBody.parse(request.body).revision))
  })
  router.delete('/:id', async (request, response) => {
    await store.delete(request.params.id)
    response.status(204).end()
  })
  router.post('/:id/undelete', async (request, response) => {
    await store.undelete(request.params.id)
    response.status(204).end()
  })
  return router
}
