import { Router, raw, type ErrorRequestHandler, type RequestHandler } from 'express'
import pLimit from 'p-limit'
import { MOST_BYTES } from '../../core/show/limits.ts'
import { HttpError } from '../http-error.ts'
import type { AssetStore } from './asset-store.ts'
import { isClipFile } from './inspect-clip.ts'

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
  router.post('/', inTurn(), raw({ type: () => true, limit: MOST_BYTES.clip }), async (request, response) => {
    const bytes: unknown = request.body
    const fileName = fileNameOf(request.query['name'])
    if (Buffer.isBuffer(bytes) && bytes.length > MOST_BYTES.picture && !isClipFile(bytes)) {
      throw new HttpError(413, 'picture-bytes', `"${fileName}" is larger than ${inMib(MOST_BYTES.picture)}. Make it smaller and try again.`)
    }
    // An empty body never reaches the parser, so it arrives as something else.
    response.status(201).json(await store.add(Buffer.isBuffer(bytes) ? bytes : Buffer.alloc(0), fileName))
  })
  router.get('/:hash', async (request, response) => {
    const { asset, file } = await store.get(request.params.hash)
    response.type(asset.mimeType)
    response.setHeader('Cache-Control', 'private, max-age=31536000, immutable')
    response.sendFile(file)
  })
  const tooLarge: ErrorRequestHandler = (error: { type?: unknown }, request, _response, next) => {
    if (error.type !== 'entity.too.large') return next(error)
    const fileName = fileNameOf(request.query['name'])
    next(new HttpError(413, 'clip-bytes', `"${fileName}" is larger than ${inMib(MOST_BYTES.clip)}. Cut it shorter, or export it smaller.`))
  }
  router.use(tooLarge)
  return router
}

function inMib(bytes: number): string {
  return `${bytes / 1024 / 1024} MB`
}

function fileNameOf(name: unknown): string {
  if (name === undefined) return 'picture'
  if (typeof name !== 'string' || name.length === 0 || name.length > 200) {
    throw new HttpError(400, 'bad-name', 'name must be 1 to 200 characters: the name of the file.')
  }
  return name
}
