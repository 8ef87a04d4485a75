import { randomBytes } from 'node:crypto'
import { readChain } from '../../core/show/migrate.ts'
import type { ChainFile } from '../../core/show/schema.ts'
import type { Database } from '../db/database.ts'
import { HttpError } from '../http-error.ts'
import { tryRead } from '../try-read.ts'
import { initPresetModel, PresetRow } from './model.ts'

export interface Preset {
  readonly id: string
  readonly name: string
  readonly chain: ChainFile
}

const MOST_PRESETS = 200

/** A preset that cannot be read any more, with the reason. */
export interface UnreadablePreset {
  readonly id: string
  readonly name: string
  readonly reason: string
}

export class PresetStore {
  readonly #database: Database

  constructor(database: Database) {
    this.#database = database
    initPresetModel(database.sequelize)
  }

  /** All presets by name; those that cannot be read are told apart and hide no other. */
  async list(): Promise<{ readonly presets: Preset[]; readonly unreadable: UnreadablePreset[] }> {
    const rows = await PresetRow.findAll({ order: [['name', 'ASC']] })
    const presets: Preset[] = []
    const unreadable: UnreadablePreset[] = []
    for (const { id, name, document } of rows) {
      const read = tryRead(() => readChain(JSON.parse(document)))
      if (read.isReadable) presets.push({ id, name, chain: read.value })
      else unreadable.push({ id, name, reason: read.reason })
    }
    return { presets, unreadable }
  }

  /** Every text that is stored. */
  async documents(): Promise<readonly string[]> {
    return (await PresetRow.findAll({ attributes: ['document'] })).map(({ document }) => document)
  }

  /** Keeps a chain under a name; a chain of that name is replaced. Throws a ZodError for one out of bounds. */
  async save(name: string, chain: unknown): Promise<Preset> {
    const checked = { ...readChain(chain), name }
    const document = JSON.stringify(checked)
    return this.#database.write(async (transaction) => {
      const known = await PresetRow.findOne({ where: { name }, transaction })
      if (known !== null) {
        await known.update({ document }, { transaction })
        return { id: known.id, name, chain: checked }
      }
      if ((await PresetRow.count({ transaction })) >= MOST_PRESETS) {
        throw new HttpError(409, 'presets-full', `There are ${MOST_PRESETS} presets already. Delete one first.`)
      }
      const row = await PresetRow.create({ id: randomBytes(9).toString('base64url'), name, document, createdAt: new Date() }, { transaction })
      return { id: row.id, name, chain: checked }
    })
  }

  /** Throws a 404 for an unknown id. */
  async remove(id: string): Promise<void> {
    const removed = await this.#database.write((transaction) => PresetRow.destroy({ where: { id }, transaction }))
    if (removed === 0) throw new HttpError(404, 'preset-not-found', 'This preset is not here any more.')
  }
}
