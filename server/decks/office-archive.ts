// What slides of other programs are made of: a zip archive of XML, which may come from anybody.
import { Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import yauzl, { type Entry, type ZipFile } from 'yauzl'
import { HttpError } from '../http-error.ts'

export type OfficeKind = 'pptx' | 'odp'

/** More than any deck that was tried holds. */
const MOST_ENTRIES = 20_000
const MOST_UNPACKED_BYTES = 1024 ** 3
const MOST_XML_BYTES = 32 * 1024 ** 2
const ENCRYPTED = 1
const nowhere = () => new Writable({ write: (_chunk, _encoding, done) => done() })

export interface OfficeArchive {
  readonly kind: OfficeKind
  /** Names of its parts. */
  readonly names: ReadonlySet<string>
  /** The text of a part; null where there is none of that name. */
  readonly text: (name: string) => Promise<string | null>
  readonly close: () => void
}

/** Opens slides and unpacks all of them once, to see that they are whole and not a bomb. Throws an HttpError that says what is wrong. */
export async function openOfficeArchive(file: string, name: string): Promise<OfficeArchive> {
  const refused = (code: string, message: string) => new HttpError(400, code, `"${name}" ${message}`)
  const zip = await yauzl.openPromise(file, { lazyEntries: true, autoClose: false, validateEntrySizes: true }).catch((error: Error) => {
    throw refused('deck-damaged', `is no presentation, or it is damaged (${error.message}). Choose a PDF, PPTX or ODP file, or save it anew.`)
  })
  try {
    const entries = await readEntries(zip, refused)
    const kind = await kindOf(zip, entries)
    if (kind === null) throw refused('deck-kind', 'is an archive, but holds no slides. Choose a PDF, PPTX or ODP file.')
    return { kind, names: new Set(entries.keys()), text: (part) => textOf(zip, entries.get(part)), close: () => zip.close() }
  } catch (error) {
    zip.close()
    if (error instanceof HttpError) throw error
    throw refused('deck-damaged', `is damaged (${error instanceof Error ? error.message : String(error)}). Save it anew.`)
  }
}

async function readEntries(zip: ZipFile, refused: (code: string, message: string) => HttpError): Promise<ReadonlyMap<string, Entry>> {
  if (zip.entryCount > MOST_ENTRIES) throw refused('deck-bomb', `holds ${zip.entryCount} parts; at most ${MOST_ENTRIES} are read. Save it as PDF.`)
  const entries = new Map<string, Entry>()
  let saidBytes = 0
  for await (const entry of zip.eachEntry()) {
    if ((entry.generalPurposeBitFlag & ENCRYPTED) !== 0) throw refused('deck-locked', 'is protected by a password. Save it without one, or as PDF.')
    saidBytes += entry.uncompressedSize
    if (saidBytes > MOST_UNPACKED_BYTES) throw refused('deck-bomb', `unpacks to more than ${MOST_UNPACKED_BYTES / 1024 ** 3} GB. Save it as PDF.`)
    entries.set(entry.fileName, entry)
  }
  // Sizes that are not as they say are found by unpacking; nothing is kept of it.
  for (const entry of entries.values()) await pipeline(await zip.openReadStreamPromise(entry), nowhere())
  return entries
}

async function kindOf(zip: ZipFile, entries: ReadonlyMap<string, Entry>): Promise<OfficeKind | null> {
  if (entries.has('ppt/presentation.xml')) return 'pptx'
  const mimeType = await textOf(zip, entries.get('mimetype'))
  return mimeType?.startsWith('application/vnd.oasis.opendocument.presentation') === true && entries.has('content.xml') ? 'odp' : null
}

async function textOf(zip: ZipFile, entry: Entry | undefined): Promise<string | null> {
  if (entry === undefined) return null
  if (entry.uncompressedSize > MOST_XML_BYTES) throw new Error(`its part "${entry.fileName}" is larger than ${MOST_XML_BYTES / 1024 ** 2} MB`)
  const chunks: Buffer[] = []
  for await (const chunk of (await zip.openReadStreamPromise(entry)) as AsyncIterable<Buffer>) chunks.push(chunk)
  return Buffer.concat(chunks).toString('utf8')
}
