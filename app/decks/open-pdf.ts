// PDF by pdf.js: it is loaded when the first file is opened, and parses in a worker of its own.
import type { PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist'
import workerUrl from 'pdfjs-dist/build/pdf.worker.min.mjs?url'

/** What a page shows, drawn into a box. */
export interface DrawnPage {
  readonly picture: ImageBitmap
  /** Its largest words on one line; empty where it has none. */
  readonly title: string
}

export interface OpenPdf {
  readonly pageCount: number
  /** Draws a page, from 1, as large as the box allows. Rejects with an Error that says what is wrong with it. */
  readonly draw: (number: number, box: { readonly widthPx: number; readonly heightPx: number }) => Promise<DrawnPage>
  /** Typefaces that the file names and does not bring along, of the pages that were drawn. */
  readonly missingFonts: () => readonly string[]
  readonly close: () => Promise<void>
}

/** Why a file cannot be opened. */
export class PdfError extends Error {
  constructor(readonly reason: 'password' | 'wrongPassword' | 'damaged' | 'empty') {
    super(reason)
  }
}

/** Files that pdf.js fetches when a document needs them. */
const files = (folder: string) => new URL(`/pdf/${folder}/`, window.location.href).href
/** A page that is smaller is drawn as if it were as large: a stamp of one point is no slide. */
const LEAST_SIDE = 4

/** What every PDF may name without bringing it along (ISO 32000-1, 9.6.2.2), and what the same faces are called elsewhere: they look alike. */
const STANDARD_FONTS = /^(Helvetica|Arial|Times|TimesNewRoman|Courier|CourierNew|Symbol|ZapfDingbats)/

/** Opens a PDF. Throws a PdfError. */
export async function openPdf(bytes: ArrayBuffer, password: string | null): Promise<OpenPdf> {
  if (bytes.byteLength === 0) throw new PdfError('empty')
  const pdf = await import('pdfjs-dist')
  pdf.GlobalWorkerOptions.workerSrc = workerUrl
  const loading = pdf.getDocument({
    data: bytes,
    ...(password === null ? {} : { password }),
    cMapUrl: files('cmaps'),
    standardFontDataUrl: files('standard_fonts'),
    wasmUrl: files('wasm'),
    iccUrl: files('iccs'),
    isEvalSupported: false,
    enableXfa: false,
    verbosity: pdf.VerbosityLevel.ERRORS,
  })
  const document = await loading.promise.catch(async (error: unknown) => {
    await loading.destroy()
    throw new PdfError(reasonOf(error, pdf.PasswordResponses.INCORRECT_PASSWORD))
  })
  const missing = new Set<string>()
  return {
    pageCount: document.numPages,
    draw: (number, box) => draw(document, number, box, missing),
    missingFonts: () => [...missing],
    close: () => loading.destroy(),
  }
}

function reasonOf(error: unknown, incorrect: number): PdfError['reason'] {
  const { name, code } = error as { readonly name?: string; readonly code?: number }
  if (name !== 'PasswordException') return 'damaged'
  return code === incorrect ? 'wrongPassword' : 'password'
}

async function draw(
  document: PDFDocumentProxy,
  number: number,
  box: { readonly widthPx: number; readonly heightPx: number },
  missing: Set<string>,
): Promise<DrawnPage> {
  const page = await document.getPage(number)
  try {
    const usual = page.getViewport({ scale: 1 })
    if (!(usual.width >= LEAST_SIDE && usual.height >= LEAST_SIDE)) throw new Error('its page has no size')
    const viewport = page.getViewport({ scale: Math.min(box.widthPx / usual.width, box.heightPx / usual.height) })
    const canvas = window.document.createElement('canvas')
    canvas.width = Math.max(1, Math.round(viewport.width))
    canvas.height = Math.max(1, Math.round(viewport.height))
    // "print" draws on while the tab is hidden; "display" waits for the screen.
    await page.render({ canvas, viewport, intent: 'print' }).promise
    const picture = await createImageBitmap(canvas)
    // Not waited for by the garbage collector: a canvas of this size is many megabytes.
    canvas.width = canvas.height = 0
    noteMissing(page, missing)
    return { picture, title: await titleOf(page) }
  } finally {
    page.cleanup()
  }
}

async function titleOf(page: PDFPageProxy): Promise<string> {
  const { items } = await page.getTextContent()
  const words = items.flatMap((item) => ('str' in item && item.str.trim() !== '' ? [item] : []))
  const largest = words.reduce((most, { height }) => Math.max(most, height), 0)
  const first = words.findIndex(({ height }) => height > largest * 0.9)
  if (first < 0) return ''
  let title = ''
  for (const item of words.slice(first)) {
    if (item.height <= largest * 0.9) break
    title += item.hasEOL ? `${item.str} ` : item.str
  }
  return title.replaceAll(/\s+/g, ' ').trim()
}

/** Fonts that pdf.js had to replace; it keeps them beside the page and tells nobody. */
function noteMissing(page: PDFPageProxy, missing: Set<string>): void {
  for (const [, known] of page.commonObjs as unknown as Iterable<[string, unknown]>) {
    const font = known as { readonly name?: unknown; readonly missingFile?: unknown } | null
    // "ABCDEF+" marks a part of a font.
    if (font?.missingFile !== true || typeof font.name !== 'string') continue
    const family = font.name.replace(/^[A-Z]{6}\+/, '').replaceAll(/[-,].*$/g, '')
    if (!STANDARD_FONTS.test(family)) missing.add(family)
  }
}
