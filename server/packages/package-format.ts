// What an exported show is: a zip archive with the document, what it means, and every file that it needs.
import { z } from 'zod'

export const CONTENTS_FILE = 'contents.json'
export const SHOW_FILE = 'show.json'
export const SCHEMA_FILE = 'show.schema.json'

/** A file of a show in its archive, named by its SHA-256; what follows the dot is for people. */
export const ASSET_FILE = /^assets\/([0-9a-f]{64})(?:\.[a-z0-9]{1,8})?$/

/** Most of each thing in an archive that is read. */
export const PACKAGE_LIMITS = { archiveBytes: 1024 ** 3, files: 600, unpackedBytes: 2 * 1024 ** 3, contentsBytes: 1024 ** 2 } as const

const hash = z.string().regex(/^[0-9a-f]{64}$/, 'must be a SHA-256 in hexadecimal')

export const contentsSchema = z.strictObject({
  format: z.literal('green-room-package'),
  version: z.literal(1),
  /** The files in the archive, and what they were called. */
  files: z.array(z.strictObject({ hash, name: z.string().min(1).max(200), mimeType: z.string().max(100) })).max(PACKAGE_LIMITS.files),
  /** Files that the show names and that were not there when it was exported. */
  missing: z.array(hash).max(PACKAGE_LIMITS.files),
})

export type PackageContents = z.infer<typeof contentsSchema>
