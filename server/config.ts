import path from 'node:path'

/** Where the server listens and keeps things. */
export interface ServerConfig {
  readonly port: number
  readonly meetingPort: number
  readonly dataDir: string
  readonly distDir: string
}

/** Reads GREEN_ROOM_PORT, GREEN_ROOM_MEETING_PORT and GREEN_ROOM_DATA. Throws a RangeError for a bad port. */
export function readConfig(environment: NodeJS.ProcessEnv, rootDir: string): ServerConfig {
  return {
    port: portOf('GREEN_ROOM_PORT', environment['GREEN_ROOM_PORT'], 4600),
    meetingPort: portOf('GREEN_ROOM_MEETING_PORT', environment['GREEN_ROOM_MEETING_PORT'], 4601),
    dataDir: environment['GREEN_ROOM_DATA'] ?? path.join(rootDir, 'data'),
    distDir: path.join(rootDir, 'dist'),
  }
}

function portOf(name: string, value: string | undefined, fallback: number): number {
  if (value === undefined || value === '') return fallback
  const port = Number(value)
  if (!Number.isInteger(port) || port < 0 || port > 65535) throw new RangeError(`${name} must be a port from 0 to 65535, got "${value}"`)
  return port
}
