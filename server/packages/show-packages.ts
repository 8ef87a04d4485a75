// Shows that travel: written as one archive with all that they need, and read from one.
import { randomUUID } from 'node:crypto'
import { mkdir, open, rm } from 'node:fs/promises'
import path from 'node:path'
import type { Readable } from 'node:stream'
import yazl from 'yazl'
import { showJsonSchema } from '../../core/show/json-schema.ts'
import { filesOf } from '../../core/show/show-files.ts'
import type { Show } from '../../core/show/show.ts'
import type { AssetStore } from '../assets/asset-store.ts'
import { storageFailure } from '../db/storage-failure.ts'
import { HttpError } from '../http-error.ts'
import { checkedShow, MOST_SHOW_BYTES, storedText } from '../shows/check-show.ts'
import type { ShowStore, StoredShow } from '../shows/show-store.ts'
import { CONTENTS_FILE, PACKAGE_LIMITS, SCHEMA_FILE, SHOW_FILE, type PackageContents } from './package-format.ts'
import { damagedOr, openPackage, type OpenPackage } from './read-package.ts'

/** Endings that people and their programs know the files by. */
const ENDINGS: Readonly<Record<string, string>> = {
  'image/png': '.png',
  'image/apng': '.png',
  'image/jpeg': '.jpg',
  'image/webp': '.webp',
  'image/gif': '.gif',
  'image/avif': '.avif',
  'video/mp4': '.mp4',
  'video/webm': '.webm',
  'application/x-cube': '.cube',
}

export class ShowPackages {
  readonly #shows: ShowStore
  readonly #assets: AssetStore
  readonly #folder: string

  constructor(shows: ShowStore, assets: AssetStore, dataDir: string) {
    this.#shows = shows
    this.#assets = assets
    this.#folder = path.join(dataDir, 'assets')
  }

  /** A show as an archive: its document, the schema of it, and its files by their hashes. What is lost is named in it. */
  async write(id: string): Promise<{ readonly name: string; readonly archive: Readable }> {
    const { show, updatedAt } = await this.#shows.get(id)
    const named = filesOf(show)
    const kept = await this.#assets.kept(named)
    const contents: PackageContents = {
      format: 'green-room-package',
      version: 1,
      files: named.flatMap((hash) => {
        const asset = kept.get(hash)?.asset
        return asset === undefined ? [] : [{ hash, name: asset.fileName, mimeType: asset.mimeType }]
      }),
      missing: named.filter((hash) => !kept.has(hash)),
    }
    const zip = new yazl.ZipFile()
    // The time of the last edit: the same show makes the same archive.
    const options = { mtime: new Date(updatedAt), mode: 0o100644 }
    zip.addBuffer(Buffer.from(`${JSON.stringify(contents, null, 2)}\n`), CONTENTS_FILE, options)
    zip.addBuffer(Buffer.from(`${JSON.stringify(show, null, 2)}\n`), SHOW_FILE, options)
    zip.addBuffer(Buffer.from(showJsonSchema()), SCHEMA_FILE, options)
    for (const { hash, mimeType } of contents.files) {
      // They are packed already.
      zip.addFile(kept.get(hash)!.file, `assets/${hash}${ENDINGS[mimeType] ?? ''}`, { ...options, compress: false })
    }
    zip.end()
    return { name: show.name, archive: zip.outputStream as unknown as Readable }
  }

  /** Files a new show from an archive, with all its files, or nothing at all. Throws an HttpError that says what is wrong with it. */
  async read(body: Readable): Promise<StoredShow> {
    const archive = path.join(this.#folder, `${randomUUID()}.zip.part`)
    try {
      await this.#receive(body, archive)
      const opened = await openPackage(archive, 2 * MOST_SHOW_BYTES)
      try {
        return await this.#file(opened)
      } finally {
        opened.close()
      }
    } finally {
      await rm(archive, { force: true }).catch(() => undefined)
    }
  }

  async #receive(body: Readable, archive: string): Promise<void> {
    const kept = <T>(writing: Promise<T>): Promise<T> =>
      writing.catch((error: unknown) => {
        throw storageFailure(error, this.#folder) ?? error
      })
    await kept(mkdir(this.#folder, { recursive: true }))
    const handle = await kept(open(archive, 'w'))
    let byteLength = 0
    try {
      // Left open when reading ends early, so that whoever sends hears why.
      for await (const chunk of body.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>) {
        byteLength += chunk.length
        if (byteLength > PACKAGE_LIMITS.archiveBytes) throw tooLarge()
        await kept(handle.appendFile(chunk))
      }
    } finally {
      await handle.close()
    }
  }

  async #file(opened: OpenPackage): Promise<StoredShow> {
    const show = checkedShow(opened.document)
    const kept = await this.#assets.kept(filesOf(show))
    const names = new Map(opened.contents.files.map(({ hash, name }) => [hash, name]))
    requireWhole(show, opened, kept)
    // One that is too long to be stored is refused before its files are kept.
    storedText(show)
    const incoming = filesOf(show).filter((hash) => !kept.has(hash) && opened.hashes.has(hash))
    try {
      await this.#assets.receiveAll(incoming.map((hash) => ({ hash, fileName: names.get(hash) ?? hash, open: () => opened.open(hash) })))
    } catch (error) {
      if (storageFailure(error, this.#folder) !== null) throw error
      throw damagedOr(error)
    }
    return this.#shows.create(show)
  }
}

/** Every file that the show names is in the archive, or here already, or said to be lost. */
function requireWhole(show: Show, { contents, hashes }: OpenPackage, kept: ReadonlyMap<string, unknown>): void {
  const lost = new Set(contents.missing)
  const absent = filesOf(show).filter((hash) => !hashes.has(hash) && !kept.has(hash) && !lost.has(hash))
  if (absent.length === 0) return
  const names = absent.map((hash) => contents.files.find((file) => file.hash === hash)?.name ?? `${hash.slice(0, 12)}…`)
  throw new HttpError(
    400,
    'package-incomplete',
    `This archive lacks ${absent.length === 1 ? 'a file' : `${absent.length} files`} of the show: ${names.slice(0, 3).join(', ')}. Export the show again.`,
  )
}

/** What is wrong with an archive that is larger than any may be. */
export function tooLarge(): HttpError {
  return new HttpError(
    413,
    'package-bytes',
    `This archive is larger than ${PACKAGE_LIMITS.archiveBytes / 1024 ** 3} GB. Make its clips shorter, and export it again.`,
  )
}
