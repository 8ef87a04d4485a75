// What pdf.js fetches when a document needs it: character maps, the standard fonts, decoders.
import { cpSync, rmSync } from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'

const packageDir = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../node_modules/pdfjs-dist')

/** Copies the files into a folder. */
export function copyPdfFiles(folder) {
  rmSync(folder, { recursive: true, force: true })
  for (const name of ['cmaps', 'standard_fonts', 'wasm', 'iccs']) cpSync(path.join(packageDir, name), path.join(folder, name), { recursive: true })
}
