import express, { Router } from 'express'
import { z } from 'zod'
import type { SiteStore } from './site-store.ts'

const origin = z.string().max(300).refine(isOrigin, 'must be the origin of a web page, as "https://meet.example.org"')
const decision = z.strictObject({ origin, decision: z.enum(['always', 'never']) })
const forgotten = z.strictObject({ origin: z.string().max(300) })

/** /api/sites: which sites may always, or never, have the feed. */
export function siteRoutes(store: SiteStore): Router {
  const router = Router()
  router.use(express.json({ limit: '4kb' }))
  router.get('/', async (_request, response) => {
    response.json(await store.list())
  })
  router.put('/', async (request, response) => {
    const body = decision.parse(request.body)
    await store.decide(body.origin, body.decision)
    response.json(await store.list())
  })
  router.delete('/', async (request, response) => {
    await store.forget(forgotten.parse(request.body).origin)
    response.json(await store.list())
  })
  return router
}

function isOrigin(text: string): boolean {
  return URL.canParse(text) && /^https?:$/.test(new URL(text).protocol) && new URL(text).origin === text
}
