#!/usr/bin/env node
// npm run bench: see tests/bench. With --json one object on stdout and nothing else.
import { spawnSync } from 'node:child_process'
import { CHROMIUM, ensurePackages, ensurePrograms, FFMPEG, LIBREOFFICE } from './ensure-deps.mjs'

const say = (text) => process.stderr.write(`${text}\n`)
try {
  ensurePackages(say)
  ensurePrograms([CHROMIUM, FFMPEG, LIBREOFFICE], say)
  const { buildAll } = await import('./build.mjs')
  await buildAll({ logLevel: 'silent' })
  const result = spawnSync(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'tests/bench/main.ts', ...process.argv.slice(2)], { stdio: 'inherit' })
  process.exit(result.status ?? 1)
} catch (error) {
  say(error.message)
  process.exit(1)
}
