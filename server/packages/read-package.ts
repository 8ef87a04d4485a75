// Reads an archive that may come from anybody: nothing is unpacked before all that it says of itself is within bounds.
import { z } from 'zod'
import yauzl, { type Entry, type ZipFile } from 'yauzl'
import { issueLines } from '../../core/show/schema.ts'
import { HttpError } from '../http-error.ts'
import { ASSET_FILE, CONTENTS_FILE, contentsSchema, PACKAGE_LIMITS, SCHEMA_FILE, SHOW_FILE, type PackageContents } from './package-format.ts'

/** An archive whose list of files was checked; nothing of it is unpacked yet. */
export interface OpenPackage {
  readonly contents: PackageContents
  /** The document as it was stored, of any version; not checked. */
  readonly document: unknown
  /** Hashes of the files that it holds. */
  readonly hashes: ReadonlySet<string>
  /** The bytes of a file, as they are unpacked. */
  readonly open: (hash: string) => Promise<AsyncIterable<Buffer>>
  readonly close: () => void
}

const UNIX_LINK = 0o120000
const UNIX_KIND = 0o170000
const ENCRYPTED = 1
const STORED = 0
const DEFLATED = 8

const refused = (code: string, message: string, details: readonly string[] = []) => new HttpError(400, code, message, details)

/** Opens an archive on the disk. Throws an HttpError that says what is wrong with it and what to do. */
export async function openPackage(file: string, mostShowBytes: number): Promise<OpenPackage> {
  const zip = await yauzl.openPromise(file, { lazyEntries: true, autoClose: false, validateEntrySizes: true, strictFileNames: true }).catch((error: Error) => {
    throw refused('package-damaged', `This file is no zip archive, or it is damaged (${error.message}). Choose a show that was exported from Green Room.`)
  })
  try {
    const entries = await readEntries(zip)
    const text = (name: string, mostBytes: number) => readText(zip, entryOf(entries, name), mostBytes)
    const contents = parsed(await text(CONTENTS_FILE, PACKAGE_LIMITS.contentsBytes), CONTENTS_FILE)
    const isNewer = typeof (contents as { version?: unknown } | null)?.version === 'number' && (contents as { version: number }).version > 1
    if (isNewer) throw refused('package-newer', 'This show was exported by a newer Green Room. Update Green Room, then import it again.')
    const document = parsed(await text(SHOW_FILE, mostShowBytes), SHOW_FILE)
    const assets = new Map([...entries].flatMap(([name, entry]) => (ASSET_FILE.test(name) ? [[ASSET_FILE.exec(name)![1]!, entry] as const] : [])))
    return {
      contents: checked(contents),
      document,
      hashes: new Set(assets.keys()),
      open: async (hash) => (await zip.openReadStreamPromise(assets.get(hash)!)) as AsyncIterable<Buffer>,
      close: () => zip.close(),
    }
  } catch (error) {
    zip.close()
    throw error
  }
}

/** The list of files, checked one by one as it is read. */
async function readEntries(zip: ZipFile): Promise<ReadonlyMap<string, Entry>> {
  if (zip.entryCount > PACKAGE_LIMITS.files + 4) {
    throw refused('package-files', `This archive holds ${zip.entryCount} files; at most ${PACKAGE_LIMITS.files} are allowed. Export the show again.`)
  }
  const entries = new Map<string, Entry>()
  let unpackedBytes = 0
  try {
    for await (const entry of zip.eachEntry()) {
      const name = entry.fileName
      // A folder of its own, as other programs write it.
      if (name === 'assets/' && entry.uncompressedSize === 0) continue
      requireUsual(entry, name)
      if (entries.has(name)) throw refused('package-twice', `This archive holds "${name}" twice. Export the show again.`)
      unpackedBytes += entry.uncompressedSize
      if (unpackedBytes > PACKAGE_LIMITS.unpackedBytes) {
        throw refused(
          'package-bytes',
          `This archive unpacks to more than ${PACKAGE_LIMITS.unpackedBytes / 1024 ** 3} GB. Make its clips shorter, and export it again.`,
        )
      }
      entries.set(name, entry)
    }
  } catch (error) {
    throw damagedOr(error)
  }
  return entries
}

function requireUsual(entry: Entry, name: string): void {
  const isKnown = [CONTENTS_FILE, SHOW_FILE, SCHEMA_FILE].includes(name) || ASSET_FILE.test(name)
  if (!isKnown) {
    throw refused('package-stranger', `This archive holds "${name.slice(0, 120)}", which is no part of a show. Take it out, or export the show again.`)
  }
  if (((entry.externalFileAttributes >>> 16) & UNIX_KIND) === UNIX_LINK) {
    throw refused('package-link', `"${name}" in this archive is a link to another file. Put the file itself there, or export the show again.`)
  }
  if ((entry.generalPurposeBitFlag & ENCRYPTED) !== 0) {
    throw refused('package-locked', `"${name}" in this archive is encrypted. Export the show without a password.`)
  }
  if (entry.compressionMethod !== STORED && entry.compressionMethod !== DEFLATED) {
    throw refused('package-packing', `"${name}" is packed in a way that is not known here (method ${entry.compressionMethod}). Pack it with Deflate.`)
  }
}

function entryOf(entries: ReadonlyMap<string, Entry>, name: string): Entry {
  const entry = entries.get(name)
  if (entry === undefined) throw refused('package-incomplete', `"${name}" is missing from this archive. Choose a show that was exported from Green Room.`)
  return entry
}

async function readText(zip: ZipFile, entry: Entry, mostBytes: number): Promise<string> {
  if (entry.uncompressedSize > mostBytes) {
    throw refused('package-text', `"${entry.fileName}" is larger than ${mostBytes / 1024 ** 2} MB. Split the show in two, and export it again.`)
  }
  try {
    const chunks: Buffer[] = []
    for await (const chunk of (await zip.openReadStreamPromise(entry)) as AsyncIterable<Buffer>) chunks.push(chunk)
    return Buffer.concat(chunks).toString('utf8')
  } catch (error) {
    throw damagedOr(error)
  }
}

function parsed(text: string, name: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    throw refused('package-json', `"${name}" in this archive is not valid JSON. Export the show again.`)
  }
}

function checked(contents: unknown): PackageContents {
  const read = contentsSchema.safeParse(contents)
  if (read.success) return read.data
  const lines = issueLines(read.error as z.ZodError)
  throw refused('package-contents', `"${CONTENTS_FILE}" in this archive is out of bounds: ${lines.slice(0, 3).join('; ')}`, lines)
}

/** What the unpacking refuses is damage: sizes and sums that are not as the list of files says, names that lead out of the archive. */
export function damagedOr(error: unknown): HttpError {
  if (error instanceof HttpError) return error
  return refused('package-damaged', `This archive is damaged (${error instanceof Error ? error.message : String(error)}). Export the show again.`)
}
