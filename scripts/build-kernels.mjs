#!/usr/bin/env node
// Compiles the pixel loops to WebAssembly. Does nothing for those that are up to date.
import { spawnSync } from 'node:child_process'
import { existsSync, statSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

const kernels = ['engine/cpu/kernels/kernels', 'standins/camera/kernels/mix']
const flags = ['--runtime', 'stub', '--enable', 'simd', '-O3', '--noAssert', '--importMemory', '--noExportMemory']

/** Compiles what is newer than its result; throws when the compiler refuses. */
export function buildKernels() {
  for (const kernel of kernels) {
    const source = `${kernel}.ts`
    const target = `${kernel}.wasm`
    if (existsSync(target) && statSync(target).mtimeMs >= statSync(source).mtimeMs) continue
    // The memory is declared by the host, which knows how much it needs.
    const result = spawnSync(process.execPath, ['node_modules/assemblyscript/bin/asc.js', source, ...flags, '-o', target], { stdio: 'inherit' })
    if (result.status !== 0) throw new Error(`the kernel compiler ended with ${result.status} for ${source}`)
  }
}

if (process.argv[1] === fileURLToPath(import.meta.url)) buildKernels()
