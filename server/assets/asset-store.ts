import { createHash, randomUUID } from 'node:crypto'
import { mkdirSync, readdirSync, rmSync } from 'node:fs'
import { open, rename, rm, stat } from 'node:fs/promises'
import path from 'node:path'
import type { Database } from '../db/database.ts'
import { storageFailure } from '../db/storage-failure.ts'
import { HttpError } from '../http-error.ts'
import { inspectClip, isClipFile } from './inspect-clip.ts'
import { inspectLook, isLookFile } from './inspect-look.ts'
import { inspectPicture } from './inspect-picture.ts'
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

  /** Checks and keeps a picture, a clip or a look table; the same bytes are kept once. */
  async add(bytes: Buffer, fileName: string): Promise<Asset> {
    const facts = isClipFile(bytes)
      ? await inspectClip(bytes, fileName)
      : isLookFile(bytes, fileName)
        ? inspectLook(bytes, fileName)
        : await inspectPicture(bytes, fileName)
    const hash = createHash('sha256').update(bytes).digest('hex')
    await this.#write(hash, bytes)
    return this.#database.write(async (transaction) => {
      const known = await AssetRow.findByPk(hash, { transaction })
      const created = { hash, ...facts, byteLength: bytes.length, fileName: fileName.slice(0, 200), createdAt: new Date() }
      return assetOf(known ?? (await AssetRow.create(created, { transaction })))
    })
  }

  /** Throws a 404 for an unknown hash. */
  async get(hash: string): Promise<{ readonly asset: Asset; readonly file: string }> {
    const row = /^[0-9a-f]{64}$/.test(hash) ? await AssetRow.findByPk(hash) : null
    if (row === null) throw new HttpError(404, 'asset-not-found', `There is no file with the hash "${hash}". Add the file again.`)
    return { asset: assetOf(row), file: path.join(this.#folder, hash) }
  }

  /** Writes beside, under a name of its own, then renames: a file under its hash is always whole. */
  async #write(hash: string, bytes: Buffer): Promise<void> {
    const file = path.join(this.#folder, hash)
    const known = await stat(file).catch(() => null)
    if (known?.size === bytes.length) return
    const partial = `${file}.${randomUUID()}${PARTIAL}`
    try {
      const handle = await open(partial, 'w')
      try {
        await handle.writeFile(bytes)
        await handle.sync()
      } finally {
        await handle.close()
      }
      await rename(partial, file)
    } catch (error) {
      // What cannot be taken away now is taken away at the next start.
      await rm(partial, { force: true }).catch(() => undefined)
      throw storageFailure(error, file) ?? error
    }
  }
}

function assetOf(row: AssetRow): Asset {
  const { hash, mimeType, byteLength, widthPx, heightPx, fileName, isMoving } = row
  return { hash, mimeType, byteLength, widthPx, heightPx, fileName, isMoving }
}
