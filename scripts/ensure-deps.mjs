#!/usr/bin/env node
// Makes a fresh checkout ready with Node's own modules alone: packages, pixel loops, and on request
// a browser and ffmpeg. Does nothing that is already done.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'

const rootDir = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..')
const stampFile = path.join(rootDir, 'node_modules/.green-room-lock')
const OLDEST_NODE = [20, 19]

/** Runs a command and throws with advice when it fails. */
export function run(command, args, { advice = '', env = process.env, isQuiet = false, toStderr = false } = {}) {
  const result = spawnSync(command, args, { cwd: rootDir, stdio: isQuiet ? ['ignore', 'ignore', 'inherit'] : toStderr ? ['ignore', 2, 2] : 'inherit', env })
  if (result.error) throw new Error(`${command} could not be started: ${result.error.message}. ${advice}`)
  if (result.status !== 0) throw new Error(`${command} ${args.join(' ')} ended with ${result.status}. ${advice}`)
}

/** Installs packages when the lock file changed since the last time. `say` tells what is going on. */
export function ensurePackages(say) {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major < OLDEST_NODE[0] || (major === OLDEST_NODE[0] && minor < OLDEST_NODE[1])) {
    throw new Error(`Green Room needs Node.js ${OLDEST_NODE.join('.')} or newer; this is ${process.versions.node}.`)
  }
  const lock = createHash('sha256')
    .update(readFileSync(path.join(rootDir, 'package-lock.json')))
    .digest('hex')
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === lock) return
  say('Installing packages. The first time this builds the database driver, which takes some minutes.')
  const env = { ...process.env }
  // The driver is compiled here; without headers at hand the build would try to download them.
  if (existsSync('/usr/include/node/node.h')) env.npm_config_nodedir ??= '/usr'
  run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    env,
    toStderr: true,
    advice: 'Check the connection to the package registry and run it again.',
  })
  mkdirSync(path.dirname(stampFile), { recursive: true })
  writeFileSync(stampFile, lock)
}

/** Installs Debian packages that provide missing programs. */
export function ensurePrograms(programs, say) {
  const missing = programs.filter(({ command }) => spawnSync('sh', ['-c', `command -v ${command}`]).status !== 0)
  if (missing.length === 0) return
  const names = missing.map(({ debian }) => debian)
  say(`Installing ${names.join(' and ')}.`)
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  const prefix = process.getuid?.() === 0 ? [] : ['sudo']
  const aptGet = (...args) =>
    run([...prefix, 'apt-get'][0], [...prefix, 'apt-get', ...args].slice(1), { env, isQuiet: true, advice: `Install ${names.join(' and ')} by hand.` })
  aptGet('update', '-qq')
  aptGet('install', '-y', '-qq', '--no-install-recommends', ...names)
}

export const CHROMIUM = { command: 'chromium', debian: 'chromium' }
export const LIBREOFFICE = { command: 'soffice', debian: 'libreoffice-impress' }
export const PDFTOPPM = { command: 'pdftoppm', debian: 'poppler-utils' }
export const FFMPEG = { command: 'ffmpeg', debian: 'ffmpeg' }

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  // For the command line: everything it says goes to stderr, so that results stay alone on stdout.
  const say = (text) => process.stderr.write(`${text}\n`)
  ensurePackages(say)
  const { buildKernels } = await import('./build-kernels.mjs')
  buildKernels()
}
