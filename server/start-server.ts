import { createServer } from 'node:http'
import type { Express } from 'express'
import { pino, type Logger } from 'pino'
import type { WebSocket } from 'ws'
import { createApp } from './app.ts'
import { AssetStore } from './assets/asset-store.ts'
import type { ServerConfig } from './config.ts'
import { Database } from './db/database.ts'
import { Office, type OfficeOptions } from './decks/office.ts'
import { DeviceOut } from './device-out/device-out.ts'
import { originsOf } from './guard.ts'
import { listenLocally, type Site } from './listen-locally.ts'
import { createMeetingSite } from './meeting-site.ts'
import { ShowPackages } from './packages/show-packages.ts'
import { keptGraphics, presets as presetKind } from './named/kinds.ts'
import { NamedStore } from './named/named-store.ts'
import { ShowStore } from './shows/show-store.ts'
import { SiteStore } from './sites/site-store.ts'
import { SignalHub } from './signal/signal-hub.ts'

export interface RunningServer {
  readonly studioUrl: string
  readonly meetingUrl: string
  readonly shows: ShowStore
  readonly assets: AssetStore
  readonly database: Database
  close(): Promise<void>
}

/** Opens the database, listens on loopback with both sites, and returns their addresses. */
export async function startServer(config: ServerConfig, log: Logger = pino({ level: 'warn' }), officeOptions: OfficeOptions = {}): Promise<RunningServer> {
  const database = await Database.open(config.dataDir)
  const opened: Site[] = []
  const ports = { studio: config.port, meeting: config.meetingPort }
  const origins = { studio: () => originsOf(ports.studio), meeting: () => originsOf(ports.meeting) }
  const office = new Office(officeOptions)
  const deviceOut = new DeviceOut(config.dataDir, log)
  const hub = new SignalHub(origins, log, new Map([['/device-out', (socket: WebSocket) => deviceOut.accept(socket)]]))
  const close = async (): Promise<void> => {
    hub.close()
    deviceOut.close()
    await Promise.all(opened.map((site) => site.close()))
    await office.close()
    await database.close()
  }
  try {
    const shows = new ShowStore(database)
    const assets = new AssetStore(database, config.dataDir)
    const presets = new NamedStore(database, presetKind)
    const graphics = new NamedStore(database, keptGraphics)
    const sites = new SiteStore(database)
    const { distDir, dataDir } = config
    const packages = new ShowPackages(shows, assets, dataDir)
    const studio = createApp({ shows, assets, packages, presets, graphics, sites, office, origins, distDir, dataDir, log })
    const meeting = createMeetingSite(distDir, () => `http://localhost:${ports.studio}`, log)
    const openSite = async (app: Express, port: number): Promise<Site> => {
      const site = await listenLocally(() => createServer(app), port)
      opened.push(site)
      return site
    }
    const studioSite = await openSite(studio, config.port)
    ports.studio = studioSite.port
    ports.meeting = (await openSite(meeting, config.meetingPort)).port
    for (const server of studioSite.servers) hub.attach(server)
    return { studioUrl: `http://localhost:${ports.studio}`, meetingUrl: `http://localhost:${ports.meeting}`, shows, assets, database, close }
  } catch (error) {
    await close()
    throw error
  }
}
