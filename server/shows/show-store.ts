// Shows in the database. Every write is one transaction, on the disk before the call returns.
import { randomUUID } from 'node:crypto'
import { Op, type Sequelize, type Transaction } from 'sequelize'
import { readShow } from '../../core/show/migrate.ts'
import { showSchema } from '../../core/show/schema.ts'
import type { Show } from '../../core/show/show.ts'
import { HttpError } from '../http-error.ts'
import { initShowModels, ShowRow, ShowVersionRow } from './model.ts'

/** Versions of a show that can be restored. */
export const VERSIONS_KEPT = 50

export interface StoredShow {
  readonly id: string
  readonly revision: number
  readonly updatedAt: string
  readonly show: Show
}

export interface ShowSummary {
  readonly id: string
  readonly name: string
  readonly revision: number
  readonly updatedAt: string
  readonly sceneCount: number
}

export interface ShowVersion {
  readonly revision: number
  readonly savedAt: string
  readonly sceneCount: number
  readonly layerCount: number
}

export class ShowStore {
  readonly #sequelize: Sequelize

  constructor(sequelize: Sequelize) {
    this.#sequelize = sequelize
    initShowModels(sequelize)
  }

  /** Shows that are not deleted, newest first. */
  async list(): Promise<ShowSummary[]> {
    const rows = await ShowRow.findAll({ where: { deletedAt: null }, order: [['updatedAt', 'DESC']] })
    return rows.map((row) => ({
      id: row.id,
      name: row.name,
      revision: row.revision,
      updatedAt: row.updatedAt.toISOString(),
      sceneCount: readShow(JSON.parse(row.document)).scenes.length,
    }))
  }

  /** How many shows were ever made, deleted ones included. */
  async count(): Promise<number> {
    return ShowRow.count()
  }

  async get(id: string): Promise<StoredShow> {
    return stored(await this.#find(id))
  }

  /** Files a new show. */
  async create(show: Show, id: string = randomUUID()): Promise<StoredShow> {
    const document = JSON.stringify(showSchema.parse(show))
    return this.#sequelize.transaction(async (transaction) => {
      const now = new Date()
      const row = await ShowRow.create({ id, name: show.name, revision: 1, document, createdAt: now, updatedAt: now, deletedAt: null }, { transaction })
      await ShowVersionRow.create({ showId: id, revision: 1, document, savedAt: now }, { transaction })
      return stored(row)
    })
  }

  /**
   * Saves a new state on top of `baseRevision`. Throws a 409 when another tab saved in between;
   * nothing is changed then.
   */
  async save(id: string, baseRevision: number, show: Show): Promise<StoredShow> {
    const document = JSON.stringify(show)
    return this.#sequelize.transaction(async (transaction) => {
      const row = await this.#find(id, transaction)
      if (row.revision !== baseRevision) {
        throw new HttpError(
          409,
          'stale',
          `This show was saved elsewhere (revision ${row.revision}, yours builds on ${baseRevision}). Load it again, or take over to keep yours.`,
        )
      }
      return this.#write(row, document, show.name, transaction)
    })
  }

  /** The versions that can be restored, newest first. */
  async versions(id: string): Promise<ShowVersion[]> {
    await this.#find(id)
    const rows = await ShowVersionRow.findAll({ where: { showId: id }, order: [['revision', 'DESC']], limit: VERSIONS_KEPT })
    return rows.map((row) => {
      const show = readShow(JSON.parse(row.document))
      return {
        revision: row.revision,
        savedAt: row.savedAt.toISOString(),
        sceneCount: show.scenes.length,
        layerCount: show.scenes.reduce((sum, scene) => sum + scene.layers.length, 0),
      }
    })
  }

  /** Makes an earlier version the newest; what was newest stays restorable. */
  async restore(id: string, revision: number): Promise<StoredShow> {
    return this.#sequelize.transaction(async (transaction) => {
      const row = await this.#find(id, transaction)
      const version = await ShowVersionRow.findOne({ where: { showId: id, revision }, transaction })
      if (version === null) {
        throw new HttpError(404, 'version-not-found', `This show has no version ${revision} any more; the last ${VERSIONS_KEPT} are kept.`)
      }
      const show = readShow(JSON.parse(version.document))
      return this.#write(row, JSON.stringify(show), show.name, transaction)
    })
  }

  /** Deletes a show; `undelete` brings it back. */
  async delete(id: string): Promise<void> {
    const row = await this.#find(id)
    await row.update({ deletedAt: new Date() })
  }

  async undelete(id: string): Promise<StoredShow> {
    const row = await ShowRow.findOne({ where: { id, deletedAt: { [Op.ne]: null } } })
    if (row === null) throw new HttpError(404, 'show-not-found', `There is no deleted show with the id "${id}".`)
    await row.update({ deletedAt: null })
    return stored(row)
  }

  async #find(id: string, transaction?: Transaction): Promise<ShowRow> {
    const row = await ShowRow.findOne({ where: { id, deletedAt: null }, ...(transaction ? { transaction } : {}) })
    if (row === null) throw new HttpError(404, 'show-not-found', `There is no show with the id "${id}". It may have been deleted; open the list of shows.`)
    return row
  }

  async #write(row: ShowRow, document: string, name: string, transaction: Transaction): Promise<StoredShow> {
    const now = new Date()
    const revision = row.revision + 1
    await row.update({ document, name, revision, updatedAt: now }, { transaction })
    await ShowVersionRow.create({ showId: row.id, revision, document, savedAt: now }, { transaction })
    await ShowVersionRow.destroy({ where: { showId: row.id, revision: { [Op.lte]: revision - VERSIONS_KEPT } }, transaction })
    return stored(row)
  }
}

function stored(row: ShowRow): StoredShow {
  return { id: row.id, revision: row.revision, updatedAt: row.updatedAt.toISOString(), show: readShow(JSON.parse(row.document)) }
}
