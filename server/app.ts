import path from 'node:path'
import express, { type Express } from 'express'
import helmet from 'helmet'
import type { Logger } from 'pino'
import type { AssetStore } from './assets/asset-store.ts'
import { assetRoutes } from './assets/routes.ts'
import { backgroundRoutes } from './backgrounds/routes.ts'
import type { Office } from './decks/office.ts'
import { deckRoutes } from './decks/routes.ts'
import { findWays } from './device-out/ways.ts'
import { errorHandler } from './errors.ts'
import { guard, type Origins } from './guard.ts'
import { HttpError } from './http-error.ts'
import { unusedFileRoutes } from './assets/unused-files.ts'
import { packageRoutes } from './packages/routes.ts'
import type { ShowPackages } from './packages/show-packages.ts'
import type { KeptGraphic } from '../core/show/kept-graphic.ts'
import type { ChainFile } from '../core/show/schema.ts'
import type { NamedStore } from './named/named-store.ts'
import { namedRoutes } from './named/routes.ts'
import { siteRoutes } from './sites/routes.ts'
import type { SiteStore } from './sites/site-store.ts'
import type { ShowStore } from './shows/show-store.ts'
import { showRoutes } from './shows/routes.ts'

export interface AppDeps {
  readonly shows: ShowStore
  readonly assets: AssetStore
  readonly packages: ShowPackages
  readonly presets: NamedStore<ChainFile>
  readonly graphics: NamedStore<KeptGraphic>
  readonly sites: SiteStore
  readonly office: Office
  readonly origins: Origins
  readonly distDir: string
  readonly dataDir: string
  readonly log: Logger
}

/** Builds the studio's web application; `main.ts` listens. */
export function createApp({ shows, assets, packages, presets, graphics, sites, office, origins, distDir, dataDir, log }: AppDeps): Express {
  const app = express()
  app.disable('x-powered-by')
  app.use(guard(origins))
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          workerSrc: ["'self'", 'blob:'],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'", 'data:'],
          // Its own address only; for sockets that is the same host and port.
          connectSrc: ["'self'"],
          objectSrc: ["'none'"],
          baseUri: ["'none'"],
          formAction: ["'none'"],
          frameAncestors: ["'none'"],
        },
      },
      // Nothing of another origin is taken in, so that no other page shares a process or a fine clock with us.
      crossOriginEmbedderPolicy: { policy: 'require-corp' },
      crossOriginOpenerPolicy: { policy: 'same-origin' },
      // The guard sets it: the driver alone is for other origins.
      crossOriginResourcePolicy: false,
      strictTransportSecurity: false,
    }),
  )
  app.get('/api/health', (_request, response) => {
    response.json({ ok: true })
  })
  app.use('/api/shows', showRoutes(shows))
  app.use('/api/packages', packageRoutes(packages))
  app.use('/api/unused-files', unusedFileRoutes(assets, [shows, presets, graphics]))
  app.use('/api/assets', assetRoutes(assets))
  app.use('/api/decks', deckRoutes(assets, office))
  app.use('/api/backgrounds', backgroundRoutes(assets))
  app.use('/api/presets', namedRoutes(presets, { list: 'presets', field: 'chain', limit: '1mb' }))
  app.use('/api/graphics', namedRoutes(graphics, { list: 'graphics', field: 'graphic', limit: '2mb' }))
  app.get('/api/device-out', async (_request, response) => {
    response.json(await findWays(dataDir))
  })
  app.use('/api/sites', siteRoutes(sites))
  // Where a browser on this computer finds the extension's folder.
  app.get('/api/extension', (_request, response) => {
    response.json({ folder: path.resolve(distDir, 'extension') })
  })
  app.use('/api', (request) => {
    throw new HttpError(404, 'not-found', `There is nothing at ${request.originalUrl}.`)
  })
  app.get('/extension/green-room-extension.zip', (_request, response) => {
    response.sendFile(path.join(distDir, 'green-room-extension.zip'))
  })
  app.use('/webcam', express.static(path.join(distDir, 'webcam')))
  // Windows of their own.
  for (const name of ['output', 'notes']) {
    app.get(`/${name}/`, (_request, response) => {
      response.setHeader('Cache-Control', 'no-cache')
      response.sendFile(path.join(distDir, 'app', name, 'index.html'))
    })
  }
  app.use(express.static(path.join(distDir, 'app'), { index: false, maxAge: '1h' }))
  app.get('/{*path}', (_request, response) => {
    response.setHeader('Cache-Control', 'no-cache')
    response.sendFile(path.join(distDir, 'app', 'index.html'))
  })
  app.use(errorHandler(log, dataDir))
  return app
}
