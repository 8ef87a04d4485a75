#!/usr/bin/env node
// Compiles the pixel loops to WebAssembly. Does nothing for those that are up to date.
import { spawnSync } from 'node:child_process'
import { existsSync, statSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

const kernels = [
  {
    sources: [
      'engine/cpu/kernels/kernels.ts',
      'engine/cpu/kernels/coded.ts',
      'engine/cpu/kernels/sampling.ts',
      'engine/cpu/kernels/spatial.ts',
      'engine/cpu/kernels/fine.ts',
      'engine/cpu/kernels/grain.ts',
      'engine/cpu/kernels/person.ts',
      'engine/cpu/kernels/room.ts',
      'engine/cpu/kernels/edges.ts',
      'engine/cpu/kernels/blends.ts',
    ],
    shared: ['engine/cpu/kernels/packed.ts', 'engine/cpu/kernels/chroma.ts'],
    target: 'engine/cpu/kernels/kernels.wasm',
  },
  { sources: ['standins/camera/kernels/mix.ts'], shared: [], target: 'standins/camera/kernels/mix.wasm' },
]
/** A change of the list or the flags counts, too. */
const own = fileURLToPath(import.meta.url)
const flags = ['--runtime', 'stub', '--enable', 'simd', '-O3', '--noAssert', '--importMemory', '--noExportMemory']

/** Compiles what is newer than its result; throws when the compiler refuses. */
export function buildKernels() {
  for (const { sources, shared, target } of kernels) {
    if (existsSync(target) && [...sources, ...shared, own].every((source) => statSync(target).mtimeMs >= statSync(source).mtimeMs)) continue
    // The memory is declared by the host, which knows how much it needs.
    const result = spawnSync(process.execPath, ['node_modules/assemblyscript/bin/asc.js', ...sources, ...flags, '-o', target], { stdio: 'inherit' })
    if (result.status !== 0) throw new Error(`the kernel compiler ended with ${result.status} for ${sources.join(' and ')}`)
  }
}

if (process.argv[1] === fileURLToPath(import.meta.url)) buildKernels()
