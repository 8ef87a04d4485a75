// Files that nothing names any more: listed, and taken away when the presenter says so.
import { Router, json } from 'express'
import { z } from 'zod'
import type { AssetStore } from './asset-store.ts'

/** What stores texts that name files by their hashes. */
export interface NamesFiles {
  documents(): Promise<readonly string[]>
}

/** A file that was added just now may be meant for a show that is not saved yet. */
const YOUNGEST_MS = 24 * 60 * 60 * 1000

const hash = z.string().regex(/^[0-9a-f]{64}$/, 'must be a SHA-256 in hexadecimal')
const removeBody = z.strictObject({ hashes: z.array(hash).min(1).max(2000) })

/** /api/unused-files: what no show, no version of one and no preset names, and taking some of it away. */
export function unusedFileRoutes(assets: AssetStore, stores: readonly NamesFiles[], now = Date.now): Router {
  const unused = async () => {
    const named = new Set<string>()
    for (const store of stores) for (const text of await store.documents()) for (const [found] of text.matchAll(/[0-9a-f]{64}/g)) named.add(found)
    return assets.unused((one) => named.has(one), new Date(now() - YOUNGEST_MS))
  }
  const router = Router()
  router.use(json())
  router.get('/', async (_request, response) => {
    response.json({ files: await unused() })
  })
  router.post('/remove', async (request, response) => {
    const { hashes } = removeBody.parse(request.body)
    // Looked up again: another tab may use one of them by now.
    const removable = new Set((await unused()).map((asset) => asset.hash))
    const removed = hashes.filter((one) => removable.has(one))
    await assets.remove(removed)
    response.json({ removed })
  })
  return router
}
