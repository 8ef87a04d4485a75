// The CPU executor and the text layout, outside a browser.
import { readFileSync } from 'node:fs'
import { readFile } from 'node:fs/promises'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { createCanvas, GlobalFonts } from '@napi-rs/canvas'
import type { RgbaPicture } from '../../core/picture/picture.ts'
import type { TextJob } from '../../core/plan/frame-plan.ts'
import { faceFileName, shippedFaces } from '../../core/text/shipped-faces.ts'
import { facesFor, type FaceFile } from '../../core/text/typefaces.ts'
import { Heap } from '../../engine/cpu/heap.ts'
import type { TextPen } from '../../engine/text/draw-text.ts'
import { textPicture, type TextCanvas } from '../../engine/text/text-picture.ts'

const rootDir = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../..')

let faces: readonly FaceFile[] | null = null

/** A heap with the compiled kernels. */
export async function nodeHeap(): Promise<Heap> {
  return Heap.create(await readFile(path.join(rootDir, 'engine/cpu/kernels/kernels.wasm')))
}

/** Reads which letters the shipped typefaces have. Safe to call twice. */
export function loadFonts(): void {
  faces ??= shippedFaces.flatMap((face) => {
    const root = path.join(rootDir, 'node_modules', face.folder)
    const ranges = JSON.parse(readFileSync(path.join(root, 'unicode.json'), 'utf8')) as Record<string, string>
    return Object.entries(ranges).map(([subset, range]) => {
      const url = path.join(root, 'files', faceFileName(face, subset))
      return { family: face.family, url, weights: face.weights, range }
    })
  })
}

/** The families for a text, which `loadFonts` has read. The Node canvas knows no unicode ranges, so each file that is needed is a family of its own. */
export function stackOf(family: string, text: string): string {
  if (faces === null) throw new Error('the typefaces are not loaded')
  const needed = facesFor(family, text, faces)
  for (const face of needed) if (!GlobalFonts.has(face.url)) GlobalFonts.registerFromPath(face.url, face.url)
  return [...needed.map((face) => `"${face.url}"`), 'sans-serif'].join(', ')
}

/** The picture of a text. `loadFonts` comes first. */
export function nodeTextPicture(job: TextJob): RgbaPicture {
  return textPicture(job, openNodeCanvas, stackOf)
}

function openNodeCanvas(widthPx: number, heightPx: number): TextCanvas {
  const pen = createCanvas(widthPx, heightPx).getContext('2d')
  return { pen: pen as unknown as TextPen, read: () => pen.getImageData(0, 0, widthPx, heightPx).data }
}
