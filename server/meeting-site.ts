import { readFileSync } from 'node:fs'
import path from 'node:path'
import express, { type Express } from 'express'
import helmet from 'helmet'
import type { Logger } from 'pino'
import { errorHandler } from './errors.ts'
import { hostGuard } from './guard.ts'
import { HttpError } from './http-error.ts'

/** The line by which the meeting brings our devices in; its plain page goes without. */
const DRIVER_LINE = /^.*\/webcam\/driver\.js.*$/m

/** The stand-in meeting's own site. It shares nothing with the studio but one script tag; its page `/plain` does without that too. */
export function createMeetingSite(distDir: string, studioOrigin: () => string, log: Logger): Express {
  const site = express()
  const folder = path.join(distDir, 'meeting')
  site.disable('x-powered-by')
  site.use(hostGuard())
  site.use((request, response, next) => {
    const studio = request.path === '/plain' ? [] : [studioOrigin()]
    const policy = {
      defaultSrc: ["'self'"],
      scriptSrc: ["'self'", ...studio],
      styleSrc: ["'self'"],
      workerSrc: ["'none'"],
      imgSrc: ["'self'", 'data:', 'blob:'],
      connectSrc: ["'self'", ...studio.map((origin) => origin.replace(/^http/, 'ws'))],
      objectSrc: ["'none'"],
      baseUri: ["'none'"],
      formAction: ["'none'"],
      frameAncestors: ["'none'"],
    }
    helmet({
      contentSecurityPolicy: { useDefaults: false, directives: policy },
      crossOriginResourcePolicy: { policy: 'same-origin' },
      strictTransportSecurity: false,
    })(request, response, next)
  })
  site.get('/', (_request, response) => {
    const page = readFileSync(path.join(folder, 'index.html'), 'utf8')
    response.type('html').send(page.replaceAll('%STUDIO_ORIGIN%', studioOrigin()))
  })
  site.get('/plain', (_request, response) => {
    response.type('html').send(readFileSync(path.join(folder, 'index.html'), 'utf8').replace(DRIVER_LINE, ''))
  })
  site.use(express.static(folder, { index: false }))
  site.use((request) => {
    throw new HttpError(404, 'not-found', `There is nothing at ${request.originalUrl}.`)
  })
  site.use(errorHandler(log, folder))
  return site
}
