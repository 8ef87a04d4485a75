#!/usr/bin/env node
// npm test: everything CI runs, from a clean checkout: the checks, a build, the browser tests.
import { checkAll } from './check.mjs'
import { CHROMIUM, ensurePackages, ensurePrograms, FFMPEG, LIBREOFFICE, PDFTOPPM, run } from './ensure-deps.mjs'

const say = (text) => process.stdout.write(`${text}\n`)

async function main() {
  ensurePackages(say)
  ensurePrograms([CHROMIUM, FFMPEG, LIBREOFFICE, PDFTOPPM], say)
  await checkAll()
  say('\n— build')
  const { buildAll } = await import('./build.mjs')
  await buildAll()
  const browserTests = (project, workers) =>
    run(process.execPath, ['node_modules/@playwright/test/cli.js', 'test', `--project=${project}`, `--workers=${workers}`])
  say('\n— browser tests')
  browserTests('calm', 2)
  say('\n— browser tests that measure time')
  browserTests('timed', 1)
}

main().catch((error) => {
  process.stderr.write(`${error.message}\n`)
  process.exit(1)
})
