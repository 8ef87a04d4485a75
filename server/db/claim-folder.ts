// One server for one data folder. The claim is a lock of the operating system on a small file, so that it ends with
// the process, however that ends.
import path from 'node:path'
import sqlite3 from 'sqlite3'

export interface FolderClaim {
  /** Frees the folder. Safe to call twice. */
  release(): Promise<void>
}

/** Claims a data folder for this process. Throws an Error with words when another server has it. */
export async function claimFolder(dataDir: string): Promise<FolderClaim> {
  const file = path.join(dataDir, 'in-use.lock')
  const lock = await open(file)
  try {
    await exec(lock, 'PRAGMA busy_timeout = 0; BEGIN EXCLUSIVE')
  } catch (error) {
    await close(lock)
    if ((error as { code?: string }).code !== 'SQLITE_BUSY') throw error
    throw new Error(`Another Green Room already uses the folder "${dataDir}". Use that one, stop it, or name another folder in GREEN_ROOM_DATA.`)
  }
  let isReleased = false
  return {
    release: async () => {
      if (isReleased) return
      isReleased = true
      await close(lock)
    },
  }
}

function open(file: string): Promise<sqlite3.Database> {
  return new Promise((resolve, reject) => {
    const database = new sqlite3.Database(file, (error) => (error === null ? resolve(database) : reject(error)))
  })
}

function exec(database: sqlite3.Database, sql: string): Promise<void> {
  return new Promise((resolve, reject) => database.exec(sql, (error) => (error === null ? resolve() : reject(error))))
}

function close(database: sqlite3.Database): Promise<void> {
  return new Promise((resolve, reject) => database.close((error) => (error === null ? resolve() : reject(error))))
}
