import { randomBytes } from 'node:crypto'
import type { Sequelize } from 'sequelize'
import { readChain } from '../../core/show/migrate.ts'
import type { ChainFile } from '../../core/show/schema.ts'
import { HttpError } from '../http-error.ts'
import { initPresetModel, PresetRow } from './model.ts'

export interface Preset {
  readonly id: string
  readonly name: string
  readonly chain: ChainFile
}

const MOST_PRESETS = 200

export class PresetStore {
  constructor(sequelize: Sequelize) {
    initPresetModel(sequelize)
  }

  /** All presets by name. */
  async list(): Promise<Preset[]> {
    const rows = await PresetRow.findAll({ order: [['name', 'ASC']] })
    return rows.map((row) => ({ id: row.id, name: row.name, chain: readChain(JSON.parse(row.document)) }))
  }

  /** Keeps a chain under a name; a chain of that name is replaced. Throws a ZodError for one out of bounds. */
  async save(name: string, chain: unknown): Promise<Preset> {
    const checked = { ...readChain(chain), name }
    const document = JSON.stringify(checked)
    const known = await PresetRow.findOne({ where: { name } })
    if (known !== null) {
      await known.update({ document })
      return { id: known.id, name, chain: checked }
    }
    if ((await PresetRow.count()) >= MOST_PRESETS) throw new HttpError(409, 'presets-full', `There are ${MOST_PRESETS} presets already. Delete one first.`)
    const row = await PresetRow.create({ id: randomBytes(9).toString('base64url'), name, document, createdAt: new Date() })
    return { id: row.id, name, chain: checked }
  }

  /** Throws a 404 for an unknown id. */
  async remove(id: string): Promise<void> {
    const removed = await PresetRow.destroy({ where: { id } })
    if (removed === 0) throw new HttpError(404, 'preset-not-found', 'This preset is not here any more.')
  }
}
