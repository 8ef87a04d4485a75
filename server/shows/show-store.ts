// Shows in the database. Every write is one transaction, on the disk before the call returns.
import { randomUUID } from 'node:crypto'
import { LRUCache } from 'lru-cache'
import { Op, type Transaction } from 'sequelize'
import { readShow } from '../../core/show/migrate.ts'
import type { Patch } from '../../core/patch/patch.ts'
import type { Show } from '../../core/show/show.ts'
import type { Database } from '../db/database.ts'
import { HttpError } from '../http-error.ts'
import { tryRead } from '../try-read.ts'
import { checkedShow, patchedOr409, storedText } from './check-show.ts'
import { ShowFacts, type ShowFact } from './show-facts.ts'
import { versionsToDrop } from './thin-versions.ts'
import { initShowModels, ShowRow, ShowVersionRow } from './model.ts'

/** How long a deleted show can be brought back. */
const DAYS_DELETED_KEPT = 30
const DAY_MS = 86_400_000
const MOST_EDITED = 8

export interface StoredShow {
  readonly id: string
  readonly revision: number
  readonly updatedAt: string
  /** The id of the save that made this revision; null when it came about otherwise. */
  readonly saveId: string | null
  readonly show: Show
}

/** What came of a save. */
export type SavedShow = Pick<StoredShow, 'id' | 'revision' | 'updatedAt' | 'saveId'>

export interface ShowSummary {
  readonly id: string
  readonly name: string
  readonly revision: number
  readonly updatedAt: string
  readonly sceneCount: number
  /** Its scenes in order, without graphics. */
  readonly scenes: ShowFact['scenes']
  readonly canvas: ShowFact['canvas']
  /** Why the stored show cannot be read; null when it can. */
  readonly unreadable: string | null
}

export interface ShowVersion {
  readonly revision: number
  readonly savedAt: string
  /** The edit that led to it, in the presenter's words; null where it is not known. */
  readonly label: string | null
  readonly sceneCount: number
  readonly layerCount: number
  readonly isReadable: boolean
}

/** A show that was deleted and can still be brought back. */
export interface DeletedShow {
  readonly id: string
  readonly name: string
  readonly deletedAt: string
  /** After this it is gone for good. */
  readonly keptUntil: string
}

export class ShowStore {
  readonly #database: Database
  readonly #facts = new ShowFacts()
  /** The last saved state of shows that are being edited: patches go on top of it without reading the text again. */
  readonly #newest = new LRUCache<string, { readonly revision: number; readonly show: Show }>({ max: MOST_EDITED })

  constructor(database: Database) {
    this.#database = database
    initShowModels(database.sequelize)
  }

  /** Shows that are not deleted, newest first. One that cannot be read is listed as such and hides no other. */
  async list(): Promise<ShowSummary[]> {
    const rows = await ShowRow.findAll({ where: { deletedAt: null }, order: [['updatedAt', 'DESC']] })
    return rows.map((row) => {
      const { sceneCount, scenes, canvas, unreadable } = this.#facts.of(row.document)
      return { id: row.id, name: row.name, revision: row.revision, updatedAt: row.updatedAt.toISOString(), sceneCount, scenes, canvas, unreadable }
    })
  }

  /** The stored text of a show as it is, readable or not. */
  async documentOf(id: string): Promise<{ readonly name: string; readonly document: string }> {
    const { name, document } = await this.#find(id)
    return { name, document }
  }

  /** How many shows were ever made, deleted ones included. */
  async count(): Promise<number> {
    return ShowRow.count()
  }

  /** Every text that is stored, of shows, of deleted ones and of all their versions. */
  async documents(): Promise<readonly string[]> {
    const rows = [...(await ShowRow.findAll({ attributes: ['document'] })), ...(await ShowVersionRow.findAll({ attributes: ['document'] }))]
    return rows.map(({ document }) => document)
  }

