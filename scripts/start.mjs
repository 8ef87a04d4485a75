#!/usr/bin/env node
// npm start: packages, build, database, demo show, serve. On a fresh machine it does all of it.
import { spawn } from 'node:child_process'
import { existsSync, readdirSync, statSync } from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { ensurePackages } from './ensure-deps.mjs'
import { keepRunning } from './keep-running.mjs'

const rootDir = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..')
const say = (text) => process.stdout.write(`${text}\n`)
const SOURCES = ['app', 'core', 'engine', 'standins', 'webcam', 'extension', 'vite.config.ts', 'package-lock.json', 'scripts']

/** Time of the newest source file. */
function newestSource(entry) {
  const file = path.join(rootDir, entry)
  const stats = statSync(file)
  if (!stats.isDirectory()) return stats.mtimeMs
  return Math.max(
    0,
    ...readdirSync(file)
      .filter((name) => !name.endsWith('.wasm'))
      .map((name) => newestSource(path.join(entry, name))),
  )
}

async function main() {
  process.chdir(rootDir)
  ensurePackages(say)
  const built = path.join(rootDir, 'dist/extension/worker.js')
  if (!existsSync(built) || statSync(built).mtimeMs < Math.max(...SOURCES.map(newestSource))) {
    say('Building the studio.')
    const { buildAll } = await import('./build.mjs')
    await buildAll()
  }
  // The extension must know where the studio is.
  const { STUDIO_PORT } = await import('./build.mjs')
  const { writeManifest } = await import('./build-extension.mjs')
  writeManifest({ port: STUDIO_PORT })
  say('Starting the server.')
  const watch = process.argv.includes('--watch') ? ['watch'] : []
  let server = null
  let isStopping = false
  for (const signal of ['SIGINT', 'SIGTERM']) {
    process.on(signal, () => {
      isStopping = true
      server?.kill(signal)
    })
  }
  const start = () =>
    new Promise((resolve) => {
      server = spawn(process.execPath, ['node_modules/tsx/dist/cli.mjs', ...watch, 'server/main.ts'], { stdio: 'inherit' })
      server.once('exit', (code, signal) => resolve({ code, signal }))
    })
  const wait = (delayMs) => new Promise((resolve) => setTimeout(resolve, delayMs))
  process.exitCode = await keepRunning({ start, isStopping: () => isStopping, say, wait, nowMs: () => performance.now() })
}

main().catch((error) => {
  process.stderr.write(`${error.message}\n`)
  process.exit(1)
})
