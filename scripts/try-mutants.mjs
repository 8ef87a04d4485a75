#!/usr/bin/env node
// npm run mutants [-- TEXT]: breaks the code in one place after the other (tests/mutants/mutants.mjs) and says which tests do not
// notice. Only faults whose file or test holds TEXT, if one is given. Ends with 1 if any fault lives.
import { spawnSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { mutants } from '../tests/mutants/mutants.mjs'

const rootDir = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..')
const wanted = process.argv[2] ?? ''
const say = (text) => process.stdout.write(text)
/** The file that is broken now, as it was. */
let broken = null

function mend() {
  if (broken !== null) writeFileSync(broken.file, broken.text)
  broken = null
}
for (const signal of ['SIGINT', 'SIGTERM']) {
  process.on(signal, () => {
    mend()
    process.exit(130)
  })
}

/** A test that never ends has noticed as well. */
const LONGEST_MS = 240_000

function runNode(...args) {
  return spawnSync(process.execPath, args, { cwd: rootDir, encoding: 'utf8', timeout: LONGEST_MS, killSignal: 'SIGKILL' })
}

/** Whether the tests notice; an error of the tool itself is thrown. */
function isNoticed({ file, from, to, test }) {
  const target = path.join(rootDir, file)
  const text = readFileSync(target, 'utf8')
  if (text.split(from).length !== 2) throw new Error(`${file} must hold the text once: ${from}`)
  broken = { file: target, text }
  try {
    writeFileSync(
      target,
      text.replace(from, () => to),
    )
    if (file.includes('/kernels/')) runNode('scripts/build-kernels.mjs')
    const { status, stdout } = runNode('node_modules/vitest/vitest.mjs', 'run', ...test.split(' '), '--reporter=dot')
    if (/No test files found/.test(stdout)) throw new Error(`there is no test ${test}`)
    return status !== 0
  } finally {
    mend()
    if (file.includes('/kernels/')) runNode('scripts/build-kernels.mjs')
  }
}

const chosen = mutants.filter(({ file, test }) => `${file} ${test}`.includes(wanted))
const alive = []
for (const [i, mutant] of chosen.entries()) {
  say(`${String(i + 1).padStart(2)} of ${chosen.length}  ${mutant.file}: `)
  const noticed = isNoticed(mutant)
  say(noticed ? 'noticed\n' : `NOT NOTICED by ${mutant.test}\n   ${mutant.from}\n`)
  if (!noticed) alive.push(mutant)
}
say(`\n${chosen.length - alive.length} of ${chosen.length} faults were noticed.\n`)
process.exitCode = alive.length === 0 ? 0 : 1
