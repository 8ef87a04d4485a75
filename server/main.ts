import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { pino } from 'pino'
import { seedDemos } from '../demo/seed.ts'
import { readConfig } from './config.ts'
import { startServer } from './start-server.ts'

/** As scripts/keep-running.mjs knows it. */
const CANNOT_START = 2

const rootDir = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..')

async function main(): Promise<void> {
  const server = await startServer(readConfig(process.env, rootDir), pino({ level: process.env['GREEN_ROOM_LOG'] ?? 'warn' }))
  await seedDemos(server.shows, server.assets)
  process.stdout.write(
    `\n  Green Room          ${server.studioUrl}\n  Stand-in meeting    ${server.meetingUrl}\n  Without our script  ${server.meetingUrl}/plain  (needs the extension)\n\n  Extension: open chrome://extensions, switch on Developer mode, Load unpacked: ${path.join(rootDir, 'dist/extension')}\n\n  Stop with Ctrl+C.\n`,
  )
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.once(signal, () => void server.close().then(() => process.exit(0)))
  }
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`)
  // The launcher does not try again: it would fail the same way.
  process.exit(CANNOT_START)
})
