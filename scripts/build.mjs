#!/usr/bin/env node
// Builds what the server serves: the studio, the stand-in meeting, the webcam driver; and the browser extension.
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { build } from 'vite'
import { buildExtension } from './build-extension.mjs'
import { buildKernels } from './build-kernels.mjs'
import { copyPdfFiles } from './copy-pdf-files.mjs'
import { buildPersonModel } from './build-person-model.mjs'

const rootDir = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..')

/** As server/config.ts has it. */
export const STUDIO_PORT = Number(process.env['GREEN_ROOM_PORT'] || 4600)

/** Builds everything into dist/. */
export async function buildAll({ logLevel = 'warn' } = {}) {
  buildKernels()
  await build({ configFile: path.join(rootDir, 'vite.config.ts'), logLevel })
  buildPersonModel(path.join(rootDir, 'dist/app/person'))
  copyPdfFiles(path.join(rootDir, 'dist/app/pdf'))
  await build({
    configFile: false,
    root: path.join(rootDir, 'standins/meeting'),
    logLevel,
    build: { outDir: path.join(rootDir, 'dist/meeting'), emptyOutDir: true, target: 'chrome120' },
  })
  await build({
    configFile: false,
    logLevel,
    build: {
      outDir: path.join(rootDir, 'dist/webcam'),
      emptyOutDir: true,
      target: 'chrome120',
      // One classic script, so that a page loads it before its own code runs.
      lib: { entry: path.join(rootDir, 'webcam/driver/main.ts'), formats: ['iife'], name: 'greenRoomDriver', fileName: () => 'driver.js' },
    },
  })
  await buildExtension({ port: STUDIO_PORT, logLevel })
}

if (process.argv[1] === fileURLToPath(import.meta.url)) await buildAll({ logLevel: 'info' })
