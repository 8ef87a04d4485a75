import express, { Router } from 'express'
import { z } from 'zod'
import { LIMITS } from '../../core/schema/limits.ts'
import type { Named, NamedStore } from './named-store.ts'

const name = z.string().trim().min(1, 'must not be empty').max(LIMITS.nameLength, `must be at most ${LIMITS.nameLength} characters`)

/** How a kind of named documents is called in requests and answers. */
export interface NamedWords {
  /** Of the list. */
  readonly list: string
  /** Of one document. */
  readonly field: string
  /** The largest request, as Express reads sizes. */
  readonly limit: string
}

/** List, save under a name, delete. */
export function namedRoutes<T>(store: NamedStore<T>, { list, field, limit }: NamedWords): Router {
  const body = z.strictObject({ name, [field]: z.unknown() })
  const told = ({ id, name: own, value }: Named<T>) => ({ id, name: own, [field]: value })
  const router = Router()
  router.get('/', async (_request, response) => {
    const { named, unreadable } = await store.list()
    response.json({ [list]: named.map(told), unreadable })
  })
  router.post('/', express.json({ limit }), async (request, response) => {
    const asked = body.parse(request.body) as { readonly name: string } & Readonly<Record<string, unknown>>
    response.status(201).json(told(await store.save(asked.name, asked[field])))
  })
  router.delete('/:id', async (request, response) => {
    await store.remove(request.params.id)
    response.status(204).end()
  })
  return router
}
