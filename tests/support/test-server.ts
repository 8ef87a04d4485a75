import { cpSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { pino } from 'pino'
import type { OfficeOptions } from '../../server/decks/office.ts'
import { startServer, type RunningServer } from '../../server/start-server.ts'

/** A running server whose parts may be replaced by a restart. */
export interface TestServer {
  readonly dataDir: string
  readonly studioUrl: string
  readonly meetingUrl: string
  shows: RunningServer['shows']
  assets: RunningServer['assets']
  database: RunningServer['database']
  /** Ends it, and leaves its library in the folder `kept` if one is named. */
  close(kept?: string): Promise<void>
}

const rootDir = path.resolve(path.dirname(new URL(import.meta.url).pathname), '../..')
const running = new WeakMap<TestServer, RunningServer>()

function listen(dataDir: string, port: number, meetingPort: number, office: OfficeOptions = {}): Promise<RunningServer> {
  return startServer({ port, meetingPort, dataDir, distDir: path.join(rootDir, 'dist') }, pino({ level: 'silent' }), office)
}

/** A server on free ports, gone with `close`. Its library is empty, or a copy of what a server that has ended left in `library`. */
export async function startTestServer(library: string | null = null, office: OfficeOptions = {}): Promise<TestServer> {
  const dataDir = mkdtempSync(path.join(tmpdir(), 'green-room-data-'))
  if (library !== null) cpSync(library, dataDir, { recursive: true })
  const first = await listen(dataDir, 0, 0, office)
  const server: TestServer = {
    dataDir,
    studioUrl: first.studioUrl,
    meetingUrl: first.meetingUrl,
    shows: first.shows,
    assets: first.assets,
    database: first.database,
    close: async (kept) => {
      await running.get(server)?.close()
      if (kept !== undefined) cpSync(dataDir, kept, { recursive: true })
      rmSync(dataDir, { recursive: true, force: true })
    },
  }
  running.set(server, first)
  return server
}

/** Takes a server away, does something without it, and brings it back at the same addresses. */
export async function restartTestServer(server: TestServer, whileGone: () => Promise<void>): Promise<void> {
  const portOf = (url: string) => Number(new URL(url).port)
  await running.get(server)?.close()
  running.delete(server)
  await whileGone()
  const next = await listen(server.dataDir, portOf(server.studioUrl), portOf(server.meetingUrl))
  running.set(server, next)
  server.shows = next.shows
  server.assets = next.assets
  server.database = next.database
}

/** A JSON call; the answer's status and body. */
export async function callJson(url: string, method = 'GET', body?: unknown, headers: Record<string, string> = {}) {
  const response = await fetch(url, {
    method,
    headers: { ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  })
  const text = await response.text()
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  return { status: response.status, body: (text === '' ? null : JSON.parse(text)) as any }
}
