import { Router, type RequestHandler } from 'express'
import pLimit from 'p-limit'
import { MOST_BYTES } from '../../core/schema/limits.ts'
import { HttpError } from '../http-error.ts'
import { clipTooLarge, type AssetStore } from './asset-store.ts'

/** Uploads that are read at once; the others wait unread, so that many large files neither fill the memory nor hold everything else up. */
export const UPLOADS_AT_ONCE = 3

/** Lets a request in when there is room, and holds its place until it is answered or given up. */
function inTurn(): RequestHandler {
  const limit = pLimit(UPLOADS_AT_ONCE)
  return (_request, response, next) => {
    void limit(
      () =>
        new Promise<void>((resolve) => {
          if (response.closed) return resolve()
          response.once('close', resolve)
          next()
        }),
    )
  }
}

/** /api/assets: upload a picture or a clip as the raw body, read one by its hash. */
export function assetRoutes(store: AssetStore): Router {
  const router = Router()
  router.post('/', inTurn(), async (request, response) => {
    const fileName = fileNameOf(request.query['name'])
    if ((request.headers['content-encoding'] ?? 'identity') !== 'identity') {
      throw new HttpError(415, 'encoded-body', `"${fileName}" came with a content-encoding. Send the bytes of the file as they are.`)
    }
    // What says that it is too large is not read at all.
    if (Number(request.headers['content-length']) > MOST_BYTES.clip) throw clipTooLarge(fileName)
    // Left open when reading ends early, so that whoever sends hears why.
    const body = request.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>
    try {
      response.status(201).json(await store.receive(body, fileName))
    } catch (error) {
      if (!request.readableAborted) throw error
      throw new HttpError(400, 'upload-cut-off', `"${fileName}" did not arrive whole. Send it again.`)
    }
  })
  router.get('/:hash', async (request, response) => {
    const { asset, file } = await store.get(request.params.hash)
    response.type(asset.mimeType)
    response.setHeader('Cache-Control', 'private, max-age=31536000, immutable')
    response.sendFile(file)
  })
  return router
}

function fileNameOf(name: unknown): string {
  if (name === undefined) return 'picture'
  if (typeof name !== 'string' || name.length === 0 || name.length > 200) {
    throw new HttpError(400, 'bad-name', 'name must be 1 to 200 characters: the name of the file.')
  }
  return name
}
