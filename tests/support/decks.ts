// Presentations made for tests, by general packages: PDF by pdf-lib, PPTX by PptxGenJS, ODP by LibreOffice from the latter.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { degrees, PDFDocument, rgb, StandardFonts, type PDFPage } from 'pdf-lib'
import pptxgen from 'pptxgenjs'
import sharp from 'sharp'

/** A page of a test deck, as it is told. */
export interface ToldPage {
  readonly title: string
  readonly words?: readonly string[]
  /** "#rrggbb" */
  readonly paper?: string
  readonly notes?: string
  readonly hasPicture?: boolean
}

const WIDTH_PT = 960
const HEIGHT_PT = 540

function channels(hex: string): readonly [number, number, number] {
  return [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16) / 255) as unknown as readonly [number, number, number]
}

/** A picture with grain, as a photo has it, the same each time. */
export async function grainyPicture(seed: number, widthPx = 640, heightPx = 400): Promise<Buffer> {
  const data = Buffer.alloc(widthPx * heightPx * 3)
  let state = seed * 2654435761
  for (let i = 0; i < data.length; i += 1) {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    const [x, y] = [Math.floor(i / 3) % widthPx, Math.floor(i / 3 / widthPx)]
    data[i] = Math.min(255, Math.max(0, 60 + (x * 120) / widthPx + (y * 60) / heightPx + (state >>> 27)))
  }
  return sharp(data, { raw: { width: widthPx, height: heightPx, channels: 3 } })
    .jpeg({ quality: 85 })
    .toBuffer()
}

/** Slides of 16:9 with a title, lines of text, vector drawings and, where it is told, a picture. */
export async function pdfOf(pages: readonly ToldPage[], each: (page: PDFPage, index: number) => void = () => undefined): Promise<Buffer> {
  const pdf = await PDFDocument.create()
  const [bold, plain] = [await pdf.embedFont(StandardFonts.HelveticaBold), await pdf.embedFont(StandardFonts.Helvetica)]
  for (const [index, { title, words = [], paper = '#ffffff', hasPicture = false }] of pages.entries()) {
    const page = pdf.addPage([WIDTH_PT, HEIGHT_PT])
    page.drawRectangle({ x: 0, y: 0, width: WIDTH_PT, height: HEIGHT_PT, color: rgb(...channels(paper)) })
    page.drawText(title, { x: 60, y: 440, size: 44, font: bold, color: rgb(0.1, 0.2, 0.15) })
    words.forEach((line, at) => page.drawText(line, { x: 60, y: 370 - at * 36, size: 24, font: plain, color: rgb(0.15, 0.15, 0.15) }))
    for (let ring = 0; ring < 6; ring += 1) {
      page.drawEllipse({ x: 780, y: 170, xScale: 130 - ring * 20, yScale: 130 - ring * 20, borderColor: rgb(0.85, 0.6 - ring * 0.06, 0.15), borderWidth: 4 })
    }
    if (hasPicture) page.drawImage(await pdf.embedJpg(await grainyPicture(index + 1)), { x: 560, y: 90, width: 320, height: 200 })
    each(page, index)
  }
  return Buffer.from(await pdf.save())
}

/** The same as a PPTX, with notes. */
export async function pptxOf(pages: readonly ToldPage[], hidden: readonly number[] = []): Promise<Buffer> {
  const pptx = new pptxgen()
  pptx.layout = 'LAYOUT_WIDE'
  for (const [index, { title, words = [], paper = '#ffffff', notes, hasPicture = false }] of pages.entries()) {
    const slide = pptx.addSlide()
    slide.background = { color: paper.slice(1) }
    slide.addText(title, { x: 0.8, y: 0.6, w: 11, h: 1, fontSize: 40, bold: true, color: '1a3326', fontFace: 'Liberation Sans' })
    words.forEach((line, at) => slide.addText(line, { x: 0.8, y: 2 + at * 0.5, w: 8, h: 0.5, fontSize: 22, fontFace: 'Liberation Sans' }))
    slide.addShape('ellipse', { x: 9, y: 4, w: 3, h: 2.5, fill: { color: 'dba233' } })
    if (hasPicture) slide.addImage({ data: `image/jpeg;base64,${(await grainyPicture(index + 1)).toString('base64')}`, x: 8, y: 2, w: 4, h: 2.5 })
    if (notes !== undefined) slide.addNotes(notes)
    if (hidden.includes(index + 1)) slide.hidden = true
  }
  return (await pptx.write({ outputType: 'nodebuffer' })) as Buffer
}

/** A presentation in another format, converted by LibreOffice; `to` as its --convert-to has it. */
export function converted(presentation: Buffer, from: string, to: string): Buffer {
  const folder = mkdtempSync(path.join(tmpdir(), 'green-room-convert-'))
  try {
    const file = path.join(folder, `deck.${from}`)
    writeFileSync(file, presentation)
    execFileSync('soffice', ['--headless', `-env:UserInstallation=file://${folder}/profile`, '--convert-to', to, '--outdir', folder, file], { stdio: 'ignore' })
    return readFileSync(path.join(folder, `deck.${to.split(':', 1)[0]}`))
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}

/** Pages as poppler's pdftoppm draws them, so many pixels wide. */
export function popplerPages(pdf: Buffer, widthPx: number): readonly Buffer[] {
  const folder = mkdtempSync(path.join(tmpdir(), 'green-room-poppler-'))
  try {
    const file = path.join(folder, 'deck.pdf')
    writeFileSync(file, pdf)
    execFileSync('pdftoppm', ['-png', '-cropbox', '-scale-to-x', String(widthPx), '-scale-to-y', '-1', file, path.join(folder, 'page')], { stdio: 'ignore' })
    const list = execFileSync('ls', [folder], { encoding: 'utf8' })
      .split('\n')
      .filter((name) => name.endsWith('.png'))
    return list.toSorted((one, other) => one.localeCompare(other, undefined, { numeric: true })).map((name) => readFileSync(path.join(folder, name)))
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}

/** Turns pages of a PDF, as scanners do. */
export const turnedBy = (angle: number) => (page: PDFPage) => page.setRotation(degrees(angle))

/** A class of `count` pages: words, drawings, and a picture on every third. */
export function toldClass(count: number): readonly ToldPage[] {
  return Array.from({ length: count }, (_, index) => ({
    title: `Page ${index + 1} of the class`,
    words: ['What a healthy frame shows', `Point ${index * 3 + 1} of many`, 'Look for eggs before you look for the queen'],
    notes: `Notes for page ${index + 1}.\nSay it slowly.`,
    hasPicture: index % 3 === 2,
  }))
}
