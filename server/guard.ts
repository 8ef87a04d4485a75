// Only pages of our own may talk to the server: a stranger's page in the same browser must not.
import type { IncomingMessage } from 'node:http'
import type { RequestHandler } from 'express'
import { HttpError } from './http-error.ts'

/** Names under which this machine may be addressed. */
const LOCAL_NAMES = new Set(['localhost', '127.0.0.1', '[::1]'])

/** The origins that count as ours; ports are known only after listening. */
export interface Origins {
  readonly studio: () => readonly string[]
  readonly meeting: () => readonly string[]
}

/** Origins of a port under each local name. */
export function originsOf(port: number): string[] {
  return [...LOCAL_NAMES].map((name) => `http://${name}:${port}`)
}

/** Whether the Host header names this machine; a name from outside means a rebound address. */
export function isLocalHost(request: IncomingMessage): boolean {
  const name = (request.headers.host ?? '').replace(/:\d+$/, '')
  return LOCAL_NAMES.has(name)
}

/** Refuses a Host that does not name this machine. */
export function hostGuard(): RequestHandler {
  return (request, _response, next) => {
    next(isLocalHost(request) ? undefined : foreignHost(request))
  }
}

function foreignHost(request: IncomingMessage): HttpError {
  return new HttpError(403, 'foreign-host', `This server only answers to localhost, not to "${request.headers.host ?? ''}". Open http://localhost instead.`)
}

/** Refuses a foreign Host, and a foreign Origin on anything that is not the public driver. */
export function guard(origins: Origins): RequestHandler {
  return (request, response, next) => {
    if (!isLocalHost(request)) {
      next(foreignHost(request))
      return
    }
    const { origin } = request.headers
    const isPublic = request.path.startsWith('/webcam/')
    response.setHeader('Cross-Origin-Resource-Policy', isPublic ? 'cross-origin' : 'same-origin')
    if (isPublic) {
      next()
      return
    }
    if (origin !== undefined && !origins.studio().includes(origin)) {
      next(new HttpError(403, 'foreign-origin', `Pages from "${origin}" may not use this server. Open Green Room at its own address.`))
      return
    }
    next()
  }
}
