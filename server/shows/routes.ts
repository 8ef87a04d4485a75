import { Router, json } from 'express'
import { z } from 'zod'
import { liftShow } from '../../core/show/lift.ts'
import { readShow } from '../../core/show/migrate.ts'
import { showSchema } from '../../core/show/schema.ts'
import type { ShowStore } from './show-store.ts'

const BODY_LIMIT = '2mb'
const revision = z.coerce.number().int().min(1)
const token = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/, 'must be 1 to 40 letters, digits, - or _')
/** A tab that was opened before the program was renewed saves as it learnt to. */
const saveBody = z.object({ baseRevision: z.int().min(1), show: z.preprocess(liftShow, showSchema), saveId: token.optional() })
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
    response.status(201).json(await store.create(readShow(show), id))
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
    const { baseRevision, show, saveId } = saveBody.parse(request.body)
    const { id, revision: saved, updatedAt } = await store.save(request.params.id, baseRevision, show, saveId)
    response.json({ id, revision: saved, updatedAt })
  })
  router.get('/:id/versions', async (request, response) => {
    response.json({ versions: await store.versions(request.params.id) })
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
