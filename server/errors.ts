import path from 'node:path'
import type { ErrorRequestHandler } from 'express'
import type { Logger } from 'pino'
import { z } from 'zod'
import { VersionError } from '../core/show/migrate.ts'
import { issueLines } from '../core/show/schema.ts'
import { BoundsError } from '../core/show/stored-bounds.ts'
import { storageFailure } from './db/storage-failure.ts'
import { HttpError } from './http-error.ts'

/** The one error handler: known errors speak, anything else is logged and stays a bare 500. */
export function errorHandler(log: Logger, dataDir: string): ErrorRequestHandler {
  return (error: unknown, _request, response, next) => {
    if (response.headersSent) {
      next(error)
      return
    }
    const known = asHttpError(error, dataDir)
    if (known === null) log.error({ err: error }, 'unexpected failure')
    const { status, code, message, details } = known ?? new HttpError(500, 'internal', 'Something went wrong in the server. Nothing was changed.')
    response.status(status).json({ error: { code, message, details } })
  }
}

function asHttpError(error: unknown, dataDir: string): HttpError | null {
  if (error instanceof HttpError) return error
  if (error instanceof z.ZodError) {
    const details = issueLines(error)
    return new HttpError(
      400,
      'bad-input',
      `The request has ${details.length === 1 ? 'a field' : 'fields'} out of bounds: ${details.slice(0, 3).join('; ')}`,
      details,
    )
  }
  if (error instanceof BoundsError) return new HttpError(400, 'bad-input', `This file is out of bounds: ${error.message}.`, [error.message])
  if (error instanceof VersionError) return new HttpError(400, 'bad-input', `${error.message}.`)
  const stored = storageFailure(error, path.join(dataDir, 'green-room.sqlite'))
  if (stored !== null) return new HttpError(507, 'storage', stored.message)
  const type = (error as { type?: unknown } | null)?.type
  if (type === 'entity.too.large') return new HttpError(413, 'too-large', 'The request is too large for this address.')
  if (type === 'entity.parse.failed') return new HttpError(400, 'bad-json', 'The request body is not valid JSON.')
  return asBadRequest(error)
}

/** What Express and its parsers refuse before any of our code runs: an encoding, a path, a body that ended early. */
function asBadRequest(error: unknown): HttpError | null {
  const { status } = (error ?? {}) as { status?: unknown }
  if (typeof status !== 'number' || status < 400 || status > 499) return null
  if (status === 404) return new HttpError(404, 'not-found', 'There is nothing at this address.')
  return new HttpError(status, 'bad-request', 'This request cannot be read: its address, its headers or its body are not well formed.')
}
