// The CPU executor and the text layout, outside a browser.
import { readFileSync } from 'node:fs'
import { readFile } from 'node:fs/promises'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { createCanvas, GlobalFonts } from '@napi-rs/canvas'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { TextJob } from '../../core/plan/frame-plan.ts'
import { facesFor, type FaceFile } from '../../core/text/typefaces.ts'
import { Heap } from '../../engine/cpu/heap.ts'
import { drawText, type TextPen } from '../../engine/text/draw-text.ts'

const rootDir = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../..')
/** Packages of typefaces: family, folder, name of the files, and how they end. */
const FONT_PACKAGES = [
  ['Bricolage Grotesque', '@fontsource-variable/bricolage-grotesque', 'bricolage-grotesque', 'wght-normal', '200 800'],
  ['Instrument Sans', '@fontsource-variable/instrument-sans', 'instrument-sans', 'wght-normal', '400 700'],
  ['Spline Sans Mono', '@fontsource/spline-sans-mono', 'spline-sans-mono', '400-normal', '400'],
  ...['', ' Arabic', ' Hebrew', ' Thai', ' SC', ' JP', ' KR'].map((script) => {
    const name = `noto-sans${script.toLowerCase().replace(' ', '-')}`
    return [`Noto Sans${script}`, `@fontsource-variable/${name}`, name, 'wght-normal', '100 900'] as const
  }),
] as const

let faces: readonly FaceFile[] | null = null

/** A heap with the compiled kernels. */
export async function nodeHeap(): Promise<Heap> {
  return Heap.create(await readFile(path.join(rootDir, 'engine/cpu/kernels/kernels.wasm')))
}

/** Reads which letters the shipped typefaces have. Safe to call twice. */
export function loadFonts(): void {
  faces ??= FONT_PACKAGES.flatMap(([family, folder, name, ending, weights]) => {
    const root = path.join(rootDir, 'node_modules', folder)
    const ranges = JSON.parse(readFileSync(path.join(root, 'unicode.json'), 'utf8')) as Record<string, string>
    return Object.entries(ranges).map(([subset, range]) => {
      const url = path.join(root, 'files', `${name}-${subset.replace(/[[\]]/g, '')}-${ending}.woff2`)
      return { family, url, weights, range }
    })
  })
}

/** The families for a text. The Node canvas knows no unicode ranges, so each file that is needed is a family of its own. */
function stackOf(family: string, text: string): string {
  if (faces === null) throw new Error('the typefaces are not loaded')
  const needed = facesFor(family, text, faces)
  for (const face of needed) if (!GlobalFonts.has(face.url)) GlobalFonts.registerFromPath(face.url, face.url)
  return [...needed.map((face) => `"${face.url}"`), 'sans-serif'].join(', ')
}

/** Lays out one text. `loadFonts` comes first. */
export function nodeTextPicture(job: TextJob): RgbaPicture {
  const canvas = createCanvas(job.widthPx, job.heightPx)
  const pen = canvas.getContext('2d')
  drawText(pen as unknown as TextPen, job.content, job.widthPx, job.heightPx, stackOf)
  const { data } = pen.getImageData(0, 0, job.widthPx, job.heightPx)
  return { format: 'rgba', widthPx: job.widthPx, heightPx: job.heightPx, data }
}