  async get(id: string): Promise<StoredShow> {
    return stored(await this.#find(id))
  }

  /** Files a new show, which was checked. One with the id of a known show is that show: asking twice makes one. */
  async create(show: Show, id: string = randomUUID()): Promise<StoredShow> {
    const document = storedText(show)
    this.#facts.note(document, show)
    return this.#database.write(async (transaction) => {
      const known = await ShowRow.findByPk(id, { transaction })
      if (known !== null) return stored(known)
      const now = new Date()
      const row = await ShowRow.create(
        { id, name: show.name, revision: 1, document, createdAt: now, updatedAt: now, deletedAt: null, saveId: null },
        { transaction },
      )
      await ShowVersionRow.create({ showId: id, revision: 1, document, savedAt: now, label: null }, { transaction })
      return { ...savedOf(row), show }
    })
  }

  /**
   * Saves a new state, which was checked, on top of `baseRevision`. A save that was stored before under the same `saveId` is answered as it was
   * then. Throws a 409 when another tab saved in between; nothing is changed then.
   */
  async save(id: string, baseRevision: number, show: Show, saveId: string | null = null, label: string | null = null): Promise<SavedShow> {
    return this.#saveOnto(id, baseRevision, saveId, label, () => show)
  }

  /** The same for edits of the state that `baseRevision` has. Throws a 409 "patch-does-not-fit" when they cannot be made of it. */
  async savePatch(id: string, baseRevision: number, patch: Patch, saveId: string | null = null, label: string | null = null): Promise<SavedShow> {
    return this.#saveOnto(id, baseRevision, saveId, label, (row) => {
      const known = this.#newest.get(id)
      const base = known?.revision === row.revision ? known.show : stored(row).show
      return checkedShow(patchedOr409(base, patch))
    })
  }

  async #saveOnto(id: string, baseRevision: number, saveId: string | null, label: string | null, make: (row: ShowRow) => Show): Promise<SavedShow> {
    let made: Show | null = null
    const saved = await this.#database.write(async (transaction) => {
      const row = await this.#find(id, transaction)
      if (saveId !== null && row.saveId === saveId) return savedOf(row)
      if (row.revision !== baseRevision) {
        throw new HttpError(
          409,
          'stale',
          `This show was saved elsewhere (revision ${row.revision}, yours builds on ${baseRevision}). Load it again; yours can be kept as a copy.`,
        )
      }
      made = make(row)
      const document = storedText(made)
      this.#facts.note(document, made)
      return this.#write(row, document, made.name, transaction, saveId, label)
    })
    // Only what was written for good.
    if (made !== null) this.#newest.set(id, { revision: saved.revision, show: made })
    return saved
  }

  /** The versions that can be restored, newest first. */
  async versions(id: string): Promise<ShowVersion[]> {
    await this.#find(id)
    const rows = await ShowVersionRow.findAll({ where: { showId: id }, order: [['revision', 'DESC']] })
    return rows.map((row) => {
      const { sceneCount, layerCount, unreadable } = this.#facts.of(row.document)
      return { revision: row.revision, savedAt: row.savedAt.toISOString(), label: row.label, sceneCount, layerCount, isReadable: unreadable === null }
    })
  }

  /** The show as it was in a version. Throws a 404 for one that is not kept any more. */
  async version(id: string, revision: number): Promise<Show> {
    await this.#find(id)
    return this.#versionOf(id, revision)
  }

  async #versionOf(id: string, revision: number, transaction?: Transaction): Promise<Show> {
    const version = await ShowVersionRow.findOne({ where: { showId: id, revision }, ...(transaction === undefined ? {} : { transaction }) })
    if (version === null) {
      throw new HttpError(
        404,
        'version-not-found',
        `This show has no version ${revision} any more. Every version of the last ten minutes is kept, and fewer of what is older.`,
      )
    }
    return readStored(version.document, `version ${revision} of show "${id}"`)
  }

  /** Makes an earlier version the newest; what was newest stays restorable. */
  async restore(id: string, revision: number): Promise<StoredShow> {
    return this.#database.write(async (transaction) => {
      const row = await this.#find(id, transaction)
      const show = await this.#versionOf(id, revision, transaction)
      return { ...(await this.#write(row, JSON.stringify(show), show.name, transaction)), show }
    })
  }

  /** Deletes a show; `undelete` brings it back. */
  async delete(id: string): Promise<void> {
    await this.#database.write(async (transaction) => {
      const row = await this.#find(id, transaction)
      await row.update({ deletedAt: new Date() }, { transaction })
    })
  }

  /** Shows that were deleted and can be brought back, the last first. Those that waited long enough go for good. */
  async deleted(): Promise<DeletedShow[]> {
    const oldest = new Date(Date.now() - DAYS_DELETED_KEPT * DAY_MS)
    await this.#database.write(async (transaction) => {
      const gone = await ShowRow.findAll({ where: { deletedAt: { [Op.lt]: oldest } }, attributes: ['id'], transaction })
      const ids = gone.map(({ id }) => id)
      if (ids.length === 0) return
      await ShowVersionRow.destroy({ where: { showId: { [Op.in]: ids } }, transaction })
      await ShowRow.destroy({ where: { id: { [Op.in]: ids } }, transaction })
    })
    const rows = await ShowRow.findAll({ where: { deletedAt: { [Op.ne]: null } }, attributes: ['id', 'name', 'deletedAt'], order: [['deletedAt', 'DESC']] })
    return rows.map(({ id, name, deletedAt }) => ({
      id,
      name,
      deletedAt: deletedAt!.toISOString(),
      keptUntil: new Date(deletedAt!.getTime() + DAYS_DELETED_KEPT * DAY_MS).toISOString(),
    }))
  }

  /** Brings a deleted show back, readable or not. */
  async undelete(id: string): Promise<void> {
    await this.#database.write(async (transaction) => {
      const row = await ShowRow.findOne({ where: { id, deletedAt: { [Op.ne]: null } }, transaction })
      if (row === null) throw new HttpError(404, 'show-not-found', `There is no deleted show with the id "${id}".`)
      await row.update({ deletedAt: null }, { transaction })
    })
  }

  async #find(id: string, transaction?: Transaction): Promise<ShowRow> {
    const row = await ShowRow.findOne({ where: { id, deletedAt: null }, ...(transaction ? { transaction } : {}) })
    if (row === null) throw new HttpError(404, 'show-not-found', `There is no show with the id "${id}". It may have been deleted; open the list of shows.`)
    return row
  }

  async #write(
    row: ShowRow,
    document: string,
    name: string,
    transaction: Transaction,
    saveId: string | null = null,
    label: string | null = null,
  ): Promise<SavedShow> {
    const now = new Date()
    const revision = row.revision + 1
    await row.update({ document, name, revision, updatedAt: now, saveId }, { transaction })
    await ShowVersionRow.create({ showId: row.id, revision, document, savedAt: now, label }, { transaction })
    const stamps = await ShowVersionRow.findAll({ where: { showId: row.id }, attributes: ['revision', 'savedAt'], transaction })
    const dropped = versionsToDrop(
      stamps.map((stamp) => ({ revision: stamp.revision, savedAtMs: stamp.savedAt.getTime() })),
      now.getTime(),
    )
    if (dropped.length > 0) await ShowVersionRow.destroy({ where: { showId: row.id, revision: { [Op.in]: dropped } }, transaction })
    return savedOf(row)
  }
}

function savedOf({ id, revision, saveId, updatedAt }: ShowRow): SavedShow {
  return { id, revision, saveId, updatedAt: updatedAt.toISOString() }
}

function stored(row: ShowRow): StoredShow {
  return { ...savedOf(row), show: readStored(row.document, `show "${row.id}"`) }
}

/** Throws a 422 with the reason for a stored show that cannot be read. */
function readStored(document: string, what: string): Show {
  const read = tryRead(() => readShow(JSON.parse(document)))
  if (read.isReadable) return read.value
  throw new HttpError(422, 'show-unreadable', `The stored ${what} cannot be read: ${read.reason}. Restore an earlier version of it, or export and delete it.`)
}
