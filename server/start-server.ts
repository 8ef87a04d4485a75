import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { pino, type Logger } from 'pino'
import { createApp } from './app.ts'
import { AssetStore } from './assets/asset-store.ts'
import type { ServerConfig } from './config.ts'
import { openDatabase } from './db/database.ts'
import { originsOf } from './guard.ts'
import { createMeetingSite } from './meeting-site.ts'
import { PresetStore } from './presets/preset-store.ts'
import { ShowStore } from './shows/show-store.ts'
import { SignalHub } from './signal/signal-hub.ts'

export interface RunningServer {
  readonly studioUrl: string
  readonly meetingUrl: string
  readonly shows: ShowStore
  readonly assets: AssetStore
  close(): Promise<void>
}

/** Opens the database, listens on loopback with both sites, and returns their addresses. */
export async function startServer(config: ServerConfig, log: Logger = pino({ level: 'warn' })): Promise<RunningServer> {
  const sequelize = await openDatabase(config.dataDir)
  const shows = new ShowStore(sequelize)
  const assets = new AssetStore(sequelize, config.dataDir)
  const presets = new PresetStore(sequelize)
  const ports = { studio: config.port, meeting: config.meetingPort }
  const origins = { studio: () => originsOf(ports.studio), meeting: () => originsOf(ports.meeting) }
  const hub = new SignalHub(origins)
  const studioServer = createServer(createApp({ shows, assets, presets, origins, distDir: config.distDir, log }))
  const meetingServer = createServer(createMeetingSite(config.distDir, () => `http://localhost:${ports.studio}`))
  hub.attach(studioServer)
  ports.studio = await listen(studioServer, config.port, config.host)
  ports.meeting = await listen(meetingServer, config.meetingPort, config.host)
  return {
    studioUrl: `http://localhost:${ports.studio}`,
    meetingUrl: `http://localhost:${ports.meeting}`,
    shows,
    assets,
    close: async () => {
      hub.close()
      await Promise.all([closeServer(studioServer), closeServer(meetingServer)])
      await sequelize.close()
    },
  }
}

function listen(server: Server, port: number, host: string): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      const isTaken = error.code === 'EADDRINUSE'
      reject(isTaken ? new Error(`Port ${port} is in use. Stop the other program, or set GREEN_ROOM_PORT and GREEN_ROOM_MEETING_PORT.`) : error)
    })
    server.listen(port, host, () => resolve((server.address() as AddressInfo).port))
  })
}

function closeServer(server: Server): Promise<void> {
  return new Promise((resolve) => {
    server.close(() => resolve())
    server.closeAllConnections()
  })
}
