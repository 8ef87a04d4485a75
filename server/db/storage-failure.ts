// Failures of the disk and the database file in words: what is wrong, where, and what to do.

/** The code of a failure: of Node, or of SQLite as Sequelize wraps it. */
function failureCode(error: unknown): string | null {
  const { code, parent, original } = (error ?? {}) as { code?: unknown; parent?: { code?: unknown }; original?: { code?: unknown } }
  const found = [parent?.code, original?.code, code].find((candidate) => typeof candidate === 'string')
  return found ?? null
}

const ADVICE: Readonly<Record<string, string>> = {
  SQLITE_CORRUPT: 'is damaged. Move it away (keep it: shows may still be read from it) and start again, or put a copy of it from a backup in its place.',
  SQLITE_NOTADB: 'is not a database of Green Room. Move it away and start again, or name another folder in GREEN_ROOM_DATA.',
  SQLITE_READONLY: 'may only be read. Allow writing to it and to its folder, or name another folder in GREEN_ROOM_DATA.',
  SQLITE_CANTOPEN: 'cannot be opened. Check that its folder exists and may be written to, or name another folder in GREEN_ROOM_DATA.',
  SQLITE_FULL: 'cannot grow: the disk is full. Free some space; what you typed is still in the studio and is saved again by itself.',
  SQLITE_IOERR: 'could not be read or written: the disk refused. Check the disk, then try again.',
  ENOSPC: 'cannot be written: the disk is full. Free some space and try again.',
  EACCES: 'may not be written. Allow it, or name another folder in GREEN_ROOM_DATA.',
  EPERM: 'may not be written. Allow it, or name another folder in GREEN_ROOM_DATA.',
  EROFS: 'lies on a disk that may only be read. Name another folder in GREEN_ROOM_DATA.',
  ENOTDIR: 'lies in something that is not a folder. Name another folder in GREEN_ROOM_DATA.',
  EEXIST: 'lies in something that is not a folder. Name another folder in GREEN_ROOM_DATA.',
}

/** A failure of the disk or of the database file, in words. */
class StorageError extends Error {}

/** The failure in words, or null when it is none of the disk or of the database file. */
export function storageFailure(error: unknown, file: string): Error | null {
  if (error instanceof StorageError) return error
  const code = failureCode(error)
  const advice = code === null ? undefined : ADVICE[code]
  return advice === undefined ? null : new StorageError(`"${file}" ${advice}`, { cause: error })
}
