import express, { Router } from 'express'
import { z } from 'zod'
import type { PresetStore } from './preset-store.ts'

const body = z.strictObject({
  name: z.string().trim().min(1, 'must not be empty').max(80, 'must be at most 80 characters'),
  chain: z.unknown(),
})

/** /api/presets: list, save under a name, delete. */
export function presetRoutes(store: PresetStore): Router {
  const router = Router()
  router.get('/', async (_request, response) => {
    response.json(await store.list())
  })
  router.post('/', express.json({ limit: '1mb' }), async (request, response) => {
    const { name, chain } = body.parse(request.body)
    response.status(201).json(await store.save(name, chain))
  })
  router.delete('/:id', async (request, response) => {
    await store.remove(request.params.id)
    response.status(204).end()
  })
  return router
}
