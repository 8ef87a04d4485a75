// The browser extension: four scripts, a manifest for the studio's port, icons, and all of it in one zip.
import { mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { zipSync } from 'fflate'
import sharp from 'sharp'
import { build } from 'vite'

const rootDir = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..')
const SCRIPTS = ['page', 'bridge', 'studio', 'worker']
const ICON_SIZES = [16, 48, 128]

/** Builds dist/extension for a studio on `port`, and dist/green-room-extension.zip beside it. */
export async function buildExtension({ port, logLevel = 'warn' }) {
  const outDir = path.join(rootDir, 'dist/extension')
  rmSync(outDir, { recursive: true, force: true })
  for (const name of SCRIPTS) {
    await build({
      configFile: false,
      logLevel,
      build: {
        outDir,
        emptyOutDir: false,
        target: 'chrome120',
        lib: { entry: path.join(rootDir, `extension/${name}.ts`), formats: ['iife'], name: `greenRoom_${name}`, fileName: () => `${name}.js` },
      },
    })
  }
  mkdirSync(path.join(outDir, 'icons'), { recursive: true })
  const icon = readFileSync(path.join(rootDir, 'app/public/favicon.svg'))
  for (const size of ICON_SIZES)
    await sharp(icon, { density: 72 * (size / 32) })
      .resize(size, size)
      .png()
      .toFile(path.join(outDir, `icons/${size}.png`))
  writeManifest({ port })
}

/** Says in the manifest which port the studio has, and packs the zip anew. Cheap: done at every start. */
export function writeManifest({ port }) {
  const outDir = path.join(rootDir, 'dist/extension')
  const template = readFileSync(path.join(rootDir, 'extension/manifest.json'), 'utf8')
  writeFileSync(path.join(outDir, 'manifest.json'), template.replaceAll('%PORT%', String(port)))
  writeFileSync(path.join(rootDir, 'dist/green-room-extension.zip'), zipSync(filesOf(outDir)))
}

function filesOf(folder, prefix = '') {
  return Object.assign(
    {},
    ...readdirSync(folder).map((name) => {
      const file = path.join(folder, name)
      return statSync(file).isDirectory() ? filesOf(file, `${prefix}${name}/`) : { [`${prefix}${name}`]: new Uint8Array(readFileSync(file)) }
    }),
  )
}
