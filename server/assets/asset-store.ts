import { createHash, randomUUID } from 'node:crypto'
import { mkdirSync, readdirSync, rmSync } from 'node:fs'
import { open, readFile, rename, rm, stat } from 'node:fs/promises'
import path from 'node:path'
import { MOST_BYTES } from '../../core/schema/limits.ts'
import type { Database } from '../db/database.ts'
import { storageFailure } from '../db/storage-failure.ts'
import { HttpError } from '../http-error.ts'
import { inspectClip, isClipFile } from './inspect-clip.ts'
import { inspectLook, isLookFile } from './inspect-look.ts'
import { inspectPicture, type PictureFacts } from './inspect-picture.ts'
import { AssetRow, initAssetModel } from './model.ts'

export interface Asset {
  readonly hash: string
  readonly mimeType: string
  readonly byteLength: number
  readonly widthPx: number
  readonly heightPx: number
  readonly fileName: string
  /** Whether it has more than one picture, one after the other. */
  readonly isMoving: boolean
}

/** Ending of a file that is not whole yet. */
const PARTIAL = '.part'
/** Of the beginning of a file, what tells which kind it is. */
const HEAD_BYTES = 4096

export class AssetStore {
  readonly #database: Database
  readonly #folder: string

  /** Keeps files in the folder `assets` of `dataDir`; what an interrupted upload left there is taken away. */
  constructor(database: Database, dataDir: string) {
    this.#database = database
    initAssetModel(database.sequelize)
    this.#folder = path.join(dataDir, 'assets')
    mkdirSync(this.#folder, { recursive: true })
    for (const name of readdirSync(this.#folder)) if (name.endsWith(PARTIAL)) rmSync(path.join(this.#folder, name), { force: true })
  }

  /** As `receive`, of bytes that are at hand. */
  add(bytes: Buffer, fileName: string): Promise<Asset> {
    return this.receive(bytes.length === 0 ? [] : [bytes], fileName)
  }

  /**
   * Checks and keeps a picture, a clip or a look table as it comes in; the same bytes are kept once. They go to the disk piece by piece:
   * of a clip no more than its head is ever in memory. Throws an HttpError that names the file, what is wrong and the fix.
   */
  async receive(body: AsyncIterable<Buffer> | Iterable<Buffer>, fileName: string): Promise<Asset> {
    // Written beside, under a name of its own, then renamed: a file under its hash is always whole.
    const partial = path.join(this.#folder, `${randomUUID()}${PARTIAL}`)
    try {
      const { hash, byteLength, head } = await this.#writePartial(partial, body, fileName)
      const facts = await inspect(partial, head, byteLength, fileName)
      const file = path.join(this.#folder, hash)
      const known = await stat(file).catch(() => null)
      if (known?.size !== byteLength) await rename(partial, file)
      return await this.#database.write(async (transaction) => {
        const row = await AssetRow.findByPk(hash, { transaction })
        const created = { hash, ...facts, byteLength, fileName: fileName.slice(0, 200), createdAt: new Date() }
        return assetOf(row ?? (await AssetRow.create(created, { transaction })))
      })
    } finally {
      // What cannot be taken away now is taken away at the next start.
      await rm(partial, { force: true }).catch(() => undefined)
    }
  }

  /** Throws a 404 for an unknown hash. */
  async get(hash: string): Promise<{ readonly asset: Asset; readonly file: string }> {
    const row = /^[0-9a-f]{64}$/.test(hash) ? await AssetRow.findByPk(hash) : null
    if (row === null) throw new HttpError(404, 'asset-not-found', `There is no file with the hash "${hash}". Add the file again.`)
    return { asset: assetOf(row), file: path.join(this.#folder, hash) }
  }

  async #writePartial(partial: string, body: AsyncIterable<Buffer> | Iterable<Buffer>, fileName: string) {
    const digest = createHash('sha256')
    let byteLength = 0
    let head = Buffer.alloc(0)
    const kept = <T>(writing: Promise<T>): Promise<T> =>
      writing.catch((error: unknown) => {
        throw storageFailure(error, this.#folder) ?? error
      })
    const handle = await kept(open(partial, 'w'))
    try {
      for await (const chunk of body) {
        byteLength += chunk.length
        if (byteLength > MOST_BYTES.clip) throw clipTooLarge(fileName)
        if (head.length < HEAD_BYTES) head = Buffer.concat([head, chunk.subarray(0, HEAD_BYTES - head.length)])
        digest.update(chunk)
        await kept(handle.appendFile(chunk))
      }
      await kept(handle.sync())
    } finally {
      await handle.close()
    }
    return { hash: digest.digest('hex'), byteLength, head }
  }
}

/** What is wrong with a file that is larger than any may be. */
export function clipTooLarge(fileName: string): HttpError {
  return new HttpError(413, 'clip-bytes', `"${fileName}" is larger than ${inMib(MOST_BYTES.clip)}. Cut it shorter, or export it smaller.`)
}

/** What a file is, by what it says itself. */
async function inspect(file: string, head: Buffer, byteLength: number, fileName: string): Promise<PictureFacts> {
  if (isClipFile(head)) return inspectClip(file, fileName)
  if (byteLength > MOST_BYTES.picture) {
    throw new HttpError(413, 'picture-bytes', `"${fileName}" is larger than ${inMib(MOST_BYTES.picture)}. Make it smaller and try again.`)
  }
  const bytes = await readFile(file)
  return isLookFile(bytes, fileName) ? inspectLook(bytes, fileName) : inspectPicture(bytes, fileName)
}

function inMib(bytes: number): string {
  return `${bytes / 1024 / 1024} MB`
}

function assetOf(row: AssetRow): Asset {
  const { hash, mimeType, byteLength, widthPx, heightPx, fileName, isMoving } = row
  return { hash, mimeType, byteLength, widthPx, heightPx, fileName, isMoving }
}
