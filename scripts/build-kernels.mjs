#!/usr/bin/env node
// Compiles the pixel loops in engine/cpu/kernels to WebAssembly. Does nothing when up to date.
import { spawnSync } from 'node:child_process'
import { existsSync, statSync } from 'node:fs'

const source = 'engine/cpu/kernels/kernels.ts'
const target = 'engine/cpu/kernels/kernels.wasm'

/** Compiles if the source is newer; throws when the compiler refuses. */
export function buildKernels() {
  if (existsSync(target) && statSync(target).mtimeMs >= statSync(source).mtimeMs) return
  const flags = ['--runtime', 'stub', '--enable', 'simd', '-O3', '--noAssert', '--importMemory', '--noExportMemory']
  // The memory is declared by the host; see engine/cpu/heap.ts.
  const result = spawnSync(process.execPath, ['node_modules/assemblyscript/bin/asc.js', source, ...flags, '-o', target], { stdio: 'inherit' })
  if (result.status !== 0) throw new Error(`the kernel compiler ended with ${result.status}`)
}

buildKernels()
