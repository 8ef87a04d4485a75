import path from 'node:path'
import { mkdirSync } from 'node:fs'
import { Sequelize } from 'sequelize'
import { SequelizeStorage, Umzug } from 'umzug'
import { migrations } from './migrations.ts'

/** Opens (and makes) the database, sets it durable, and brings its tables up to date. */
export async function openDatabase(dataDir: string): Promise<Sequelize> {
  mkdirSync(dataDir, { recursive: true })
  const sequelize = new Sequelize({ dialect: 'sqlite', storage: path.join(dataDir, 'green-room.sqlite'), logging: false })
  await sequelize.query('PRAGMA journal_mode = WAL')
  // FULL: an acknowledged edit is on the disk, not only in the system's cache.
  await sequelize.query('PRAGMA synchronous = FULL')
  await sequelize.query('PRAGMA foreign_keys = ON')
  const umzug = new Umzug({
    migrations: migrations.map(({ name, up }) => ({ name, up: async () => up(sequelize.getQueryInterface()) })),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  })
  await umzug.up()
  return sequelize
}
