import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { pino } from 'pino'
import { startServer, type RunningServer } from '../../server/start-server.ts'

export interface TestServer extends RunningServer {
  readonly dataDir: string
}

/** A server on free ports with an empty library, gone with `close`. */
export async function startTestServer(): Promise<TestServer> {
  const dataDir = mkdtempSync(path.join(tmpdir(), 'green-room-data-'))
  const rootDir = path.resolve(path.dirname(new URL(import.meta.url).pathname), '../..')
  const server = await startServer({ host: '127.0.0.1', port: 0, meetingPort: 0, dataDir, distDir: path.join(rootDir, 'dist') }, pino({ level: 'silent' }))
  return {
    ...server,
    dataDir,
    close: async () => {
      await server.close()
      rmSync(dataDir, { recursive: true, force: true })
    },
  }
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
