import { Router, raw, type ErrorRequestHandler } from 'express'
import { MOST_BYTES } from '../../core/show/limits.ts'
import { HttpError } from '../http-error.ts'
import type { AssetStore } from './asset-store.ts'
import { isClipFile } from './inspect-clip.ts'

/** /api/assets: upload a picture or a clip as the raw body, read one by its hash. */
export function assetRoutes(store: AssetStore): Router {
  const router = Router()
  router.post('/', raw({ type: () => true, limit: MOST_BYTES.clip }), async (request, response) => {
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
