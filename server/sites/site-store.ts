import type { Database } from '../db/database.ts'
import { HttpError } from '../http-error.ts'
import { initSiteModel, SiteRow } from './model.ts'

/** What a presenter decided for a site. */
export interface Site {
  readonly origin: string
  readonly decision: 'always' | 'never'
  readonly decidedAt: string
}

const MOST_SITES = 500

export class SiteStore {
  readonly #database: Database

  constructor(database: Database) {
    this.#database = database
    initSiteModel(database.sequelize)
  }

  /** All decisions, by origin. */
  async list(): Promise<Site[]> {
    const rows = await SiteRow.findAll({ order: [['origin', 'ASC']] })
    return rows.map(({ origin, decision, decidedAt }) => ({ origin, decision, decidedAt: decidedAt.toISOString() }))
  }

  /** Keeps a decision in place of an earlier one. Throws an HttpError when there is no room. */
  async decide(origin: string, decision: Site['decision']): Promise<void> {
    await this.#database.write(async (transaction) => {
      const known = await SiteRow.findByPk(origin, { transaction })
      if (known !== null) return known.update({ decision, decidedAt: new Date() }, { transaction })
      if ((await SiteRow.count({ transaction })) >= MOST_SITES) {
        throw new HttpError(409, 'sites-full', `There are ${MOST_SITES} sites in the list already. Take one back first.`)
      }
      return SiteRow.create({ origin, decision, decidedAt: new Date() }, { transaction })
    })
  }

  /** Takes a decision back; one that is not there is no error. */
  async forget(origin: string): Promise<void> {
    await this.#database.write((transaction) => SiteRow.destroy({ where: { origin }, transaction }))
  }
}
