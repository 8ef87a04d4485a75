// A file of slides, or several pictures, as pages that can be drawn one by one.
import { MOST_BYTES } from '../../core/schema/limits.ts'
import { api, ApiError } from '../show/api.ts'
import { openPdf, PdfError } from './open-pdf.ts'

export interface PageBox {
  readonly widthPx: number
  readonly heightPx: number
}

export interface DeckSource {
  readonly name: string
  readonly pageCount: number
  readonly draw: (number: number, box: PageBox) => Promise<{ readonly picture: ImageBitmap; readonly title: string }>
  readonly notesOf: (number: number) => string
  readonly missingFonts: () => readonly string[]
  readonly close: () => void
}

/** What a file may be, for the browser's chooser. */
export const DECK_KINDS = '.pdf,.pptx,.odp,application/pdf,image/png,image/jpeg,image/webp,image/avif,image/gif'
const LONGEST_NAME = 80

const isPicture = ({ type }: File) => type.startsWith('image/') && type !== 'image/svg+xml'
const endsWith = (ending: string) => (file: File) => file.name.toLowerCase().endsWith(ending)
const isPdf = (file: File) => file.type === 'application/pdf' || endsWith('.pdf')(file)
const isOffice = (file: File) => endsWith('.pptx')(file) || endsWith('.odp')(file)

/** Whether some files are slides by their names: one PDF, PPTX or ODP file. */
export function areSlides(files: readonly File[]): boolean {
  return files.length === 1 && (isPdf(files[0]!) || isOffice(files[0]!))
}

/** Why slides cannot be opened: words of the server, or a reason that has words of its own. */
export class DeckError extends Error {
  constructor(
    readonly reason: PdfError['reason'] | 'kind' | 'several' | 'size' | 'office' | 'refused' | 'offline',
    readonly error: unknown = null,
  ) {
    super(reason)
  }
}

/** Opens slides. `onConvert` is called while another program makes a PDF of them. Throws a DeckError, or an AbortError when it is given up. */
export async function openDeck(files: readonly File[], password: string | null, signal: AbortSignal, onConvert: () => void): Promise<DeckSource> {
  const [first] = files
  if (first === undefined) throw new DeckError('kind')
  if (files.every(isPicture)) return picturesAsDeck(files)
  if (files.length > 1) throw new DeckError('several')
  if (first.size > MOST_BYTES.deck) throw new DeckError('size')
  const name = first.name.replace(/\.\w+$/, '').slice(0, LONGEST_NAME) || first.name.slice(0, LONGEST_NAME)
  if (isPdf(first)) return pdfAsDeck(name, await first.arrayBuffer(), password, [], [])
  if (!isOffice(first)) throw new DeckError('kind')
  onConvert()
  try {
    if (!(await api.isOfficeThere())) throw new DeckError('office')
    const facts = await api.slideFacts(first, signal)
    const pdf = await api.slidesAsPdf(first, signal)
    return await pdfAsDeck(name, pdf, null, facts.notes, facts.missingFamilies ?? [])
  } catch (error) {
    if (signal.aborted || error instanceof DeckError) throw error
    if (error instanceof ApiError) throw new DeckError(error.code === 'office-missing' ? 'office' : 'refused', error)
    throw new DeckError('offline', error)
  }
}

async function pdfAsDeck(name: string, bytes: ArrayBuffer, password: string | null, notes: readonly string[], missing: readonly string[]): Promise<DeckSource> {
  const pdf = await openPdf(bytes, password).catch((error: unknown) => {
    throw error instanceof PdfError ? new DeckError(error.reason) : error
  })
  return {
    name,
    pageCount: pdf.pageCount,
    draw: pdf.draw,
    notesOf: (number) => notes[number - 1] ?? '',
    missingFonts: () => [...new Set([...missing, ...pdf.missingFonts()])],
    close: () => void pdf.close(),
  }
}

/** In the order of their names, as "9" comes before "10". */
function picturesAsDeck(files: readonly File[]): DeckSource {
  const sorted = files.toSorted((one, other) => one.name.localeCompare(other.name, undefined, { numeric: true }))
  const titleOf = (file: File) => file.name.replace(/\.\w+$/, '').slice(0, LONGEST_NAME)
  return {
    name: titleOf(sorted[0]!),
    pageCount: sorted.length,
    draw: async (number, box) => {
      const file = sorted[number - 1]!
      const whole = await createImageBitmap(file)
      const scale = Math.min(1, box.widthPx / whole.width, box.heightPx / whole.height)
      if (scale === 1) return { picture: whole, title: titleOf(file) }
      const size = { resizeWidth: Math.max(1, Math.round(whole.width * scale)), resizeHeight: Math.max(1, Math.round(whole.height * scale)) }
      const picture = await createImageBitmap(whole, { ...size, resizeQuality: 'high' })
      whole.close()
      return { picture, title: titleOf(file) }
    },
    notesOf: () => '',
    missingFonts: () => [],
    close: () => undefined,
  }
}
