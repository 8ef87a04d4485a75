// Documents that are kept under names, for use in any show: presets of the clean-up, and graphics.
import { randomBytes } from 'node:crypto'
import type { ModelStatic } from 'sequelize'
import type { Database } from '../db/database.ts'
import type { HttpError } from '../http-error.ts'
import { tryRead } from '../try-read.ts'
import { namedModel, type NamedRow } from './model.ts'

/** What is kept in a table of its own. */
export interface NamedKind<T> {
  readonly table: string
  /** As many may be kept. */
  readonly most: number
  /** The document as it is now, under its name; throws what `tryRead` can tell for one out of bounds. */
  readonly read: (stored: unknown, name: string) => T
  readonly full: () => HttpError
  readonly missing: () => HttpError
}

export interface Named<T> {
  readonly id: string
  readonly name: string
  readonly value: T
}

/** One that cannot be read any more, with the reason. */
export interface UnreadableNamed {
  readonly id: string
  readonly name: string
  readonly reason: string
}

export class NamedStore<T> {
  readonly #database: Database
  readonly #kind: NamedKind<T>
  readonly #rows: ModelStatic<NamedRow>

  constructor(database: Database, kind: NamedKind<T>) {
    this.#database = database
    this.#kind = kind
    this.#rows = namedModel(database.sequelize, kind.table)
  }

  /** All of them by name; those that cannot be read are told apart and hide no other. */
  async list(): Promise<{ readonly named: readonly Named<T>[]; readonly unreadable: readonly UnreadableNamed[] }> {
    const rows = await this.#rows.findAll({ order: [['name', 'ASC']] })
    const named: Named<T>[] = []
    const unreadable: UnreadableNamed[] = []
    for (const { id, name, document } of rows) {
      const read = tryRead(() => this.#kind.read(JSON.parse(document), name))
      if (read.isReadable) named.push({ id, name, value: read.value })
      else unreadable.push({ id, name, reason: read.reason })
    }
    return { named, unreadable }
  }

  /** Every text that is stored. */
  async documents(): Promise<readonly string[]> {
    return (await this.#rows.findAll({ attributes: ['document'] })).map(({ document }) => document)
  }

  /** Keeps a document under a name, in place of one that has it. Throws a ZodError for one out of bounds. */
  async save(name: string, stored: unknown): Promise<Named<T>> {
    const value = this.#kind.read(stored, name)
    const document = JSON.stringify(value)
    return this.#database.write(async (transaction) => {
      const known = await this.#rows.findOne({ where: { name }, transaction })
      if (known !== null) {
        await known.update({ document }, { transaction })
        return { id: known.id, name, value }
      }
      if ((await this.#rows.count({ transaction })) >= this.#kind.most) throw this.#kind.full()
      const row = await this.#rows.create({ id: randomBytes(9).toString('base64url'), name, document, createdAt: new Date() }, { transaction })
      return { id: row.id, name, value }
    })
  }

  /** Throws a 404 for an unknown id. */
  async remove(id: string): Promise<void> {
    const removed = await this.#database.write((transaction) => this.#rows.destroy({ where: { id }, transaction }))
    if (removed === 0) throw this.#kind.missing()
  }
}
