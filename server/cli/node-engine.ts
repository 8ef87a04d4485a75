// The CPU executor and the text layout, outside a browser.
import { readFile } from 'node:fs/promises'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { createCanvas, GlobalFonts } from '@napi-rs/canvas'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { TextJob } from '../../core/plan/frame-plan.ts'
import { Heap } from '../../engine/cpu/heap.ts'
import { drawText, type TextPen } from '../../engine/text/draw-text.ts'

const rootDir = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../..')
const FONT_FILES = [
  ['Bricolage Grotesque', '@fontsource-variable/bricolage-grotesque/files/bricolage-grotesque-latin-wght-normal.woff2'],
  ['Instrument Sans', '@fontsource-variable/instrument-sans/files/instrument-sans-latin-wght-normal.woff2'],
  ['Spline Sans Mono', '@fontsource/spline-sans-mono/files/spline-sans-mono-latin-400-normal.woff2'],
] as const

/** A heap with the compiled kernels. */
export async function nodeHeap(): Promise<Heap> {
  return Heap.create(await readFile(path.join(rootDir, 'engine/cpu/kernels/kernels.wasm')))
}

/** Makes the shipped typefaces known to the Node canvas. Safe to call twice. */
export function loadFonts(): void {
  for (const [family, file] of FONT_FILES) {
    if (!GlobalFonts.has(family)) GlobalFonts.registerFromPath(path.join(rootDir, 'node_modules', file), family)
  }
}

/** Lays out one text. `loadFonts` comes first. */
export function nodeTextPicture(job: TextJob): RgbaPicture {
  const canvas = createCanvas(job.widthPx, job.heightPx)
  const pen = canvas.getContext('2d')
  drawText(pen as unknown as TextPen, job.content, job.widthPx, job.heightPx)
  const { data } = pen.getImageData(0, 0, job.widthPx, job.heightPx)
  return { format: 'rgba', widthPx: job.widthPx, heightPx: job.heightPx, data }
}
