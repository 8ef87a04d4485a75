import { Router } from 'express'
import { HttpError } from '../http-error.ts'
import { PACKAGE_LIMITS } from './package-format.ts'
import { tooLarge, type ShowPackages } from './show-packages.ts'

/** /api/packages: a show as one archive, and a new show from one. */
export function packageRoutes(packages: ShowPackages): Router {
  const router = Router()
  router.get('/:id', async (request, response) => {
    const { name, archive } = await packages.write(request.params.id)
    response.attachment(`${name.replace(/[^\p{L}\p{N} ._-]/gu, '_')}.zip`)
    response.type('application/zip')
    // A file that cannot be read on the way ends the download as a failure, not as a shorter archive.
    archive.once('error', (error) => response.destroy(error))
    response.once('close', () => archive.destroy())
    archive.pipe(response)
  })
  router.post('/', async (request, response) => {
    if ((request.headers['content-encoding'] ?? 'identity') !== 'identity') {
      throw new HttpError(415, 'encoded-body', 'The archive came with a content-encoding. Send the bytes of the file as they are.')
    }
    // What says that it is too large is not read at all.
    if (Number(request.headers['content-length']) > PACKAGE_LIMITS.archiveBytes) throw tooLarge()
    try {
      response.status(201).json(await packages.read(request))
    } catch (error) {
      if (!request.readableAborted) throw error
      throw new HttpError(400, 'upload-cut-off', 'The archive did not arrive whole. Send it again.')
    }
  })
  return router
}
