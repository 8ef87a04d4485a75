#!/usr/bin/env node
// npm run check: format, lint, types, documents, unit tests. Stops at the first that fails.
import { fileURLToPath } from 'node:url'
import { ensurePackages, run } from './ensure-deps.mjs'

const FOLDERS = ['core', 'engine', 'webcam', 'extension', 'standins', 'server']

/** Runs every check but the browser tests. */
export async function checkAll() {
  ensurePackages((text) => process.stdout.write(`${text}\n`))
  const { buildKernels } = await import('./build-kernels.mjs')
  buildKernels()
  const step = (name, command, args) => {
    process.stdout.write(`\n— ${name}\n`)
    run(process.execPath, [`node_modules/${command}`, ...args])
  }
  step('format', 'prettier/bin/prettier.cjs', ['--check', '--log-level=warn', '.'])
  step('lint', 'eslint/bin/eslint.js', ['.', '--max-warnings=0'])
  for (const folder of FOLDERS) step(`types of ${folder}`, 'typescript/bin/tsc', ['-p', folder])
  step('types of app', 'vue-tsc/bin/vue-tsc.js', ['--noEmit', '-p', 'app'])
  step('types of tests', 'vue-tsc/bin/vue-tsc.js', ['--noEmit', '-p', 'tests'])
  step('documents', 'tsx/dist/cli.mjs', ['scripts/write-docs.ts', '--check'])
  step('unit tests', 'vitest/vitest.mjs', ['run'])
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  checkAll().catch((error) => {
    process.stderr.write(`${error.message}\n`)
    process.exit(1)
  })
}
