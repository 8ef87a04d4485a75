import { createHash } from 'node:crypto'
import { mkdir, open, rename, stat } from 'node:fs/promises'
import path from 'node:path'
import type { Sequelize } from 'sequelize'
import { HttpError } from '../http-error.ts'
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
}

export class AssetStore {
  readonly #folder: string

  constructor(sequelize: Sequelize, dataDir: string) {
    initAssetModel(sequelize)
    this.#folder = path.join(dataDir, 'assets')
  }

  /** Checks and keeps a picture or a look table; the same bytes are kept once. */
  async add(bytes: Buffer, fileName: string): Promise<Asset> {
    const facts = isLookFile(bytes, fileName) ? inspectLook(bytes, fileName) : await inspectPicture(bytes, fileName)
    const hash = createHash('sha256').update(bytes).digest('hex')
    await this.#write(hash, bytes)
    const [row] = await AssetRow.findOrCreate({
      where: { hash },
      defaults: { hash, ...facts, byteLength: bytes.length, fileName: fileName.slice(0, 200), createdAt: new Date() },
    })
    return assetOf(row)
  }

  /** Throws a 404 for an unknown hash. */
  async get(hash: string): Promise<{ readonly asset: Asset; readonly file: string }> {
    const row = /^[0-9a-f]{64}$/.test(hash) ? await AssetRow.findByPk(hash) : null
    if (row === null) throw new HttpError(404, 'asset-not-found', `There is no file with the hash "${hash}". Add the file again.`)
    return { asset: assetOf(row), file: path.join(this.#folder, hash) }
  }

  /** Writes beside, then renames, so that a file under its hash is always whole. */
  async #write(hash: string, bytes: Buffer): Promise<void> {
    await mkdir(this.#folder, { recursive: true })
    const file = path.join(this.#folder, hash)
    const known = await stat(file).catch(() => null)
    if (known?.size === bytes.length) return
    const partial = `${file}.${process.pid}.part`
    const handle = await open(partial, 'w')
    try {
      await handle.writeFile(bytes)
      await handle.sync()
    } finally {
      await handle.close()
    }
    await rename(partial, file)
  }
}

function assetOf(row: AssetRow): Asset {
  const { hash, mimeType, byteLength, widthPx, heightPx, fileName } = row
  return { hash, mimeType, byteLength, widthPx, heightPx, fileName }
}
