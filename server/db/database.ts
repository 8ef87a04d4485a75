// The one database: durable on every connection, and written by one transaction at a time.
import { mkdirSync } from 'node:fs'
import path from 'node:path'
import pLimit from 'p-limit'
import { Sequelize, Transaction } from 'sequelize'
import { SequelizeStorage, Umzug } from 'umzug'
import { claimFolder, type FolderClaim } from './claim-folder.ts'
import { migrations } from './migrations.ts'
import { storageFailure } from './storage-failure.ts'

/** What of sqlite3's connection is used here. */
interface Connection {
  exec(sql: string, done: (error: Error | null) => void): void
}

interface Connections {
  getConnection(options: unknown): Promise<Connection>
}

/** FULL: an acknowledged edit is on the disk, not only in the system's cache. SQLite keeps both settings by connection. */
const EVERY_CONNECTION = 'PRAGMA synchronous = FULL; PRAGMA busy_timeout = 5000'

export class Database {
  readonly sequelize: Sequelize
  readonly #claim: FolderClaim
  readonly #oneAtATime = pLimit(1)

  private constructor(sequelize: Sequelize, claim: FolderClaim) {
    this.sequelize = sequelize
    this.#claim = claim
  }

  /**
   * Opens (and makes) the database in a folder, sets it durable, and brings its tables up to date. Throws an Error that names
   * the file and the fix when the folder is used by another server, is not writable, or holds something that is no database.
   */
  static async open(dataDir: string): Promise<Database> {
    const file = path.join(dataDir, 'green-room.sqlite')
    try {
      mkdirSync(dataDir, { recursive: true })
      const claim = await claimFolder(dataDir)
      const sequelize = new Sequelize({ dialect: 'sqlite', storage: file, logging: false })
      try {
        durableOnEveryConnection(sequelize)
        await sequelize.query('PRAGMA journal_mode = WAL')
        await migrate(sequelize)
        return new Database(sequelize, claim)
      } catch (error) {
        // Not waited for: closing a file that never opened does not end (Sequelize 6).
        sequelize.close().catch(() => undefined)
        await claim.release()
        throw error
      }
    } catch (error) {
      throw storageFailure(error, file) ?? error
    }
  }

  /**
   * Runs `work` in a transaction of its own, after all that were asked for before. Two transactions that read and then write
   * would refuse each other (SQLITE_BUSY); in turn, the later one sees what the earlier one wrote.
   */
  write<T>(work: (transaction: Transaction) => Promise<T>): Promise<T> {
    return this.#oneAtATime(() => this.sequelize.transaction({ type: Transaction.TYPES.IMMEDIATE }, work))
  }

  /** Waits for writes under way, then closes the file and frees the folder. */
  async close(): Promise<void> {
    await this.#oneAtATime(() => this.sequelize.close())
    await this.#claim.release()
  }
}

/** Sequelize opens a connection for each transaction and has no hook for it with SQLite. */
function durableOnEveryConnection(sequelize: Sequelize): void {
  const connections = (sequelize as unknown as { connectionManager: Connections }).connectionManager
  const open = connections.getConnection.bind(connections)
  const prepared = new WeakSet<Connection>()
  connections.getConnection = async (options) => {
    const connection = await open(options)
    if (prepared.has(connection)) return connection
    prepared.add(connection)
    await new Promise<void>((resolve, reject) => connection.exec(EVERY_CONNECTION, (error) => (error === null ? resolve() : reject(error))))
    return connection
  }
}

async function migrate(sequelize: Sequelize): Promise<void> {
  const umzug = new Umzug({
    migrations: migrations.map(({ name, up }) => ({ name, up: async () => up(sequelize.getQueryInterface()) })),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  })
  await umzug.up()
}
