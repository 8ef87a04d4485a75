import type { ErrorRequestHandler } from 'express'
import type { Logger } from 'pino'
import { z } from 'zod'
import { issueLines } from '../core/show/schema.ts'
import { HttpError } from './http-error.ts'

/** The one error handler: known errors speak, anything else is logged and stays a bare 500. */
export function errorHandler(log: Logger): ErrorRequestHandler {
  return (error: unknown, _request, response, next) => {
    if (response.headersSent) {
      next(error)
      return
    }
    const known = asHttpError(error)
    if (known === null) log.error({ err: error }, 'unexpected failure')
    const { status, code, message, details } = known ?? new HttpError(500, 'internal', 'Something went wrong in the server. Nothing was changed.')
    response.status(status).json({ error: { code, message, details } })
  }
}

function asHttpError(error: unknown): HttpError | null {
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
  const type = (error as { type?: unknown } | null)?.type
  if (type === 'entity.too.large') return new HttpError(413, 'too-large', 'The request is too large for this address.')
  if (type === 'entity.parse.failed') return new HttpError(400, 'bad-json', 'The request body is not valid JSON.')
  return null
}
