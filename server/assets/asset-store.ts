import { createHash, randomUUID } from 'node:crypto'
import { mkdirSync, readdirSync, rmSync, type Stats } from 'node:fs'
import { open, readFile, rename, rm, stat } from 'node:fs/promises'
import path from 'node:path'
import { MOST_BYTES } from '../../core/schema/limits.ts'
import { Op } from 'sequelize'
import type { Database } from '../db/database.ts'
import { storageFailure } from '../db/storage-failure.ts'
import { HttpError } from '../http-error.ts'
import { inspectClip, isClipFile } from './inspect-clip.ts'
import { drawingInside, drawnPicture, isDrawing } from './drawings.ts'
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

/** A file that comes in; with a `hash` it has to be that file. */
export interface IncomingFile {
  readonly fileName: string
  readonly hash?: string
  readonly open: () => Promise<AsyncIterable<Buffer> | Iterable<Buffer>>
}

interface StagedFile {
  readonly partial: string
  readonly fileName: string
  readonly made: { readonly hash: string; readonly byteLength: number; readonly facts: PictureFacts } | null
}

/** Ending of a file that is not whole yet. */
const PARTIAL = '.part'
/** Of the beginning of a file, what tells which kind it is. */
const HEAD_BYTES = 4096
/** Files of one body whose content is looked through at once. */
const LOOKED_AT_ONCE = 3

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
    const [asset] = await this.receiveAll([{ fileName, open: () => Promise.resolve(body) }])
    return asset!
  }

  /** The same of several files, opened one after the other: all of them are kept, or none. */
  async receiveAll(files: Iterable<IncomingFile>): Promise<readonly Asset[]> {
    const staged: StagedFile[] = []
    const looks: Promise<void>[] = []
    try {
      for (const file of files) {
        // Written beside, under a name of its own, then renamed: a file under its hash is always whole.
        const partial = path.join(this.#folder, `${randomUUID()}${PARTIAL}`)
        staged.push({ partial, ...file, made: null })
        const made = await this.#writePartial(partial, await file.open(), file.fileName)
        if (isDrawing(made.head)) {
          if (file.hash !== undefined) throw drawingInside(file.fileName)
          staged.push(await this.#stageDrawn(partial, file.fileName))
          continue
        }
        if (file.hash !== undefined && made.hash !== file.hash) {
          throw new HttpError(400, 'file-changed', `"${file.fileName}" is not the file that its name says: it was changed or damaged. Export the show again.`)
        }
        // Looked through while the next one comes in, a few at a time.
        const at = staged.length - 1
        looks.push(
          inspect(partial, made.head, made.byteLength, file.fileName).then((facts) => void (staged[at] = { partial, ...file, made: { ...made, facts } })),
        )
        looks.at(-1)!.catch(() => undefined)
        if (looks.length >= LOOKED_AT_ONCE) await looks[looks.length - LOOKED_AT_ONCE]
      }
      await Promise.all(looks)
      const assets: Asset[] = []
      for (const one of staged) if (one.made !== null) assets.push(await this.#keep(one))
      return assets
    } finally {
      await Promise.allSettled(looks)
      // What cannot be taken away now is taken away at the next start.
      for (const { partial } of staged) await rm(partial, { force: true }).catch(() => undefined)
    }
  }

  /** A drawing as a picture: nothing of it that could run or fetch anything is kept. */
  async #stageDrawn(drawing: string, fileName: string): Promise<StagedFile> {
    const picture = await drawnPicture(await readFile(drawing), fileName)
    const partial = path.join(this.#folder, `${randomUUID()}${PARTIAL}`)
    const made = await this.#writePartial(partial, [picture], fileName)
    return { partial, fileName, made: { ...made, facts: await inspectPicture(picture, fileName) } }
  }

  async #keep({ partial, fileName, made }: StagedFile): Promise<Asset> {
    const { hash, byteLength, facts } = made!
    const file = path.join(this.#folder, hash)
    const known = await statOrNull(file)
    if (known?.size !== byteLength) await rename(partial, file)
    return this.#database.write(async (transaction) => {
      const row = await AssetRow.findByPk(hash, { transaction })
      const created = { hash, ...facts, byteLength, fileName: fileName.slice(0, 200), createdAt: new Date() }
      return assetOf(row ?? (await AssetRow.create(created, { transaction })))
    })
  }

  /** Of some hashes, those that are kept whole, with their files. */
  async kept(hashes: readonly string[]): Promise<ReadonlyMap<string, { readonly asset: Asset; readonly file: string }>> {
    const rows = await AssetRow.findAll({ where: { hash: { [Op.in]: [...hashes] } } })
    const found = await Promise.all(
      rows.map(async (row) => {
        const file = path.join(this.#folder, row.hash)
        const known = await statOrNull(file)
        return known?.size === row.byteLength ? ([[row.hash, { asset: assetOf(row), file }]] as const) : []
      }),
    )
    return new Map(found.flat())
  }

  /** Files that were added before `olderThan` and that `isUsed` does not know, the largest first. */
  async unused(isUsed: (hash: string) => boolean, olderThan: Date): Promise<readonly Asset[]> {
    const rows = await AssetRow.findAll({ where: { createdAt: { [Op.lt]: olderThan } }, order: [['byteLength', 'DESC']] })
    return rows.filter(({ hash }) => !isUsed(hash)).map(assetOf)
  }

  /** Takes files away for good. */
  async remove(hashes: readonly string[]): Promise<void> {
    await this.#database.write((transaction) => AssetRow.destroy({ where: { hash: { [Op.in]: [...hashes] } }, transaction }))
    for (const hash of hashes) await rm(path.join(this.#folder, hash), { force: true })
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

/** What the system knows of a file; null where there is none. Throws when it cannot be told. */
async function statOrNull(file: string): Promise<Stats | null> {
  try {
    return await stat(file)
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return null
    throw error
  }
}
