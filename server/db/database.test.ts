// What a person is told when the data folder cannot be used, and that two servers never share one.
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { Database } from './database.ts'
import { storageFailure } from './storage-failure.ts'

let dataDir: string
beforeEach(() => (dataDir = mkdtempSync(path.join(tmpdir(), 'green-room-db-'))))
afterEach(() => rmSync(dataDir, { recursive: true, force: true }))

describe('Database', () => {
  it('refuses a second server on one folder with words, and lets it in when the first has gone', async () => {
    const first = await Database.open(dataDir)
    await expect(Database.open(dataDir)).rejects.toThrow(`Another Green Room already uses the folder "${dataDir}"`)
    await first.close()
    await (await Database.open(dataDir)).close()
  })

  it('names a file that is no database and says what to do', async () => {
    writeFileSync(path.join(dataDir, 'green-room.sqlite'), 'These are not the tables you are looking for. '.repeat(50))
    await expect(Database.open(dataDir)).rejects.toThrow(/green-room\.sqlite" is not a database of Green Room\. Move it away/)
  })

  it('names a folder that is none', async () => {
    const file = path.join(dataDir, 'plain-file')
    writeFileSync(file, '')
    await expect(Database.open(file)).rejects.toThrow(/lies in something that is not a folder\. Name another folder in GREEN_ROOM_DATA/)
  })

  it('names a database that cannot be opened, and frees the folder', async () => {
    const file = path.join(dataDir, 'green-room.sqlite')
    mkdirSync(file)
    await expect(Database.open(dataDir)).rejects.toThrow(`"${file}" cannot be opened`)
    rmSync(file, { recursive: true })
    await (await Database.open(dataDir)).close()
  })

  it('gives up one transaction without harm to the next', async () => {
    const database = await Database.open(dataDir)
    const insert = `INSERT INTO presets (id, name, document, createdAt) VALUES ('a', 'A', '{}', '2026-01-01')`
    await expect(
      database.write(async (transaction) => {
        await database.sequelize.query(insert, { transaction })
        throw new Error('in the middle')
      }),
    ).rejects.toThrow('in the middle')
    await database.write((transaction) => database.sequelize.query(insert, { transaction }))
    expect((await database.sequelize.query('SELECT id FROM presets'))[0]).toEqual([{ id: 'a' }])
    await database.close()
  })

  it('keeps the newest of presets that came twice before names were unique', async () => {
    const database = await Database.open(dataDir)
    await database.sequelize.query('DROP INDEX presets_name')
    await database.sequelize.query(`DELETE FROM SequelizeMeta WHERE name = '003-one-preset-a-name'`)
    for (const id of ['a', 'b']) {
      await database.sequelize.query(`INSERT INTO presets (id, name, document, createdAt) VALUES ('${id}', 'A', '{}', '2026-01-01')`)
    }
    await database.close()
    const again = await Database.open(dataDir)
    expect((await again.sequelize.query('SELECT id FROM presets'))[0]).toEqual([{ id: 'b' }])
    await again.close()
  })
})

// Result codes: https://www.sqlite.org/rescode.html and errno(3).
describe('storage failures', () => {
  it.each([
    [{ parent: { code: 'SQLITE_CORRUPT' } }, 'is damaged. Move it away'],
    [{ original: { code: 'SQLITE_READONLY' } }, 'may only be read'],
    [{ parent: { code: 'SQLITE_FULL' } }, 'the disk is full. Free some space'],
    [{ code: 'ENOSPC' }, 'the disk is full. Free some space'],
    [{ code: 'EACCES' }, 'may not be written'],
  ])('%j names the file and the way out', (error, words) => {
    const failure = storageFailure(error, '/somewhere/green-room.sqlite')
    expect(failure?.message).toContain('"/somewhere/green-room.sqlite"')
    expect(failure?.message).toContain(words)
    expect(storageFailure(failure, '/elsewhere')).toBe(failure)
  })

  it('leaves other failures to others', () => {
    expect(storageFailure(new Error('something else'), 'x')).toBeNull()
    expect(storageFailure(null, 'x')).toBeNull()
  })
})
