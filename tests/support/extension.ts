import { cpSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import type { TestServer } from './test-server.ts'

const built = path.resolve(path.dirname(new URL(import.meta.url).pathname), '../../dist/extension')

/** The built extension, told where this test's studio is. Remove the folder when done. */
export function extensionFor(server: TestServer): string {
  const folder = mkdtempSync(path.join(tmpdir(), 'green-room-extension-'))
  cpSync(built, folder, { recursive: true })
  const file = path.join(folder, 'manifest.json')
  const port = new URL(server.studioUrl).port
  writeFileSync(file, readFileSync(file, 'utf8').replaceAll(/:\d+\/\*/g, `:${port}/*`))
  return folder
}

/** What a browser is started with to have it loaded. */
export const flagsFor = (extension: string): string[] => [`--disable-extensions-except=${extension}`, `--load-extension=${extension}`]
