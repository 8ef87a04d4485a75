// Shows and chains as they are read: lifted to this version, and checked.
import { CURRENT_VERSION, isLoose, upgradeShow, upgradeSteps, migrations, type Loose } from './migrations.ts'
import { chainSchema, showSchema, type ChainFile } from './schema.ts'
import type { Show } from './show.ts'
import { checkBounds } from './stored-bounds.ts'

/** A stored show or chain of a version that is not known here. */
export class VersionError extends RangeError {}

/** A checked chain file of any version. Throws a ZodError, or a VersionError for a version from the future. */
export function readChain(stored: unknown): ChainFile {
  checkBounds(stored)
  const loose = stored as Loose
  if (typeof loose === 'object' && loose !== null && typeof loose['version'] === 'number') {
    if (loose['version'] > CHAIN_VERSION) {
      throw new VersionError(`version must be at most ${CHAIN_VERSION}, got ${loose['version']}: this chain was saved by a newer Green Room`)
    }
    if (loose['version'] === 1) return chainSchema.parse({ ...loose, version: 2, steps: upgradeSteps(loose['steps']) })
  }
  return chainSchema.parse(stored)
}

const CHAIN_VERSION = 2

/** A checked show of any stored version. Throws a ZodError, a BoundsError, or a VersionError for a version from the future. */
export function readShow(stored: unknown): Show {
  checkBounds(stored)
  if (isLoose(stored) && typeof stored['version'] === 'number') {
    const { version } = stored
    if (version > CURRENT_VERSION) {
      throw new VersionError(`version must be at most ${CURRENT_VERSION}, got ${version}: this show was saved by a newer Green Room`)
    }
    if (version < CURRENT_VERSION && migrations[version] === undefined) throw new VersionError(`version ${String(version)} of a show is not known`)
  }
  return showSchema.parse(upgradeShow(stored))
}
